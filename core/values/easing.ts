import { Kept } from '../kept'

// CSS Easing Functions Level 2 (W3C): the text that a key carries, and the function it stands for.

export type Easing = (progress: number) => number

const NAMED: ReadonlyMap<string, readonly [number, number, number, number]> = new Map([
  ['ease', [0.25, 0.1, 0.25, 1]],
  ['ease-in', [0.42, 0, 1, 1]],
  ['ease-out', [0, 0, 0.58, 1]],
  ['ease-in-out', [0.42, 0, 0.58, 1]],
])
/** Values of easings beyond this are no motion any more, and would add up to what no number is. */
const FARTHEST = 1e6

const known = new Kept<string, Easing | null>(1000)

/** The easing that a text describes, or null where it describes none. Results are kept. */
export function readEasing(text: string): Easing | null {
  return known.of(text, () => parse(text.trim().toLowerCase()))
}

export const isEasing = (text: string): boolean => readEasing(text) !== null

function parse(text: string): Easing | null {
  if (text === 'linear') return (p) => p
  if (text === 'hold') return stepsEasing(1, 'jump-end')
  if (text === 'step-start') return stepsEasing(1, 'jump-start')
  if (text === 'step-end') return stepsEasing(1, 'jump-end')
  const named = NAMED.get(text)
  if (named) return cubicBezier(...named)
  const call = /^(cubic-bezier|steps|linear)\(([^()]*)\)$/.exec(text)
  if (!call) return null
  const parts = call[2]!.split(',').map((part) => part.trim())
  if (call[1] === 'cubic-bezier') return parseBezier(parts)
  if (call[1] === 'steps') return parseSteps(parts)
  return parseLinear(parts)
}

function parseBezier(parts: string[]): Easing | null {
  const numbers = parts.map(readNumber)
  if (numbers.length !== 4 || numbers.some((n) => n === null)) return null
  const [x1, y1, x2, y2] = numbers as [number, number, number, number]
  if (x1 < 0 || x1 > 1 || x2 < 0 || x2 > 1) return null
  return cubicBezier(x1, y1, x2, y2)
}

const JUMPS = ['jump-start', 'jump-end', 'jump-none', 'jump-both', 'start', 'end'] as const
type Jump = (typeof JUMPS)[number]

function parseSteps(parts: string[]): Easing | null {
  const count = readNumber(parts[0] ?? '')
  const jump = (parts[1] ?? 'end') as Jump
  if (parts.length > 2 || count === null || !Number.isInteger(count) || !JUMPS.includes(jump)) return null
  if (count < (jump === 'jump-none' ? 2 : 1) || count > 1e6) return null
  return stepsEasing(count, jump)
}

/** §2.3 Step easing functions, for progress in 0..1. */
function stepsEasing(count: number, jump: Jump): Easing {
  const startJump = jump === 'jump-start' || jump === 'start' || jump === 'jump-both'
  const jumps = jump === 'jump-both' ? count + 1 : jump === 'jump-none' ? count - 1 : count
  return (progress) => {
    let step = Math.floor(progress * count) + (startJump ? 1 : 0)
    if (progress >= 0 && step < 0) step = 0
    if (progress <= 1 && step > jumps) step = jumps
    return step / jumps
  }
}

/** §2.1 linear(): numbers with optional input percentages; missing inputs are spread evenly. */
function parseLinear(parts: string[]): Easing | null {
  const points: { input: number | null; output: number }[] = []
  let largest = -Infinity
  for (const part of parts) {
    const words = part.split(/\s+/)
    const output = words.filter((w) => !w.endsWith('%')).map(readNumber)
    const inputs = words.filter((w) => w.endsWith('%')).map((w) => readNumber(w.slice(0, -1)))
    if (output.length !== 1 || output[0] === null || inputs.length > 2 || inputs.includes(null)) return null
    const value = output[0]!
    if (inputs.length === 0) points.push({ input: null, output: value })
    for (const input of inputs) {
      largest = Math.max(largest, input! / 100)
      points.push({ input: largest, output: value })
    }
  }
  if (points.length < 2) return points.length === 1 && points[0] ? constant(points[0].output) : null
  points[0]!.input ??= 0
  const last = points[points.length - 1]!
  last.input ??= Math.max(1, largest)
  for (let i = 1; i < points.length; i++) {
    if (points[i]!.input !== null) continue
    let next = i
    while (points[next]!.input === null) next++
    const from = points[i - 1]!.input!
    const step = (points[next]!.input! - from) / (next - i + 1)
    for (let k = i; k < next; k++) points[k]!.input = from + step * (k - i + 1)
  }
  return (progress) => {
    let b = 1
    while (b < points.length - 1 && points[b]!.input! <= progress) b++
    const p = points[b - 1]!
    const q = points[b]!
    const span = q.input! - p.input!
    if (span === 0) return progress < p.input! ? p.output : q.output
    return p.output + ((progress - p.input!) / span) * (q.output - p.output)
  }
}

const constant =
  (value: number): Easing =>
  () =>
    value

function readNumber(text: string): number | null {
  if (!/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/.test(text)) return null
  const value = Number(text)
  return Math.abs(value) <= FARTHEST ? value : null
}

/** §2.2: x(s) is monotone, so bisection refined by Newton's method always ends; only + − × ÷ are used. */
export function cubicBezier(x1: number, y1: number, x2: number, y2: number): Easing {
  const curve = (a: number, b: number, s: number) => ((1 - 3 * b + 3 * a) * s + (3 * b - 6 * a)) * s * s + 3 * a * s
  const slope = (a: number, b: number, s: number) => 3 * (1 - 3 * b + 3 * a) * s * s + 2 * (3 * b - 6 * a) * s + 3 * a
  return (progress) => {
    if (progress <= 0) return 0
    if (progress >= 1) return 1
    let low = 0
    let high = 1
    let s = progress
    for (let i = 0; i < 60; i++) {
      const error = curve(x1, x2, s) - progress
      if (Math.abs(error) < 1e-12) break
      if (error > 0) high = s
      else low = s
      const k = slope(x1, x2, s)
      const next = s - error / k
      s = k > 1e-9 && next > low && next < high ? next : (low + high) / 2
    }
    return curve(y1, y2, s)
  }
}

/** The standard easings that the bench offers by name. */
export const STANDARD_EASINGS = ['linear', 'ease', 'ease-in', 'ease-out', 'ease-in-out', 'hold'] as const
