import { parse, converter } from 'culori'
import { writeColour } from '../values/colour'
import type { StoredGradient } from '../values/moving'
import { paintSchema } from '../values/paints'
import type { EvaluatedGradient } from '../values/evaluated'
import { WaxError } from '../errors'

// Reads and writes gradients as CSS Images 3 and 4 spell them. Ours are angles anticlockwise from the right; CSS
// counts clockwise from upward: css = 90° − angle.

const toRgb = converter('rgb')
const PLACE = 'CSS gradient'

const fault = (message: string, remedy: string) => new WaxError('not-a-gradient', PLACE, message, remedy)

/** Splits at commas (or spaces) that stand outside of brackets. */
function split(text: string, at: ',' | ' '): string[] {
  const parts: string[] = []
  let depth = 0
  let part = ''
  for (const character of text) {
    if (character === '(') depth++
    if (character === ')') depth--
    if (depth === 0 && (at === ',' ? character === ',' : /\s/.test(character))) {
      if (part.trim() !== '') parts.push(part.trim())
      part = ''
    } else part += character
  }
  if (part.trim() !== '') parts.push(part.trim())
  return parts
}

interface Stop {
  /** % of the gradient; null where CSS leaves it to be filled in. */
  at: number | null
  colour: string
}

/** Reads `linear-gradient(…)`, `radial-gradient(…)` or `conic-gradient(…)`, repeating or not. */
export function readCssGradient(text: string): StoredGradient {
  const call =
    /^\s*(?:background(?:-image)?\s*:\s*)?(repeating-)?(linear|radial|conic)-gradient\s*\(([\s\S]*)\)\s*;?\s*$/i
  const found = call.exec(text)
  if (!found) {
    throw fault('This is no CSS gradient.', 'Write linear-gradient(…), radial-gradient(…) or conic-gradient(…).')
  }
  const type = found[2]!.toLowerCase() as 'linear' | 'radial' | 'conic'
  const parts = split(found[3]!, ',')
  const first = parts[0] ?? ''
  const head = isHead(type, first) ? first : null
  const { stops, hints } = readStops(head === null ? parts : parts.slice(1), type)
  const gradient = {
    type,
    stops: stops.map(({ at, colour }, i) => ({ at: at!, colour, ...(hints.has(i) ? { middle: hints.get(i)! } : {}) })),
    ...(found[1] ? { spread: 'repeat' } : {}),
    ...readHead(type, head ?? ''),
  }
  return paintSchema.parse(gradient) as StoredGradient
}

function isHead(type: string, part: string): boolean {
  if (/\bin\s+(srgb|srgb-linear|oklab)\b/i.test(part)) return true
  if (type === 'linear') return /^(to\s|[-+.\d]+(deg|grad|rad|turn)$)/i.test(part)
  if (type === 'conic') return /^(from|at)\s/i.test(part)
  return /^(circle|ellipse|closest|farthest|at\s)/i.test(part)
}

function readHead(type: 'linear' | 'radial' | 'conic', head: string): Partial<StoredGradient> {
  const found: Partial<StoredGradient> = {}
  const space = /\bin\s+(srgb-linear|srgb|oklab)\b/i.exec(head)?.[1]?.toLowerCase()
  if (space) found.mix = space === 'srgb-linear' ? 'linear' : (space as 'srgb' | 'oklab')
  const at = /\bat\s+([-.\d]+%|left|center|right)\s+([-.\d]+%|top|center|bottom)/i.exec(head)
  if (at) {
    found.x = percent(at[1]!)
    found.y = percent(at[2]!)
  } else if (/\bat\s/i.test(head) && !/\bat\s+center\b/i.test(head)) {
    throw fault('The middle must be given in %.', 'Write for example: at 30% 40%.')
  }
  if (type === 'linear') found.angle = linearAngle(head)
  if (type === 'conic') found.angle = round(90 - readAngle(/\bfrom\s+(\S+)/i.exec(head)?.[1] ?? '0deg'))
  // At 100 % ours ends at the farthest side; CSS's default is the farthest corner, for an ellipse √2 as far.
  if (type === 'radial') {
    found.form = /\bcircle\b/i.test(head) ? 'circle' : 'ellipse'
    if (/closest/i.test(head)) throw fault('Sizes closest-side and closest-corner are not read.', 'Use farthest-side.')
    if (!/farthest-side/i.test(head)) {
      if (found.form === 'circle') {
        throw fault('A circle to the farthest corner depends on the shape.', 'Write: circle farthest-side.')
      }
      found.scale = round(100 * Math.SQRT2)
    }
  }
  return found
}

const SIDES: Record<string, number> = { right: 0, top: 90, left: 180, bottom: 270 }

function linearAngle(head: string): number {
  const angle = /[-+.\d]+(?:deg|grad|rad|turn)\b/i.exec(head)?.[0]
  if (angle) return round(90 - readAngle(angle))
  const to = /\bto\s+(top|bottom|left|right)(?:\s+(top|bottom|left|right))?/i.exec(head)
  if (!to) return 270
  if (to[2]) throw fault('Directions to a corner depend on the shape.', 'Give an angle, for example 45deg.')
  return SIDES[to[1]!.toLowerCase()]!
}

function readAngle(text: string): number {
  const found = /^([-+]?[\d.]+)(deg|grad|rad|turn)$/i.exec(text)
  if (!found) throw fault(`“${text}” is no angle.`, 'Write for example 45deg.')
  const unit = { deg: 1, grad: 0.9, rad: 180 / Math.PI, turn: 360 }[found[2]!.toLowerCase()]!
  return Number(found[1]) * unit
}

function percent(text: string): number {
  const named: Record<string, number> = { left: 0, top: 0, center: 50, right: 100, bottom: 100 }
  return named[text.toLowerCase()] ?? Number(text.slice(0, -1))
}

function readStops(parts: readonly string[], type: string): { stops: Stop[]; hints: Map<number, number> } {
  const stops: Stop[] = []
  const hintAt = new Map<number, number>()
  for (const part of parts) {
    const words = split(part, ' ')
    const places = words.filter((word) => isPlace(word)).map((word) => readPlace(word, type))
    const colours = words.filter((word) => !isPlace(word))
    if (colours.length === 0 && places.length === 1) {
      hintAt.set(stops.length - 1, places[0]!)
      continue
    }
    const rgb = colours.length === 1 ? toRgb(parse(colours[0]!)) : undefined
    if (!rgb) throw fault(`“${part}” is no colour with a place.`, 'Write for example #b8324a 40%.')
    const colour = writeColour([rgb.r, rgb.g, rgb.b, rgb.alpha ?? 1])
    if (places.length === 0) stops.push({ at: null, colour })
    for (const at of places) stops.push({ at, colour })
  }
  if (stops.length < 2) throw fault('A gradient has at least two colours.', 'Add a colour.')
  if (stops.length > 64) throw fault('A gradient has at most 64 colours.', 'Take some out.')
  spreadPlaces(stops)
  const hints = new Map<number, number>()
  for (const [i, at] of hintAt) {
    const [from, to] = [stops[i]?.at ?? 0, stops[i + 1]?.at ?? 100]
    if (to > from) hints.set(i, Math.min(99, Math.max(1, round(((at - from) / (to - from)) * 100))))
  }
  return { stops, hints }
}

const isPlace = (word: string) => /^[-+]?[\d.]+(%|deg|turn|rad|grad|px)$|^0$/i.test(word)

function readPlace(word: string, type: string): number {
  if (word === '0') return 0
  if (word.endsWith('%')) return cut(Number(word.slice(0, -1)))
  if (type === 'conic') return cut((readAngle(word) / 360) * 100)
  throw fault(`“${word}” is no share of the gradient.`, 'Give places in %.')
}

const cut = (value: number) => Math.min(100, Math.max(0, value))
const round = (value: number) => Math.round(value * 1000) / 1000

/** CSS Images 3 §3.4.3: the ends are 0 and 100 %, none lies before an earlier one, gaps are filled evenly. */
function spreadPlaces(stops: Stop[]): void {
  stops[0]!.at ??= 0
  stops[stops.length - 1]!.at ??= 100
  let most = 0
  for (const stop of stops) {
    if (stop.at === null) continue
    stop.at = Math.max(stop.at, most)
    most = stop.at
  }
  for (let i = 1; i < stops.length; i++) {
    if (stops[i]!.at !== null) continue
    let next = i
    while (stops[next]!.at === null) next++
    const [from, to] = [stops[i - 1]!.at!, stops[next]!.at!]
    for (let k = i; k < next; k++) stops[k]!.at = round(from + ((to - from) * (k - i + 1)) / (next - i + 1))
    i = next
  }
}

const MIX_NAMES = { srgb: '', linear: ' in srgb-linear', oklab: ' in oklab' } as const

/**
 * Writes a gradient as CSS. What CSS cannot say (mirroring, a shift, a linear gradient longer than its box) is written
 * as far as it can; gradients along the edge become linear ones.
 */
export function writeCssGradient(gradient: EvaluatedGradient): string {
  const { type, spread, scale, shift, form, mix, angle, x, y } = gradient
  const stops = [...gradient.stops].sort((a, b) => a.at - b.at)
  // Scale and shift are told by the places of the colours.
  const from = type === 'linear' ? 0.5 + (shift - 0.5 * scale) : shift
  const at = (place: number) => `${round((from + place * scale) * 100)}%`
  const text = stops.flatMap((stop, i) => {
    const next = stops[i + 1]
    const hint = next && stop.middle !== 0.5 ? [at(stop.at + (next.at - stop.at) * stop.middle)] : []
    return [`${writeColour(stop.colour).toLowerCase()} ${at(stop.at)}`, ...hint]
  })
  const centre = `at ${round(x * 100)}% ${round(y * 100)}%`
  const heads = {
    linear: `${round(90 - angle)}deg`,
    edge: '180deg',
    radial: `${form} farthest-side ${centre}`,
    conic: `from ${round(90 - angle)}deg ${centre}`,
  }
  const name = `${spread === 'repeat' ? 'repeating-' : ''}${type === 'edge' ? 'linear' : type}-gradient`
  return `${name}(${heads[type]}${MIX_NAMES[mix]}, ${text.join(', ')})`
}
