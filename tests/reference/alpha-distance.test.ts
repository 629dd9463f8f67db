import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import { expectCard } from '#core/card/read'
import type { Card, Coat } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import { Kernels } from '#core/kernels/kernels'
import { coverOf, stood, toPolygon } from '../support/brute'
import type { Spot } from '../support/brute'
import { coat, emptyCard, finish, solid, withBox } from '../support/engine'
import { erf } from '../support/erf'
import { randomFrom } from '../support/random'

// Where the edge of what has no outline lies, and how far from it pixels are: held against circles and polygons by their formulas.

const engine = new Engine()
const fault = (name: string) => expectCard(JSON.parse(readFileSync(`tests/reference/faults/${name}.card.json`, 'utf8')))

/** The most by which alpha differs from a shape's exact cover, in 255ths. */
function offBy(
  card: Card,
  inside: (x: number, y: number) => number,
  counts: (x: number, y: number) => boolean = () => true,
): number {
  const { width, height, pixels } = engine.render(card, 0, { bits: 16 })
  const values = new Uint16Array(pixels.buffer, pixels.byteOffset)
  let most = 0
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (!counts(x, y)) continue
      most = Math.max(most, Math.abs(values[(y * width + x) * 4 + 3]! / 257 - coverOf(inside, x, y) * 255))
    }
  }
  return most
}
const box = (width: number, height: number): Spot[] => [
  [-width / 2, -height / 2],
  [width / 2, -height / 2],
  [width / 2, height / 2],
  [-width / 2, height / 2],
]

describe('the edge finish', () => {
  test.each([
    ['edge-soften-cut', 0, 12],
    ['edge-shrink-soften-cut', -10, 24],
  ])('%s: fades as a Gaussian does, to its end', (name, grow, soften) => {
    const { pixels, width } = engine.render(fault(name), 0, { bits: 16 })
    const values = new Uint16Array(pixels.buffer, pixels.byteOffset)
    const sigma = soften / 2
    // Across the middle of a side the box is as good as endless: half of the error function (Abramowitz & Stegun 7.1).
    const [half, top] = [100 / 2 + grow, 60 / 2 + grow]
    for (let x = 161; x < 300; x++) {
      const across =
        0.5 * (erf((x + 0.5 - 160 + half) / (sigma * Math.SQRT2)) - erf((x + 0.5 - 160 - half) / (sigma * Math.SQRT2)))
      const down = erf(top / (sigma * Math.SQRT2))
      const found = values[(90 * width + x) * 4 + 3]! / 65_535
      expect(Math.abs(found - across * down) * 255).toBeLessThan(1)
    }
  })
})

describe('the edge finish grows by distances', () => {
  // A ramp a pixel wide stands for the cover of a slanting edge: the two differ by 1/12 of a pixel's at 45° at the most… of 255: 15.
  const RAMP = 16

  test('a disc stays a disc: 25 px around one of radius 40', () => {
    const off = offBy(fault('edge-grow-25-disc'), (x, y) => Math.hypot(x - 160, y - 90) - 65)
    expect(off).toBeLessThan(RAMP)
  })

  test.each([-30, -12, 6])('and by %s px', (grow) => {
    const card = fault('edge-grow-25-disc')
    const [piece] = card.pieces
    const finishes = [finish('edge', { grow })]
    const off = offBy({ ...card, pieces: [{ ...piece!, finishes }] }, (x, y) => Math.hypot(x - 160, y - 90) - 40 - grow)
    expect(off).toBeLessThan(RAMP)
  })

  test.each([3, 7, 20, 33, 45, 71])('a box turned by %s° keeps its corners', (rotation) => {
    const card = fault('edge-grow-12-box-7deg')
    const turned = { ...card, pieces: [{ ...card.pieces[0]!, rotation }] } as Card
    const edge = toPolygon(stood(box(120, 70), 160, 90, rotation))
    // Sides to a hundredth of a pixel, corners to an eighth: alpha alone tells no more of what lies within one pixel.
    expect(offBy(turned, (x, y) => edge(x, y) - 12)).toBeLessThan(RAMP + 255 / 8)
    const corners = stood(box(120, 70), 160, 90, rotation)
    const besideSides = (x: number, y: number) =>
      corners.every(([cx, cy]) => {
        const far = Math.hypot(x - cx, y - cy)
        return far > 14 || far < 10
      })
    expect(offBy(turned, (x, y) => edge(x, y) - 12, besideSides)).toBeLessThan(RAMP)
  })
})

describe('the distance itself', () => {
  const kernels = new Kernels()
  const [w, h] = [192, 160]
  function fieldOf(inside: (x: number, y: number) => number) {
    const plane = kernels.plane(w, h)
    const values = kernels.floats(plane)
    for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) values[y * w + x] = coverOf(inside, x, y, 32)
    return kernels.floats(kernels.fieldDistance(plane)).slice()
  }

  test.each([
    [5, 0.08],
    [12, 0.04],
    [40, 0.02],
    [60, 0.02],
  ])('of a disc of radius %s is exact to %s px, everywhere', (radius, most) => {
    const inside = (x: number, y: number) => Math.hypot(x - 96.3, y - 80.8) - radius
    const found = fieldOf(inside)
    let off = 0
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) off = Math.max(off, Math.abs(found[y * w + x]! - inside(x + 0.5, y + 0.5)))
    expect(off).toBeLessThan(most)
  })

  // Far reaches over many edges pass over what is nearer to another part; short ones measure all.
  test.each([
    ['rough', 10],
    ['dots', 10],
    ['noise', 5],
  ])(
    'of %s edges is the same bits, whether all parts within %s px are measured or the near ones alone',
    (kind, reach) => {
      const plane = kernels.plane(w, h)
      const values = kernels.floats(plane)
      const random = randomFrom(7)
      for (let y = 0; y < h; y++) {
        for (let x = 0; x < w; x++) {
          const chance = random()
          const wave = 0.5 + 0.5 * Math.sin(x / 5 + Math.sin(y / 7))
          values[y * w + x] = { rough: Math.min(1, wave + chance * 0.4), dots: chance < 0.02 ? 1 : 0, noise: chance }[
            kind
          ]!
        }
      }
      const all = kernels.floats(kernels.fieldDistance(plane, reach)).slice()
      const near = kernels.floats(kernels.fieldDistance(plane)).slice()
      const within = [...all.keys()].filter((i) => Math.abs(all[i]!) < reach - 1)
      expect(within.length).toBeGreaterThan(w * h * 0.9)
      expect(within.filter((i) => !Object.is(all[i], near[i]))).toEqual([])
    },
  )

  test('does not jump from pixel to pixel: it changes by their way and no more', () => {
    const edge = toPolygon(stood(box(80, 44), 96.4, 80.1, 27))
    const found = fieldOf(edge)
    let steepest = 0
    for (let y = 0; y < h - 1; y++) {
      for (let x = 0; x < w - 1; x++) {
        const d = found[y * w + x]!
        steepest = Math.max(steepest, Math.abs(found[y * w + x + 1]! - d), Math.abs(found[(y + 1) * w + x]! - d))
      }
    }
    expect(steepest).toBeLessThan(1.05)
  })

  test('of a soft edge goes from where it is half clear', () => {
    // A ramp of 24 px whose middle lies at x = 80.25.
    const plane = kernels.plane(w, h)
    const values = kernels.floats(plane)
    const at = (x: number) => Math.min(1, Math.max(0, 0.5 - (x + 0.5 - 80.25) / 24))
    for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) values[y * w + x] = at(x)
    const found = kernels.floats(kernels.fieldDistance(plane))
    for (const x of [3, 40, 79, 80, 81, 120, 180]) expect(found[80 * w + x]).toBeCloseTo(x + 0.5 - 80.25, 3)
  })
})

describe('a thing put together of parts', () => {
  const halves = fault('group-of-flush-halves')

  test('is not lit along joints that nobody sees: a bevel of 12 px ends 12 px from its sides', () => {
    const { width, pixels } = engine.render(halves, 0, { bits: 16 })
    const values = new Uint16Array(pixels.buffer, pixels.byteOffset)
    // Right of the middle: the group with a bevel. Its joint runs down its middle, turned by 5°.
    let [most, count] = [0, 0]
    for (let y = 100; y < 260; y++) {
      for (let x = 425; x < 535; x++) {
        const [c, s] = [Math.cos((5 * Math.PI) / 180), Math.sin((5 * Math.PI) / 180)]
        const [u, v] = [(x + 0.5 - 480) * c - (y + 0.5 - 180) * s, (x + 0.5 - 480) * s + (y + 0.5 - 180) * c]
        if (Math.abs(u) > 80 - 14 || Math.abs(v) > 100 - 14) continue
        for (let k = 0; k < 3; k++) most = Math.max(most, Math.abs(values[(y * width + x) * 4 + k]! / 257 - 128))
        count++
      }
    }
    expect(count).toBeGreaterThan(15_000)
    expect(most).toBeLessThan(1)
  })

  test('is lit as one where the joint runs through pixels, at any place', () => {
    for (const joint of [0, 0.25, 0.5, 0.8]) {
      const part = (left: number, right: number) =>
        withBox(
          emptyCard(9, 9),
          { x: (left + right) / 2, y: 0, width: right - left, height: 80, id: `p${left < -1 ? 1 : 2}` },
          { face: [coat('fill', `fill-${left < -1 ? 1 : 2}`, { paint: solid('#808080') })] },
        ).pieces[0]!
      const card = emptyCard(200, 140)
      const group = (pieces: Card['pieces'], laid: Coat) =>
        expectCard({
          ...card,
          pieces: [{ kind: 'group', id: 'g', name: 'g', x: 100, y: 70, pieces, coats: { face: [laid], behind: [] } }],
        })
      const offBy = (laid: Coat) => {
        const [a, b] = [group([part(-60, joint), part(joint, 60)], laid), group([part(-60, 60)], laid)].map((made) => {
          const { pixels } = engine.render(made, 0, { bits: 16 })
          return new Uint16Array(pixels.buffer, pixels.byteOffset)
        })
        let most = 0
        // Beside the joint alpha is below 1 (0.75 at the least): the face shows that, its light does not.
        for (let y = 0; y < 140; y++)
          for (let x = 0; x < 200; x++)
            if (Math.abs(x - 100) > 2)
              for (let c = 0; c < 4; c++)
                most = Math.max(most, Math.abs(a![(y * 200 + x) * 4 + c]! - b![(y * 200 + x) * 4 + c]!) / 257)
        return most
      }
      expect(offBy(coat('stroke', 's', { side: 'inside', width: 6 }))).toBeLessThan(1)
      // At its two ends the joint is a notch, up to a sixth of a pixel deep where alpha is 0.75, that is really there: a line under it
      // is lit. Without the edge along the joint that is all.
      expect(offBy(coat('bevel', 'bevel', { width: 24 }))).toBeLessThan(7)
    }
  })
})
