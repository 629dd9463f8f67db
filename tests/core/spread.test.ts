import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { EdgeArea, Edges, Picture, PlaceWindow } from '#core/kernels/kernels'
import { Kernels } from '#core/kernels/kernels'

// Kernels of finishes beside plain loops that say what they mean.

const kernels = new Kernels()
const [W, H] = [48, 36]

type Pixel = readonly [number, number, number, number]
const CLEAR: Pixel = [0, 0, 0, 0]

/** Premultiplied pixels by chance, some of them clear, at a place on the card. */
function pictureAt(x: number, y: number, seed: number, w = W, h = H): Picture & { box: PlaceWindow } {
  const picture = { ...kernels.layers(w, h), box: { x, y, w, h } }
  const values = kernels.rgba(picture)
  const chance = (i: number) => {
    const v = Math.sin(i * 12.9898 + seed * 78.233) * 43758.5453
    return v - Math.floor(v)
  }
  for (let i = 0; i < w * h; i++) {
    const alpha = chance(i * 5) < 0.2 ? 0 : Math.min(1, chance(i * 5 + 1) * 1.5)
    for (let c = 0; c < 3; c++) values[i * 4 + c] = chance(i * 5 + 2 + c) * alpha
    values[i * 4 + 3] = alpha
  }
  return picture
}

const emptyLike = ({ box }: Picture): Picture => ({ ...kernels.layers(box.w, box.h), box })

/** The pixels of a picture by their places on the card; beyond it all is clear. */
function reader(picture: Picture): (x: number, y: number) => Pixel {
  const values = Float32Array.from(kernels.rgba(picture))
  const { x: left, y: top, w, h } = picture.box
  return (x, y) => {
    const [u, v] = [x - left, y - top]
    if (u < 0 || v < 0 || u >= w || v >= h) return CLEAR
    const i = (v * w + u) * 4
    return [values[i]!, values[i + 1]!, values[i + 2]!, values[i + 3]!]
  }
}

const mix = (a: Pixel, b: Pixel, k: number): Pixel => [0, 1, 2, 3].map((c) => a[c]! + (b[c]! - a[c]!) * k) as never

/** Between four pixels; (u, v) counts from their centres. */
function between(read: (x: number, y: number) => Pixel, u: number, v: number): Pixel {
  const [x, y] = [Math.floor(u), Math.floor(v)]
  const top = mix(read(x, y), read(x + 1, y), u - x)
  return mix(top, mix(read(x, y + 1), read(x + 1, y + 1), u - x), v - y)
}

/** The largest difference of a picture from what a function says of each place. */
function farthest(picture: Picture, truth: (x: number, y: number) => Pixel, margin = 0): number {
  const read = reader(picture)
  let most = 0
  const { x, y, w, h } = picture.box
  for (let v = y + margin; v < y + h - margin; v++) {
    for (let u = x + margin; u < x + w - margin; u++) {
      const [is, ought] = [read(u, v), truth(u, v)]
      for (let c = 0; c < 4; c++) most = Math.max(most, Math.abs(is[c]! - ought[c]!))
    }
  }
  return most
}

/** Under a mark, so that no run leaves memory behind. */
function inTurn(work: () => void): void {
  const mark = kernels.mark()
  work()
  kernels.release(mark)
}

const places = { x: fc.integer({ min: -40, max: 40 }).map((v) => v * 4), y: fc.integer({ min: -100, max: 100 }) }

/** Where a line of some length weighs each whole step from its middle. */
function weights(length: number): { step: number; weight: number }[] {
  const half = length / 2
  const steps: { step: number; weight: number }[] = []
  for (let step = -Math.ceil(half) - 1; step <= Math.ceil(half) + 1; step++) {
    const weight = Math.min(step + 0.5, half) - Math.max(step - 0.5, -half)
    if (weight > 0) steps.push({ step, weight: weight / length })
  }
  return steps
}

describe('smears', () => {
  test('along an axis: the mean of the pixels that the line covers, each by its part', () => {
    fc.assert(
      fc.property(
        fc.record({ ...places, length: fc.double({ min: 1.5, max: 70, noNaN: true }), upright: fc.boolean() }),
        ({ x, y, length, upright }) =>
          inTurn(() => {
            const src = pictureAt(x, y, length)
            const dst = emptyLike(src)
            kernels.smearInto(src, dst, upright ? 90 : 0, length)
            const read = reader(src)
            const line = weights(length)
            const truth = (u: number, v: number): Pixel =>
              [0, 1, 2, 3].map((c) =>
                line.reduce(
                  (sum, { step, weight }) => sum + weight * (upright ? read(u, v + step) : read(u + step, v))[c]!,
                  0,
                ),
              ) as never
            expect(farthest(dst, truth)).toBeLessThan(2e-5)
          }),
      ),
      { numRuns: 12 },
    )
  })

  test('at a slant: the mean of places between pixels along the line, where nothing is sharper than a few pixels', () => {
    for (const [angle, length] of [
      [20, 17],
      [45, 24.5],
      [-70, 13.3],
      [110, 30],
    ] as const) {
      inTurn(() => {
        const src = pictureAt(-8, 12, angle, 96, 80)
        const soft = emptyLike(src)
        kernels.softenInto(src, soft, 3)
        const dst = emptyLike(src)
        kernels.smearInto(soft, dst, angle, length)
        const read = reader(soft)
        const [dx, dy] = [Math.cos((angle * Math.PI) / 180), -Math.sin((angle * Math.PI) / 180)]
        const COUNT = 200
        const truth = (u: number, v: number): Pixel => {
          let sum: Pixel = CLEAR
          for (let i = 0; i < COUNT; i++) {
            const away = ((i + 0.5) / COUNT - 0.5) * length
            const there = between(read, u + dx * away, v + dy * away)
            sum = [0, 1, 2, 3].map((c) => sum[c]! + there[c]! / COUNT) as never
          }
          return sum
        }
        expect(farthest(dst, truth, 20) * 255).toBeLessThan(1.5)
      })
    }
  })

  test('a whole picture stays whole, to the bit', () => {
    inTurn(() => {
      const src = pictureAt(0, 0, 1, 128, 96)
      kernels.rgba(src).fill(1)
      const dst = emptyLike(src)
      for (const angle of [0, 27, 90, 133]) {
        kernels.smearInto(src, dst, angle, 21.7)
        expect(farthest(dst, () => [1, 1, 1, 1], 30)).toBe(0)
      }
    })
  })
})

describe('turns and zooms', () => {
  test('of no extent leave the picture, but for what two readings between pixels soften', () => {
    inTurn(() => {
      const src = pictureAt(-16, 8, 3, 96, 80)
      const soft = emptyLike(src)
      kernels.softenInto(src, soft, 4)
      const dst = emptyLike(src)
      const read = reader(soft)
      kernels.spinInto(soft, dst, 20.3, 44.1, 0)
      expect(farthest(dst, read, 2) * 255).toBeLessThan(3)
      kernels.zoomInto(soft, dst, 20.3, 44.1, 1, 1)
      expect(farthest(dst, read, 2) * 255).toBeLessThan(3)
    })
  })

  test('are the mean over the arc, and over the ray', () => {
    inTurn(() => {
      const src = pictureAt(0, 0, 7, 96, 80)
      const soft = emptyLike(src)
      kernels.softenInto(src, soft, 4)
      const read = reader(soft)
      const [cx, cy] = [41.25, 37.5]
      const COUNT = 120
      const meanOf = (place: (k: number, dx: number, dy: number) => readonly [number, number]) => {
        return (u: number, v: number): Pixel => {
          let sum: Pixel = CLEAR
          for (let i = 0; i < COUNT; i++) {
            const [x, y] = place((i + 0.5) / COUNT - 0.5, u + 0.5 - cx, v + 0.5 - cy)
            const there = between(read, cx + x - 0.5, cy + y - 0.5)
            sum = [0, 1, 2, 3].map((c) => sum[c]! + there[c]! / COUNT) as never
          }
          return sum
        }
      }
      const turned = (k: number, dx: number, dy: number) => {
        const angle = (k * 24 * Math.PI) / 180
        return [dx * Math.cos(angle) - dy * Math.sin(angle), dx * Math.sin(angle) + dy * Math.cos(angle)] as const
      }
      const dst = emptyLike(src)
      kernels.spinInto(soft, dst, cx, cy, 24)
      expect(farthest(dst, meanOf(turned), 16) * 255).toBeLessThan(3)
      kernels.zoomInto(soft, dst, cx, cy, 0.85, 1.15)
      expect(
        farthest(
          dst,
          meanOf((k, dx, dy) => [dx * (1 + k * 0.3), dy * (1 + k * 0.3)]),
          16,
        ) * 255,
      ).toBeLessThan(3)
    })
  })
})

test('smears, turns and zooms write every pixel, wherever their point lies', () => {
  const place = fc.double({ min: -120, max: 160, noNaN: true })
  const amount = fc.double({ min: 0, max: 1, noNaN: true })
  fc.assert(
    fc.property(fc.record({ ...places, cx: place, cy: place, amount }), ({ x, y, cx, cy, amount }) =>
      inTurn(() => {
        const src = pictureAt(x, y, cx)
        const dst = emptyLike(src)
        const [px, py] = [x + cx, y + cy]
        const works = [
          () => kernels.smearInto(src, dst, cx * 9, amount * 90),
          () => kernels.spinInto(src, dst, px, py, amount * 360),
          () => kernels.zoomInto(src, dst, px, py, 1 - amount / 2, 1 + amount / 2),
          // On a pixel's middle, and on a corner: the diagonals belong to one of both axes.
          () => kernels.zoomInto(src, dst, Math.round(px) + 0.5, Math.round(py) + 0.5, 0.9, 1.1),
          () => kernels.zoomInto(src, dst, Math.round(px), Math.round(py), 0.9, 1.1),
        ]
        for (const work of works) {
          kernels.rgba(dst).fill(NaN)
          work()
          expect(kernels.rgba(dst).every((v) => v >= 0 && v <= 1)).toBe(true)
        }
      }),
    ),
    { numRuns: 60 },
  )
})

describe('pictures read elsewhere', () => {
  /** The pixel that stands for one beyond the edges. */
  const standsFor = (i: number, low: number, high: number, edges: Edges): number | null => {
    const span = high - low
    const turn = (n: number) => ((n % span) + span) % span
    if (edges === 'open' || (i >= low && i < high)) return i
    if (edges === 'clear') return null
    if (edges === 'held') return i < low ? low : high - 1
    if (edges === 'wrapped') return low + turn(i - low)
    const twice = (((i - low) % (2 * span)) + 2 * span) % (2 * span)
    return low + (twice < span ? twice : 2 * span - 1 - twice)
  }
  const edged = (read: (x: number, y: number) => Pixel, { edges, left, top, right, bottom }: EdgeArea) => {
    return (x: number, y: number): Pixel => {
      const [u, v] = [standsFor(x, left, right, edges), standsFor(y, top, bottom, edges)]
      return u === null || v === null ? CLEAR : read(u, v)
    }
  }
  const areaIn = (edges: Edges, x: number, y: number): EdgeArea => ({
    ...{ edges, left: x + 5, top: y + 3, right: x + W - 6, bottom: y + H - 2 },
  })
  const edges = fc.constantFrom<Edges>('open', 'clear', 'held', 'mirrored', 'wrapped')
  const amount = fc.double({ min: -30, max: 30, noNaN: true })

  test('displaced by planes, moved as a whole, and channel by channel: each reads between the four pixels around its place', () => {
    fc.assert(
      fc.property(fc.record({ ...places, edges, dx: amount, dy: amount }), ({ x, y, edges, dx, dy }) =>
        inTurn(() => {
          const src = pictureAt(x, y, dx)
          const area = areaIn(edges, x, y)
          const read = edged(reader(src), area)
          const dst = emptyLike(src)
          const bend = (u: number, v: number) => [dx * Math.sin(u / 9), dy * Math.cos(v / 7)] as const
          const plane = (k: 0 | 1) =>
            kernels.planeFrom(
              W,
              H,
              Float32Array.from({ length: W * H }, (_, i) => bend(x + (i % W), y + Math.floor(i / W))[k]),
            )
          kernels.displaceInto(src, dst, plane(0), plane(1), area, false)
          const displaced = (u: number, v: number) => between(read, u + bend(u, v)[0], v + bend(u, v)[1])
          expect(farthest(dst, displaced)).toBeLessThan(2e-4)
          // Without a plane nothing moves on its axis.
          kernels.displaceInto(src, dst, null, plane(1), area, false)
          expect(farthest(dst, (u, v) => between(read, u, v + bend(u, v)[1]))).toBeLessThan(2e-4)

          const [a, b, c, d] = [0.9, 0.2, -0.15, 1.1]
          kernels.moveInto(src, dst, { a, b, c, d, e: dx, f: dy }, area, false)
          const moved = (u: number, v: number) => {
            const [px, py] = [u + 0.5, v + 0.5]
            return between(read, a * px + b * py + dx - 0.5, c * px + d * py + dy - 0.5)
          }
          expect(farthest(dst, moved)).toBeLessThan(5e-4)

          const offsets = [
            { x: dx, y: dy },
            { x: 0, y: 0 },
            { x: -dx / 2, y: -dy },
          ] as const
          kernels.partInto(src, dst, offsets, area)
          const parted = (u: number, v: number): Pixel => {
            const three = offsets.map((by) => between(read, u + by.x, v + by.y))
            return [three[0]![0], three[1]![1], three[2]![2], Math.max(...three.map((pixel) => pixel[3]))]
          }
          expect(farthest(dst, parted)).toBeLessThan(2e-4)
        }),
      ),
      { numRuns: 15 },
    )
  })
})

describe('a Gaussian in strips', () => {
  test('is the Gaussian of the whole, to the bit, whatever the size', () => {
    for (const [w, h] of [
      [48, 37],
      [1040, 61],
      [2064, 24],
    ] as const) {
      for (const sigma of [1, 9, 40, 150]) {
        inTurn(() => {
          const src = pictureAt(0, 0, sigma, w, h)
          const soft = emptyLike(src)
          kernels.softenInto(src, soft, sigma)
          const strips = emptyLike(src)
          const asked: number[] = []
          kernels.softenRows(
            w,
            h,
            sigma,
            (rows, y) => {
              for (let k = 0; k < rows.h; k++) asked.push(y + k)
              kernels.copy(kernels.window(src, 0, y, w, rows.h), rows)
            },
            (rows, y) => kernels.copy(rows, kernels.window(strips, 0, y, w, rows.h)),
          )
          // Compared as bytes: a matcher would take minutes over so many.
          const bytes = (picture: Picture) => Buffer.from(kernels.rgba(picture).slice().buffer)
          expect(bytes(strips).equals(bytes(soft))).toBe(true)
          // Each row is made once.
          expect(asked).toEqual(Array.from({ length: h }, (_, i) => i))
        })
      }
    }
  })

  test('what is bright: the part over the threshold of the largest channel, a parabola over the knee', () => {
    inTurn(() => {
      const src = pictureAt(0, 0, 5)
      const dst = emptyLike(src)
      const read = reader(src)
      for (const [threshold, knee] of [
        [0.6, 0.1],
        [0.3, 0],
        [0, 0.2],
      ] as const) {
        kernels.bright(src, dst, threshold, knee, [1, 0.5, 0.25, 1])
        const truth = (u: number, v: number): Pixel => {
          const [r, g, b, a] = read(u, v)
          const most = a > 0 ? Math.max(r, g, b) / a : 0
          const over = most - threshold
          const take = over >= knee ? over : over > -knee ? (over + knee) ** 2 / (4 * knee) : 0
          const k = most > 0 ? Math.max(0, take) / most : 0
          return [r * k, g * k * 0.5, b * k * 0.25, a * k]
        }
        expect(farthest(dst, truth)).toBeLessThan(2e-5)
      }
    })
  })
})
