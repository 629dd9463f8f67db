import { describe, expect, test } from '@jest/globals'
import { ref } from 'vue'
import { inWords, paceOf } from '~/composables/pace'
import { useProgramme } from '~/composables/programme'

describe('how fast a render is', () => {
  const seen = (framesDone: number, done = 0, status = 'running') =>
    ({ status, framesDone, framesTotal: 100, runs: { total: 25, done, running: 2 } }) as Parameters<typeof paceOf>[1]

  test('is told from what was seen lately, and how long it will take from that', () => {
    let pace = paceOf(undefined, seen(0), 0)
    expect([pace.rate, pace.left]).toEqual([null, null])
    for (let second = 1; second <= 20; second++) pace = paceOf(pace, seen(second * 3), second * 1000)
    expect(pace.rate).toBeCloseTo(3, 6)
    expect(pace.left).toBeCloseTo(40 / 3, 6)
    // It slows down: what was before eight seconds ago counts no more.
    for (let second = 21; second <= 29; second++) pace = paceOf(pace, seen(60 + second - 20), second * 1000)
    expect(pace.rate).toBeCloseTo(1, 6)
  })

  test('counts anew when the frames are written, when they are compared, and when a render begins again', () => {
    let pace = paceOf(undefined, seen(0), 0)
    pace = paceOf(pace, seen(90), 5000)
    expect(pace.rate).toBeCloseTo(18, 6)
    expect(paceOf(pace, seen(95, 25), 6000).rate).toBeNull()
    expect(paceOf(pace, seen(95, 25, 'checking'), 6000).rate).toBeNull()
    expect(paceOf(pace, seen(3), 6000).rate).toBeNull()
  })

  test('times are told as people say them', () => {
    expect([0.2, 59, 90, 7260].map(inWords)).toEqual(['1 s', '59 s', '2 min', '2 h 1 min'])
  })
})

describe('a title over footage', () => {
  const programme = (count: number, seconds: number | null) => useProgramme(ref(25), ref(count), ref(seconds))

  test('begins at its moment and is played again and again, or once', () => {
    const { inPoint, loops, now, place, span, total } = programme(50, 8)
    expect(total.value).toBe(200)
    inPoint.value = 2
    const places = (...frames: number[]) =>
      frames.map((frame) => {
        now.value = frame
        return place.value
      })
    expect(places(0, 49, 50, 99, 100, 151)).toEqual([null, null, 0, 49, 0, 1])
    expect(span.value).toEqual({ from: 0.25, to: 1 })
    loops.value = false
    expect(places(49, 50, 99, 100)).toEqual([null, 0, 49, null])
    expect(span.value).toEqual({ from: 0.25, to: 0.5 })
  })

  test('is longer than the footage where the title is; one does not go beyond either end', () => {
    const { go, now, total } = programme(500, 8)
    expect(total.value).toBe(25 + 500 + 25)
    go(9999)
    expect(now.value).toBe(549)
    go(-3)
    expect(now.value).toBe(0)
  })

  test('shows nothing of a file that is not known yet', () => {
    const { now, place } = programme(0, null)
    now.value = 25
    expect(place.value).toBeNull()
  })
})
