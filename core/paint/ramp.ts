import { linearToOklab, oklabToLinear, toDisplay, toLinear } from '../values/oklab'
import type { EvaluatedGradient, EvaluatedStop } from '../values/evaluated'
import { Kept } from '../kept'
import { log, pow } from '../kernels/exact'
import type { Rgba } from '../units'

/** Steps of the colour table; linear in between, so a smooth gradient is exact to float rounding. */
const STEPS = 1024
/** Where two colours meet in one place, or almost, the table is finer, so that their edge stays sharp. */
const SHARP_STEPS = 8192
/** Colours that change within so small a share of the gradient meet almost in one place. */
const SHARP = 1 / 64

type Space = EvaluatedGradient['mix']

/** From display-encoded sRGB into the space of the mix. */
function into([r, g, b]: readonly [number, number, number], space: Space): [number, number, number] {
  if (space === 'srgb') return [r, g, b]
  const linear: [number, number, number] = [toLinear(r), toLinear(g), toLinear(b)]
  return space === 'linear' ? linear : linearToOklab(linear)
}

/** From the space of the mix into that of the card's pixels. */
function outOf(mixed: [number, number, number], space: Space, linear: boolean): [number, number, number] {
  const cut = (v: number) => Math.min(1, Math.max(0, v))
  if (space === 'srgb') return linear ? [toLinear(mixed[0]), toLinear(mixed[1]), toLinear(mixed[2])] : mixed
  const [r, g, b] = (space === 'oklab' ? oklabToLinear(mixed) : mixed).map(cut) as [number, number, number]
  return linear ? [r, g, b] : [toDisplay(r), toDisplay(g), toDisplay(b)]
}

/** A colour as the card's pixels hold it. */
export function pixelColour([r, g, b, a]: Rgba, linear: boolean): Rgba {
  return linear ? [toLinear(r), toLinear(g), toLinear(b), a] : [r, g, b, a]
}

type Mix = Pick<EvaluatedGradient, 'stops' | 'mix'>

const kept = new Kept<string, Float32Array>(100)

/** The colours of a gradient at even places; see `mixedColours`. Kept: most gradients are the same in the next frame. */
export function rampColours({ stops, mix }: Mix, linear: boolean): Float32Array {
  return kept.of(JSON.stringify([stops, mix, linear]), () => mixedColours({ stops, mix }, linear))
}

/**
 * Premultiplied colours at even places from 0 to 1, mixed premultiplied (CSS Images 4 §3.4.2) in the gradient's
 * space. Midpoints are colour hints: §3.4.2, progress^(log ½ / log hint).
 */
function mixedColours({ stops, mix }: Mix, linear: boolean): Float32Array {
  const sorted = [...stops].sort((a, b) => a.at - b.at)
  const steps = sorted.some((stop, i) => isSharp(stop, sorted[i + 1])) ? SHARP_STEPS : STEPS
  const ends = sorted.map(({ colour: [r, g, b, a] }) => ({ mixed: into([r, g, b], mix), a }))
  const colours = new Float32Array((steps + 1) * 4)
  let next = 0
  for (let i = 0; i <= steps; i++) {
    const t = i / steps
    while (next < sorted.length && sorted[next]!.at <= t) next++
    const from = Math.max(0, next - 1)
    const to = Math.min(sorted.length - 1, next)
    const f = progress(sorted[from]!, sorted[to]!, t)
    const [p, q] = [ends[from]!, ends[to]!]
    const alpha = p.a + (q.a - p.a) * f
    const channel = (c: 0 | 1 | 2) =>
      alpha > 0 ? (p.mixed[c] * p.a * (1 - f) + q.mixed[c] * q.a * f) / alpha : q.mixed[c]
    const rgb = outOf([channel(0), channel(1), channel(2)], mix, linear)
    for (let c = 0; c < 3; c++) colours[i * 4 + c] = rgb[c]! * alpha
    colours[i * 4 + 3] = alpha
  }
  return colours
}

function isSharp({ at, middle }: EvaluatedStop, next: EvaluatedStop | undefined): boolean {
  return next !== undefined && (next.at - at) * Math.min(middle, 1 - middle) < SHARP
}

function progress(from: EvaluatedStop, to: EvaluatedStop, t: number): number {
  const span = to.at - from.at
  if (span <= 0) return 0
  const p = Math.min(1, Math.max(0, (t - from.at) / span))
  if (from.middle === 0.5 || p === 0 || p === 1) return p
  return pow(p, log(0.5) / log(from.middle))
}
