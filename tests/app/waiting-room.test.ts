import { expect, test } from '@jest/globals'
import { WaitingRoom } from '~/workers/waiting-room'

const settled = () => new Promise((go) => setImmediate(go))
const yes = () => true

function work() {
  let end!: (value: string) => void
  let fail!: (reason: Error) => void
  const done = new Promise<string>((resolve, reject) => ([end, fail] = [resolve, reject]))
  const begun = { yet: false }
  return { begun, end, fail, run: () => ((begun.yet = true), done) }
}

test('as many as there are places are under way, the others follow in the order in which they came', async () => {
  const room = new WaitingRoom(2)
  const all = Array.from({ length: 4 }, work)
  const given = all.map(({ run }) => room.take(run, yes))
  const begun = () => all.map(({ begun }) => begun.yet)
  expect(begun()).toEqual([true, true, false, false])
  all[1]!.end('second')
  expect(await given[1]).toBe('second')
  await settled()
  expect(begun()).toEqual([true, true, true, false])
  all[0]!.end('first')
  all[2]!.end('third')
  await settled()
  expect(begun()).toEqual([true, true, true, true])
})

test('what is not wanted any more when its turn comes is never begun', async () => {
  const room = new WaitingRoom(1)
  const [first, second, third] = [work(), work(), work()]
  let wanted = true
  void room.take(first.run, yes)
  const dropped = room.take(second.run, () => wanted)
  void room.take(third.run, yes)
  wanted = false
  first.end('')
  expect(await dropped).toBeNull()
  await settled()
  expect([second.begun.yet, third.begun.yet]).toEqual([false, true])
})

test('work that fails says so and makes room', async () => {
  const room = new WaitingRoom(1)
  const [first, second] = [work(), work()]
  const failed = room.take(first.run, yes)
  void room.take(second.run, yes)
  first.fail(new Error('no font'))
  await expect(failed).rejects.toThrow('no font')
  await settled()
  expect(second.begun.yet).toBe(true)
})
