import { beforeEach, describe, expect, jest, test } from '@jest/globals'
import { Seat } from '~/workers/seat'

// Workers that die or hang: the seat is taken by another, and only the task that the worker hung on is refused.

interface Face {
  name: number
}
const FAULT = { code: 'engine-died', place: 'engine', message: 'Died.', remedy: 'Undo.' }

let begun: number
let ended: number[]
const begin = () => {
  const face = { name: ++begun }
  return { face, end: () => ended.push(face.name) }
}
const later = (ms: number, work: () => void) => {
  const timer = setTimeout(work, ms)
  return () => clearTimeout(timer)
}
const never = () => new Promise<never>(() => {})
const after = (ms: number) => (face: Face) =>
  new Promise<number>((resolve) => void setTimeout(() => resolve(face.name), ms))

beforeEach(() => {
  jest.useFakeTimers()
  begun = 0
  ended = []
})

describe('a seat for a worker', () => {
  test('hands work to its worker and gives the answers back', async () => {
    const seat = new Seat<Face>(begin, 1000, later)
    const both = Promise.all([seat.run(after(10)), seat.run(after(20))])
    expect(seat.waiting).toBe(2)
    await jest.advanceTimersByTimeAsync(30)
    expect(await both).toEqual([1, 1])
    expect([seat.waiting, ended]).toEqual([0, []])
    await jest.advanceTimersByTimeAsync(60_000)
    expect(ended).toEqual([])
  })

  test('replaces a worker that hangs: the task it hung on is refused, those behind it are done by the next', async () => {
    const seat = new Seat<Face>(begin, 1000, later)
    const hung = seat.run(never).catch((error: unknown) => error)
    const behind = seat.run((face) => (face.name === 1 ? never() : Promise.resolve(face.name)))
    await jest.advanceTimersByTimeAsync(1001)
    expect(await hung).toMatchObject({ fault: { code: 'too-slow' } })
    expect(await behind).toBe(2)
    expect([seat.face.name, ended, seat.waiting]).toEqual([2, [1], 0])
  })

  test('gives each task its own time: many that are quick enough do not add up', async () => {
    const seat = new Seat<Face>(begin, 1000, later)
    const all = Promise.all([800, 1600, 2400].map((ms) => seat.run(after(ms))))
    await jest.advanceTimersByTimeAsync(3000)
    expect(await all).toEqual([1, 1, 1])
  })

  test('replaces a worker that died, and hears no late words of it', async () => {
    const seat = new Seat<Face>(begin, 1000, later)
    let late: (value: string) => void = () => {}
    const lost = seat.run(() => new Promise<string>((resolve) => (late = resolve))).catch((error: unknown) => error)
    const waits = seat.run((face) => (face.name === 1 ? never() : Promise.resolve('second')))
    seat.replace(FAULT)
    late('first')
    expect(await lost).toMatchObject({ fault: { code: 'engine-died' } })
    expect(await waits).toBe('second')
  })

  test.each(['answer', 'fault'])(
    'a late %s to what the next worker is doing already is not taken for it',
    async (what) => {
      const seat = new Seat<Face>(begin, 1000, later)
      let late: () => void = () => {}
      const hung = seat.run(never).catch((error: unknown) => error)
      const first = new Promise<string>((resolve, reject) => {
        late = () => (what === 'answer' ? resolve('first') : reject(new Error('first')))
      })
      let ready: (value: string) => void = () => {}
      const second = new Promise<string>((resolve) => (ready = resolve))
      const waits = seat.run((face) => (face.name === 1 ? first : second))
      seat.replace(FAULT)
      late()
      await jest.advanceTimersByTimeAsync(1)
      expect(seat.waiting).toBe(1)
      ready('second')
      expect(await waits).toBe('second')
      expect(await hung).toMatchObject({ fault: { code: 'engine-died' } })
    },
  )
})
