import { describe, expect, test } from '@jest/globals'
import type { SmallFrame } from '#core/judge/best-cut'
import { bestCut, differencesByLag, distancesOf, periodsOf } from '#core/judge/best-cut'
import { randomFrom } from '../support/random'

const [W, H] = [32, 18]

/** A soft spot that goes round a way of its own once in a period, with noise on top. */
function sequence(count: number, period: number, noise: number, seed: number): SmallFrame[] {
  const random = randomFrom(seed)
  const [a, b] = [random() * 2 * Math.PI, 1 + Math.floor(random() * 2)]
  return Array.from({ length: count }, (_, frame) => {
    const turn = (2 * Math.PI * frame) / period
    const [cx, cy] = [W / 2 + 10 * Math.cos(turn + a), H / 2 + 6 * Math.sin(b * turn)]
    const value = (i: number) => {
      const [dx, dy] = [(i % W) - cx, Math.floor(i / W) - cy]
      return 220 * Math.exp(-(dx * dx + dy * dy) / 14) + noise * (random() - 0.5) * 2
    }
    const cut = (v: number) => Math.min(255, Math.max(0, Math.round(v)))
    const luma = Uint8Array.from({ length: W * H }, (_, i) => cut(value(i)))
    return { luma, alpha: luma.map((v) => (v > 20 ? 255 : v)) }
  })
}

/** The period by autocorrelation of whole pictures: the first peak that is nearly as high as any (a second method). */
function byAutocorrelation(frames: readonly SmallFrame[]): number {
  const mean = frames.map(({ luma }) => luma.reduce((sum, v) => sum + v, 0) / luma.length)
  const product = (i: number, j: number) =>
    frames[i]!.luma.reduce((sum, v, k) => sum + (v - mean[i]!) * (frames[j]!.luma[k]! - mean[j]!), 0)
  const norm = (i: number) => Math.sqrt(product(i, i))
  const of = (lag: number) => {
    let sum = 0
    for (let i = 0; i + lag < frames.length; i++) sum += product(i, i + lag) / (norm(i) * norm(i + lag))
    return sum / (frames.length - lag)
  }
  const all = Array.from({ length: Math.floor(frames.length * 0.75) }, (_, lag) => (lag === 0 ? -1 : of(lag)))
  const peaks = all.flatMap((v, lag) => (lag > 1 && v >= all[lag - 1]! && v > (all[lag + 1] ?? -1) ? [lag] : []))
  const highest = Math.max(...peaks.map((lag) => all[lag]!))
  return peaks.find((lag) => all[lag]! > highest - 0.1)!
}

describe('the best cut', () => {
  test('finds the period of twenty sequences with noise, and autocorrelation agrees', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const period = 12 + ((seed * 7) % 29)
      const frames = sequence(Math.round(period * 2.6) + seed, period, 12, seed)
      const found = bestCut(distancesOf(frames))
      expect([seed, found.periods[0]?.length]).toEqual([seed, period])
      expect([seed, found.best.out - found.best.in]).toEqual([seed, period])
      expect([seed, found.best.shows]).toEqual([seed, false])
      expect([seed, byAutocorrelation(frames)]).toEqual([seed, period])
    }
  })

  test('measures distances as the root of the mean square, of luma and alpha', () => {
    const flat = (luma: number, alpha: number): SmallFrame => ({
      luma: new Uint8Array(4).fill(luma),
      alpha: new Uint8Array(4).fill(alpha),
    })
    const { values } = distancesOf([flat(10, 100), flat(40, 100), flat(10, 140)])
    const expected = [0, 30 / Math.SQRT2, 40 / Math.SQRT2, 30 / Math.SQRT2, 0, Math.sqrt((900 + 1600) / 2)]
    expect([...values.slice(0, 6)].map((v) => v.toFixed(4))).toEqual(expected.map((v) => v.toFixed(4)))
  })

  test('without noise the seam is one step more, and every multiple is a period', () => {
    const distances = distancesOf(sequence(70, 20, 0, 5))
    expect(periodsOf(distances).map(({ length }) => length)).toEqual([20, 40])
    expect(differencesByLag(distances)[19]).toBe(0)
    const { best } = bestCut(distances)
    // From frame out − 1 to frame in it goes as far as from any frame to the next.
    expect(best.seam / best.step).toBeGreaterThan(0.5)
    expect(best.shows).toBe(false)
  })

  const lumas = (values: readonly number[]): SmallFrame[] =>
    values.map((v) => ({ luma: Uint8Array.of(v), alpha: Uint8Array.of(255) }))

  test('a period is a deep valley: a multiple that drifted away is none', () => {
    const drifting = Array.from({ length: 20 }, (_, i) => [0, 80, 35, 115][i % 4]! + 4 * i)
    expect(periodsOf(distancesOf(lumas(drifting))).map(({ length }) => length)).toEqual([4])
  })

  test('of a loop that was made to be one nothing is cut away', () => {
    // Once round: only the whole of it ends where it began.
    const round = Array.from({ length: 20 }, (_, i) =>
      [Math.sin, Math.cos].map((f) => 120 + 100 * f((i * Math.PI) / 10)),
    )
    const frames = round.map(([a, b]): SmallFrame => ({ luma: Uint8Array.of(a!, b!), alpha: Uint8Array.of(255, 255) }))
    expect(bestCut(distancesOf(frames)).best).toMatchObject({ in: 0, out: 20, shows: false })
  })

  test('a change of scene within it hides no seam: it is no loop', () => {
    const scene = (from: number) => Array.from({ length: 15 }, (_, i) => from + i)
    const { best } = bestCut(distancesOf(lumas([...scene(10), ...scene(200)])))
    expect([best.in, best.out]).not.toEqual([0, 30])
  })

  test('of what never repeats takes the longer half whose seam is smallest, and says that it shows', () => {
    const count = 40
    const frames = Array.from({ length: count }, (_, frame): SmallFrame => {
      const luma = Uint8Array.from({ length: W * H }, (_, i) => (i % W < (frame / count) * W ? 200 : 0))
      return { luma, alpha: new Uint8Array(W * H).fill(255) }
    })
    const { periods, best } = bestCut(distancesOf(frames))
    expect(periods).toEqual([])
    expect(best.out - best.in).toBeGreaterThanOrEqual(count / 2)
    expect(best.shows).toBe(true)
  })
})
