import { expect, test } from '@jest/globals'
import { FINISHES } from '#core/finishes/table'
import { MASKS } from '#core/masks/table'
import { STEPS } from '#core/steps/table'
import { createMask } from '#core/card/create'
import type { Card, Mask, TypePiece } from '#core/card/schema'
import { paintSchema } from '#core/values/paints'
import { coat, emptyCard, engineWithFonts, finish, solid, step, withType } from '../support/engine'

// A card rendered larger or smaller is the same picture in another resolution: each finish, step and mask at 50, 100 and 200 %, brought to
// the same size by the mean of what each pixel covers.

const engine = engineWithFonts()

interface Floats {
  w: number
  h: number
  /** Premultiplied, 0–255. */
  values: Float64Array
}

/** A frame at a scale, each of its pixels the mean of k × k. */
function shown(card: Card, scale: number, k: number): Floats {
  const { width, height, pixels } = engine.render(card, 3, { bits: 16, scale })
  const from = new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.length / 2)
  const [w, h] = [width / k, height / k]
  const values = new Float64Array(w * h * 4)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [at, to] = [(y * width + x) * 4, (Math.floor(y / k) * w + Math.floor(x / k)) * 4]
      const alpha = from[at + 3]! / 65_535
      for (let c = 0; c < 4; c++) values[to + c]! += ((c === 3 ? 1 : from[at + c]! / 65_535) * alpha * 255) / (k * k)
    }
  }
  return { w, h, values }
}

function between(a: Floats, b: Floats) {
  let [most, sum] = [0, 0]
  a.values.forEach((value, i) => {
    const off = Math.abs(value - b.values[i]!)
    most = Math.max(most, off)
    sum += off
  })
  return { most, mean: sum / a.values.length }
}

/** By how much 200 % differs from 100 %, and 100 % from 50 %. */
function across(card: Card) {
  const [up, down] = [between(shown(card, 2, 2), shown(card, 1, 1)), between(shown(card, 1, 2), shown(card, 0.5, 1))]
  return { most: Math.max(up.most, down.most), mean: Math.max(up.mean, down.mean) }
}

const words = (extra: Partial<TypePiece>): Card => {
  const stops = [
    { at: 0, colour: '#FF4020' },
    { at: 100, colour: '#40E0FF' },
  ]
  const fill = coat('fill', 'f', { paint: paintSchema.parse({ type: 'linear', angle: 90, stops }) })
  const stroke = coat('stroke', 's', { width: 4, paint: solid('#102030') })
  const values = { wording: 'Quay', font: 'anton', size: 100, x: 160, y: 80, ...extra }
  return withType({ ...emptyCard(320, 160, 20), background: null }, values, { face: [fill, stroke] })
}

/**
 * What may differ by more than the words alone, and why. What is sampled between pixels aliases in its own resolution; cuts along whole pixels
 * lie on those there are; half-clear pixels that are laid on each other add up otherwise than their mean.
 */
const COARSE: Readonly<Record<string, { most: number; mean: number }>> = {
  // One pixel of an edge, cut at whole pixels.
  'finish bands': { most: 128, mean: 0.35 },
  // Edges that are stretched and squeezed, read between four pixels.
  'finish displace': { most: 110, mean: 1 },
  'finish turbulence': { most: 100, mean: 1.2 },
  // Copies lie on each other: their soft edges harden.
  'finish trails': { most: 90, mean: 0.4 },
  'finish fringe': { most: 70, mean: 0.05 },
  // Light that falls on soft edges is cut at their alpha.
  'finish flare': { most: 70, mean: 0.4 },
  'finish glint': { most: 60, mean: 0.25 },
  // Where letters are less than a pixel apart, alpha does not tell that they are two.
  'finish edge': { most: 90, mean: 0.6 },
  'finish colour-steps': { most: 40, mean: 0.7 },
  // Grains have the size of pixels at the least.
  'finish grain': { most: 80, mean: 5 },
  'finish lines': { most: 24, mean: 0.5 },
  'finish bloom': { most: 24, mean: 0.3 },
  // Turns of 2° are corners, those below are curves: where flattened curves lie about that, one is rounded or not.
  'step round': { most: 128, mean: 0.05 },
}
/** Words with a stroke. */
const FINE = { most: 27, mean: 0.06 }

const noise = paintSchema.parse({ type: 'texture', pattern: 'noise', scale: 60 })
const VALUES: Readonly<Record<string, Record<string, unknown>>> = {
  edge: { grow: 6, soften: 8 },
  displace: { map: noise },
}
const CASES: readonly [string, Card][] = [
  ...FINISHES.map(({ kind }): [string, Card] => [`finish ${kind}`, words({ finishes: [finish(kind, VALUES[kind])] })]),
  ...STEPS.map(({ kind }): [string, Card] => [`step ${kind}`, words({ outlineSteps: [step(kind)] })]),
  ...MASKS.filter(({ stands }) => stands).map(({ kind }): [string, Card] => [
    `mask ${kind}`,
    words({ masks: [{ ...createMask(kind, 'mask'), feather: 10 } as Mask] }),
  ]),
]

test.each(CASES)('%s', (name, card) => {
  const { most, mean } = COARSE[name] ?? FINE
  const found = across(card)
  expect(found.most).toBeLessThan(most)
  expect(found.mean).toBeLessThan(mean)
})

test('every kind is looked at', () => {
  expect(CASES.length).toBe(FINISHES.length + STEPS.length + MASKS.filter(({ stands }) => stands).length)
  expect(Object.keys(COARSE).filter((name) => !CASES.some(([known]) => known === name))).toEqual([])
})
