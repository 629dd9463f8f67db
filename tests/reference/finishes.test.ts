import { describe, expect, test } from '@jest/globals'
import type { Card, Finish } from '#core/card/schema'
import { finishOf } from '#core/finishes/table'
import { Engine } from '#core/frame/engine'
import { Kernels } from '#core/kernels/kernels'
import { linearToOklab, oklabToLinear, toDisplay, toLinear } from '#core/values/oklab'
import { coat, emptyCard, finish, floatsOf, solid, stepCard, withBox, withWash } from '../support/engine'

// Finishes against closed forms and standards.

const engine = new Engine()
const [W, H] = [256, 192]

/** A card of one colour, treated. */
const plain = (colour: string, finishes: Finish[], more: Partial<Card> = {}) =>
  withWash({ ...emptyCard(W, H), background: solid(colour), ...more }, finishes)
const pixelOf = (colour: string, finishes: Finish[], more: Partial<Card> = {}) =>
  floatsOf(engine, plain(colour, finishes, more)).at(100, 90)

test('bloom: a point gives away its light times the brightness; what is darker than the threshold stays to the bit', () => {
  const dot = (finishes: Finish[]) =>
    withWash(
      withBox(
        { ...emptyCard(W, H), background: solid('#202020') },
        { width: 4, height: 4, x: 128, y: 96 },
        { face: [coat('fill', 'f', { paint: solid('#FFFFFF') })] },
      ),
      finishes,
    )
  const sum = ({ values }: { values: Float32Array }) => values.reduce((all, v, i) => (i % 4 === 0 ? all + v : all), 0)
  const glow = { threshold: 50, knee: 0, radius: 30, amount: 40 }
  const before = floatsOf(engine, dot([]))
  const full = floatsOf(engine, dot([finish('bloom', glow)]))
  // 16 pixels, each half over the threshold, less what falls on the dot itself, which cannot grow brighter than white.
  const given = 16 * 0.5 * 0.4
  const gained = sum(full) - sum({ values: cropped(before, full) })
  expect(gained).toBeGreaterThan(given * 0.98 - 0.1)
  expect(gained).toBeLessThan(given + 0.01)
  const dark = floatsOf(engine, plain('#707070', [finish('bloom', glow)]))
  expect(dark.at(100, 90)).toEqual(floatsOf(engine, plain('#707070', [])).at(100, 90))
})

/** The part of a picture that another one has computed too. */
function cropped(of: ReturnType<typeof floatsOf>, like: ReturnType<typeof floatsOf>): Float32Array {
  const values = new Float32Array(like.values.length)
  const { x, y, w, h } = like.box
  for (let j = 0; j < h; j++) {
    for (let i = 0; i < w; i++) {
      const inside =
        i + x >= of.box.x && i + x < of.box.x + of.box.w && j + y >= of.box.y && j + y < of.box.y + of.box.h
      // Beyond the frame the ground goes on.
      const pixel = inside ? of.at(i + x, j + y) : of.at(Math.max(of.box.x, 0), Math.max(of.box.y, 0))
      values.set(pixel, (j * w + i) * 4)
    }
  }
  return values
}

describe('grain', () => {
  const stats = (values: Record<string, unknown>, frame = 0) => {
    const { at } = floatsOf(engine, plain('#808080', [finish('grain', values)]), frame)
    const noise: number[] = []
    for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) noise.push(at(x, y)[0] - 128 / 255)
    const mean = noise.reduce((sum, v) => sum + v, 0) / noise.length
    return { noise, mean, variance: noise.reduce((sum, v) => sum + (v - mean) ** 2, 0) / noise.length }
  }

  test('even, in a bell, and coarse: the mean stays, the variance is a third of the amount squared', () => {
    for (const values of [{ spread: 'even' }, { spread: 'bell' }, { spread: 'bell', size: 3.3 }]) {
      const { mean, variance } = stats({ amount: 20, ...values })
      expect(Math.abs(mean)).toBeLessThan(0.004)
      expect(variance / (0.2 ** 2 / 3)).toBeGreaterThan(0.93)
      expect(variance / (0.2 ** 2 / 3)).toBeLessThan(1.07)
    }
  })

  test('frames have nothing in common; held ones are the same; it closes over the loop', () => {
    const [a, b] = [stats({ amount: 20 }, 0), stats({ amount: 20 }, 1)]
    const covariance = a.noise.reduce((sum, v, i) => sum + v * b.noise[i]!, 0) / a.noise.length
    expect(Math.abs(covariance) / a.variance).toBeLessThan(0.02)
    expect(stats({ amount: 20, every: 2 }, 1).noise).toEqual(stats({ amount: 20, every: 2 }, 0).noise)
    expect(stats({ amount: 20 }, 50).noise).toEqual(a.noise)
  })
})

test('exposure: light times two to the power of the stops (IEC 61966-2-1), on cards of either light', () => {
  for (const blending of ['display', 'linear'] as const) {
    for (const stops of [-2, -0.5, 1, 1.5]) {
      const [r, g, b] = pixelOf('#406020', [finish('exposure', { stops })], { blending })
      const truth = [0x40, 0x60, 0x20].map((v) => Math.min(1, toLinear(v / 255) * 2 ** stops))
      const shown = blending === 'linear' ? truth : truth.map(toDisplay)
      for (const [i, v] of [r, g, b].entries()) expect(Math.abs(v - shown[i]!)).toBeLessThan(2e-5)
    }
  }
})

test('tone: black, white, middle and their outputs, as feComponentTransfer gamma (Filter Effects 1)', () => {
  const [r, , b] = pixelOf('#6090C0', [
    finish('tone', { black: 10, white: 80, middle: 1.8, outBlack: 5, outWhite: 90, channel: 'red' }),
  ])
  const place = (0x60 / 255 - 0.1) / 0.7
  expect(r).toBeCloseTo(0.05 + 0.85 * place ** (1 / 1.8), 5)
  expect(b).toBeCloseTo(0xc0 / 255, 6)
})

test('colour steps: equal parts of the range become one level each (feComponentTransfer, discrete)', () => {
  for (const [value, levels] of [
    [0, 4],
    [60, 4],
    [64, 4],
    [130, 3],
    [255, 7],
    [200, 2],
  ] as const) {
    const hex = value.toString(16).padStart(2, '0')
    const [r] = pixelOf(`#${hex}${hex}${hex}`, [finish('colour-steps', { levels })])
    expect(r).toBeCloseTo(Math.min(levels - 1, Math.floor((value / 255) * levels)) / (levels - 1), 5)
  }
  const { at } = floatsOf(engine, plain('#5A5A5A', [finish('colour-steps', { levels: 4, dither: 100 })]))
  let mean = 0
  for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) mean += at(x, y)[0] / (W * H)
  expect(mean).toBeCloseTo(0x5a / 255, 2)
})

test('colour: the matrices of SVG, and turns in OKLCh as the colour space says', () => {
  const [r, g, b] = [0xc0, 0x60, 0x30].map((v) => v / 255) as [number, number, number]
  const grey = pixelOf('#C06030', [finish('colour', { space: 'svg', saturation: 0 })])
  for (let c = 0; c < 3; c++) expect(grey[c]!).toBeCloseTo(0.213 * r + 0.715 * g + 0.072 * b, 5)
  const turned = pixelOf('#C06030', [finish('colour', { space: 'oklch', hue: 40, saturation: 60 })])
  const [L, A, B] = linearToOklab([toLinear(r), toLinear(g), toLinear(b)])
  const [c, s] = [Math.cos((40 * Math.PI) / 180) * 0.6, Math.sin((40 * Math.PI) / 180) * 0.6]
  const truth = oklabToLinear([L, A * c - B * s, A * s + B * c]).map((v) => toDisplay(Math.min(1, Math.max(0, v))))
  for (let i = 0; i < 3; i++) expect(Math.abs(turned[i]! - truth[i]!) * 255).toBeLessThan(0.1)
  // The neutral light changes nothing; a warmer one makes grey redder than blue.
  const warm = pixelOf('#808080', [finish('colour', { kelvin: 9000 })])
  expect(warm[0]).toBeGreaterThan(warm[2])
})

test('tint: the gradient at the BT.709 luma; inverted: one minus each channel', () => {
  const colours = {
    type: 'linear',
    stops: [
      { at: 0, colour: '#000000' },
      { at: 100, colour: '#FFFFFF' },
    ],
  }
  const [r, g] = pixelOf('#C06030', [finish('tint', { colours: { ...plainGradient, ...colours } })])
  const luma = (0.2126 * 0xc0 + 0.7152 * 0x60 + 0.0722 * 0x30) / 255
  expect(r).toBeCloseTo(luma, 5)
  expect(g).toBeCloseTo(luma, 5)
  const turned = pixelOf('#C06030', [finish('tint', { recolour: false, invert: true })])
  expect(turned[0]).toBeCloseTo(1 - 0xc0 / 255, 6)
})

const plainGradient = {
  angle: 0,
  scale: 100,
  shift: 0,
  x: 50,
  y: 50,
  form: 'circle',
  spread: 'pad',
  mix: 'srgb',
  hang: 'piece',
}

test('move and displace: whole pixels move a picture to the bit; mid-grey moves nothing (common practice, no published source)', () => {
  const scene = (x: number, y: number, finishes: Finish[]) =>
    withWash(
      withBox(
        { ...emptyCard(W, H), background: solid('#20304080') },
        { width: 60, height: 40, radius: 9, rotation: 20, x, y },
        { face: [coat('fill', 'f')] },
      ),
      finishes,
    )
  const moved = floatsOf(engine, scene(100, 90, [finish('move', { x: 17, y: -8 })]))
  const there = floatsOf(engine, scene(117, 82, []))
  const map = (grey: string) => ({ x: 24, y: -10, map: solid(grey) })
  const white = floatsOf(engine, scene(100, 90, [finish('displace', map('#FFFFFF'))]))
  const grey = floatsOf(engine, scene(100, 90, [finish('displace', map('#80808000'))]))
  for (let y = 0; y < H; y += 3) {
    for (let x = 0; x < W; x += 3) {
      expect(moved.at(x, y)).toEqual(there.at(x, y))
      if (x + 24 < W && y >= 10) expect(white.at(x, y)).toEqual(floatsAt(scene(100, 90, []), x + 24, y - 10))
      expect(grey.at(x, y)).toEqual(floatsAt(scene(100, 90, []), x, y))
    }
  }
})

const kept = new Map<string, ReturnType<typeof floatsOf>>()
const floatsAt = (card: Card, x: number, y: number) => {
  const key = JSON.stringify(card)
  if (!kept.has(key)) kept.set(key, floatsOf(engine, card))
  return kept.get(key)!.at(x, y)
}

test('fringe: each channel is the picture moved by itself', () => {
  const { at } = floatsOf(engine, stepCard([finish('fringe', { amount: 6, angle: 0 })]))
  const bare = floatsOf(engine, stepCard([]))
  for (let x = 100; x < 150; x++) {
    expect(at(x, 90)[0]).toBe(bare.at(x - 6, 90)[0])
    expect(at(x, 90)[1]).toBe(bare.at(x, 90)[1])
    expect(at(x, 90)[2]).toBe(bare.at(x + 6, 90)[2])
  }
})

test('bands keep what there is: wrapped, a row has the same sum', () => {
  const { at } = floatsOf(engine, stepCard([finish('bands', { amount: 30.4, share: 100, edges: 'wrapped' })]))
  const bare = floatsOf(engine, stepCard([]))
  const sum = (of: typeof at, y: number) => Array.from({ length: W }, (_, x) => of(x, y)[0]).reduce((a, b) => a + b, 0)
  for (const y of [10, 60, 100, 150]) expect(sum(at, y)).toBeCloseTo(sum(bare.at, y), 2)
})

test('lines: the mean is what their share leaves', () => {
  const { at } = floatsOf(engine, plain('#FFFFFF', [finish('lines', { distance: 8, share: 25, amount: 60, angle: 0 })]))
  let mean = 0
  for (let y = 0; y < 192; y++) mean += at(50, y)[0] / 192
  expect(mean).toBeCloseTo(1 - 0.25 * 0.6, 4)
})

test('glint: its light is brightest where its way says it is, and gone at both ends', () => {
  const { hands } = finishOf('glint')
  const look = { width: 20, softness: 30, angle: -35 }
  const area = { left: 0, top: 0, right: W, bottom: H }
  const [from, to] = hands!.crossing!.ends(look as never, { px: (length) => length as number, area })
  for (const place of [30, 50, 72]) {
    const { at } = floatsOf(engine, plain('#303030', [finish('glint', { ...look, place })]))
    const point = (share: number) =>
      at(Math.floor(from.x + (to.x - from.x) * share), Math.floor(from.y + (to.y - from.y) * share))[0]
    const light = point(place / 100)
    // White at 70 % on #30, and nothing half the band and its softness away.
    expect(light).toBeCloseTo(0x30 / 255 + 0.7, 2)
    const away = 41 / Math.hypot(to.x - from.x, to.y - from.y)
    for (const side of [-away, away]) expect(point(place / 100 + side)).toBeCloseTo(0x30 / 255, 5)
  }
  for (const place of [0.01, 99.99]) {
    const { values } = floatsOf(engine, plain('#303030', [finish('glint', { ...look, place })]))
    expect(Math.max(...values.filter((_, i) => i % 4 === 0))).toBeLessThan(0x30 / 255 + 0.001)
  }
})

test('vignette and flare: the same on both sides of their middle', () => {
  const { at } = floatsOf(
    engine,
    plain('#808080', [
      finish('vignette', { amount: 70, roundness: 40 }),
      finish('flare', { x: 50, y: 50, ghosts: 0, size: 60 }),
    ]),
  )
  for (const [x, y] of [
    [20, 30],
    [60, 90],
    [100, 10],
  ] as const) {
    expect(at(x, y)[0]).toBeCloseTo(at(W - 1 - x, y)[0], 5)
    expect(at(x, y)[0]).toBeCloseTo(at(x, H - 1 - y)[0], 5)
  }
})

test('edge: grows by as many pixels as are asked for', () => {
  const card = withBox(
    emptyCard(W, H),
    { width: 80, height: 60, x: 128, y: 96, finishes: [finish('edge', { grow: 7 })] },
    { face: [coat('fill', 'f')] },
  )
  const { at } = floatsOf(engine, card)
  expect(at(128 - 40 - 6, 96)[3]).toBe(1)
  expect(at(128 - 40 - 9, 96)[3]).toBe(0)
})

test('trails: the copies rendered one by one, and laid by hand', () => {
  const x = {
    keys: [
      { frame: 0, value: 40 },
      { frame: 25, value: 220 },
    ],
  }
  const scene = (finishes: Finish[]) =>
    withWash(
      withBox(
        { ...emptyCard(W, H), background: solid('#102030') },
        { width: 30, height: 30, x: x as never, y: 96 },
        { face: [coat('fill', 'f', { paint: solid('#FF8040') })] },
      ),
      finishes,
    )
  const at = (frame: number) => floatsOf(engine, scene([]), frame).values
  const trails = (values: Record<string, unknown>) =>
    floatsOf(engine, scene([finish('trails', { copies: 3, spacing: 2, decay: 50, ...values })]), 10).values
  const copies = [at(10), at(8), at(6), at(4)]
  const by = (of: (values: number[]) => number) => copies[0]!.map((_, i) => of(copies.map((copy) => copy[i]!)))
  const lighter = by(([now, a, b, c]) => Math.max(now!, a! * 0.5, b! * 0.25, c! * 0.125))
  const mean = by(([now, a, b, c]) => (now! + a! * 0.5 + b! * 0.25 + c! * 0.125) / 1.875)
  const most = (a: Float32Array, b: Float32Array) => a.reduce((worst, v, i) => Math.max(worst, Math.abs(v - b[i]!)), 0)
  expect(most(trails({ laid: 'lighter' }), lighter)).toBeLessThan(1e-6)
  expect(most(trails({ laid: 'mean' }), mean)).toBeLessThan(1e-6)
  // Where nothing moves all copies are the picture itself, and stay so to the bit.
  const shown = trails({ laid: 'mean' })
  const still = [250, 251, 252].map((column) => (20 * W + column) * 4)
  for (const i of still) for (let c = 0; c < 4; c++) expect(shown[i + c]).toBe(copies[0]![i + c])
  // Not across the seam: before the first frame there is nothing.
  const early = (across: boolean) =>
    floatsOf(engine, scene([finish('trails', { copies: 1, spacing: 5, decay: 0, laid: 'lighter', across })]), 2).values
  expect(most(early(false), at(2))).toBe(0)
  expect(most(early(true), at(2))).toBeGreaterThan(0.1)
})

test('trails: each copy stands in the light of its own moment', () => {
  const azimuth = {
    keys: [
      { frame: 0, value: 0 },
      { frame: 20, value: 180 },
    ],
  }
  const behind = [coat('shadow', 's', { distance: 30, softness: 4, ownDirection: false, knockOut: false })]
  const scene = (finishes: Finish[]) =>
    withWash(
      withBox(
        { ...emptyCard(W, H), background: solid('#FFFFFF') },
        { width: 30, height: 30, x: 128, y: 96 },
        { behind },
      ),
      finishes,
    )
  const lit = (finishes: Finish[], frame: number) =>
    floatsOf(engine, { ...scene(finishes), light: { azimuth: azimuth as never, elevation: 45 } }, frame).values
  const copies = [lit([], 10), lit([], 4)]
  const mean = copies[0]!.map((v, i) => (v + copies[1]![i]! * 0.5) / 1.5)
  const shown = lit([finish('trails', { copies: 1, spacing: 6, decay: 50, laid: 'mean' })], 10)
  expect(shown.reduce((worst, v, i) => Math.max(worst, Math.abs(v - mean[i]!)), 0)).toBeLessThan(1e-6)
  // The light did turn between them.
  expect(copies[0]!.some((v, i) => Math.abs(v - copies[1]![i]!) > 0.5)).toBe(true)
})

test('flowing noise: whole turns of the evolution close, part of one does not; each octave is half as strong', () => {
  const kernels = new Kernels()
  const map = { a: 1 / 40, b: 0, c: 0, d: 1 / 40, e: 0, f: 0 }
  const noise = (octaves: number, evolution: number, turned = map) =>
    kernels.floats(kernels.flowNoise({ x: -64, y: 0, w: 256, h: 256 }, turned, octaves, evolution, 3)).slice()
  const difference = (a: Float32Array, b: Float32Array) =>
    a.reduce((worst, v, i) => Math.max(worst, Math.abs(v - b[i]!)), 0)
  expect(difference(noise(4, 0), noise(4, 2))).toBeLessThan(1e-5)
  expect(difference(noise(4, 0), noise(4, 0.5))).toBeGreaterThan(0.2)
  // Upright and turned lattices are computed in two ways: a hair's turn apart they are the same.
  expect(difference(noise(3, 0.3), noise(3, 0.3, { ...map, b: 1e-9 }))).toBeLessThan(1e-4)
  const rms = (values: Float32Array) => Math.sqrt(values.reduce((sum, v) => sum + v * v, 0) / values.length)
  // feTurbulence, fractalNoise: the sum of octaves of half the weight (Filter Effects 1, 9.22); here over the sum of weights.
  expect((rms(noise(2, 0)) * 1.5) / rms(noise(1, 0))).toBeCloseTo(Math.sqrt(1.25), 1)
})
