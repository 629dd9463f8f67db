import type { MathNode } from 'mathjs/number'
import { create, parseDependencies } from 'mathjs/number'
import { Kept } from '../kept'
import { acosDegrees, cosDegrees, exp, log, pow, sinDegrees } from '../kernels/exact'
import { ringNoise } from './ring-noise'

// A library reads the formula; of its tree only numbers, the four names, the listed functions and operators are let
// in, so that a formula can do nothing but arithmetic and always ends. What is let in is computed with functions that
// give the same bits on every host.

const { parse } = create(parseDependencies!, {})

export interface FormulaScope {
  /** Seconds. */
  t: number
  /** Frame. */
  f: number
  /** Place in the loop, 0–1. */
  p: number
  /** The value before. */
  v: number
}

type Run = (scope: FormulaScope) => number

/** Either what computes it, or what is wrong with it, in words. `thrown`: random points that each computing may throw anew. */
export type FormulaReading = { run: Run; fault: null; thrown: number } | { run: null; fault: string }

export const LONGEST_FORMULA = 500
const MOST_PARTS = 300
/**
 * Random points that a formula may throw anew each time it is computed. A ring of noise is kept by its points and its seed: where both are
 * plain numbers it costs nothing after the first time. Formulas are computed for every frame, exposure and drawn curve, on the page too.
 */
const MOST_THROWN = 500
/** Points round a ring of noise: as many as are written; where they change with time, no more than these. */
const MOST_POINTS = 10_000
export const MOST_CHANGING_POINTS = 250

const DEGREES = 180 / Math.PI
const limited = (x: number, low: number, high: number) => Math.min(Math.max(x, low), high)

interface Callable {
  /** Fewest and most arguments. */
  takes: readonly [number, number]
  call: (...values: number[]) => number
  help: string
}

/** Angles are radians, as in the library: sin(tau * p) goes round once in the loop. */
export const FORMULA_FUNCTIONS: Readonly<Record<string, Callable>> = {
  sin: { takes: [1, 1], call: (x) => sinDegrees(x! * DEGREES), help: 'sine of radians' },
  cos: { takes: [1, 1], call: (x) => cosDegrees(x! * DEGREES), help: 'cosine of radians' },
  tan: { takes: [1, 1], call: (x) => sinDegrees(x! * DEGREES) / cosDegrees(x! * DEGREES), help: 'tangent of radians' },
  acos: { takes: [1, 1], call: (x) => acosDegrees(x!) / DEGREES, help: 'arc cosine in radians' },
  abs: { takes: [1, 1], call: Math.abs, help: 'without its sign' },
  sqrt: { takes: [1, 1], call: Math.sqrt, help: 'square root' },
  exp: { takes: [1, 1], call: exp, help: 'e to the power' },
  log: { takes: [1, 1], call: log, help: 'natural logarithm' },
  pow: { takes: [2, 2], call: pow, help: 'first to the power of the second' },
  mod: { takes: [2, 2], call: (x, y) => x! - y! * Math.floor(x! / y!), help: 'what is left of a division' },
  floor: { takes: [1, 1], call: Math.floor, help: 'whole number below' },
  ceil: { takes: [1, 1], call: Math.ceil, help: 'whole number above' },
  round: { takes: [1, 1], call: Math.round, help: 'nearest whole number' },
  sign: { takes: [1, 1], call: Math.sign, help: '−1, 0 or 1' },
  min: { takes: [1, 8], call: Math.min, help: 'smallest' },
  max: { takes: [1, 8], call: Math.max, help: 'largest' },
  clamp: { takes: [3, 3], call: (x, a, b) => limited(x!, a!, b!), help: 'first, kept between the others' },
  mix: { takes: [3, 3], call: (a, b, x) => a! + (b! - a!) * x!, help: 'from the first to the second by the third' },
  smoothstep: {
    takes: [3, 3],
    call: (a, b, x) => {
      const s = limited((x! - a!) / (b! - a!), 0, 1)
      return s * s * (3 - 2 * s)
    },
    help: 'soft step of the third from the first to the second',
  },
  noise: {
    takes: [2, 3],
    call: (at, points, seed = 1) =>
      ringNoise(limited(Math.round(points!), 2, MOST_POINTS), Math.round(seed)).smooth(at!),
    help: `noise(p, points, seed): −1 to 1, comes round with the loop; points that change with time are at most ${MOST_CHANGING_POINTS}`,
  },
}

const CONSTANTS: Readonly<Record<string, number>> = { pi: Math.PI, tau: 2 * Math.PI, e: Math.E }
const NAMES = ['t', 'f', 'p', 'v'] as const

const truth = (is: boolean) => (is ? 1 : 0)
const OPERATORS: Readonly<Record<string, (a: number, b: number) => number>> = {
  add: (a, b) => a + b,
  subtract: (a, b) => a - b,
  multiply: (a, b) => a * b,
  divide: (a, b) => a / b,
  mod: (a, b) => a - b * Math.floor(a / b),
  pow,
  unaryMinus: (a) => -a,
  unaryPlus: (a) => a,
  larger: (a, b) => truth(a > b),
  smaller: (a, b) => truth(a < b),
  largerEq: (a, b) => truth(a >= b),
  smallerEq: (a, b) => truth(a <= b),
  equal: (a, b) => truth(a === b),
  unequal: (a, b) => truth(a !== b),
  and: (a, b) => truth(a !== 0 && b !== 0),
  or: (a, b) => truth(a !== 0 || b !== 0),
  not: (a) => truth(a === 0),
}

class NotLetIn extends Error {}

const known = new Kept<string, FormulaReading>(500)

/** Reads a formula; results are kept. */
export function readFormula(text: string): FormulaReading {
  return known.of(text, () => read(text))
}

function read(text: string): FormulaReading {
  if (text.length > LONGEST_FORMULA) return refused(`is longer than ${LONGEST_FORMULA} characters`)
  if (text.trim() === '') return refused('is empty: write v for the value as it is')
  let tree: MathNode
  try {
    tree = parse(text)
  } catch (error) {
    const at = (error as { char?: number }).char
    return refused(at ? `cannot be read at character ${at}` : 'cannot be read')
  }
  try {
    let parts = 0
    tree.traverse(() => {
      if (++parts > MOST_PARTS) throw new NotLetIn(`has more than ${MOST_PARTS} parts`)
    })
    const { run, thrown } = compiled(tree)
    if (thrown > MOST_THROWN) {
      throw new NotLetIn(
        `throws up to ${thrown} random points anew each time, and may ${MOST_THROWN}: give noise plain numbers for points and seed, or fewer points`,
      )
    }
    return { run, fault: null, thrown }
  } catch (error) {
    if (error instanceof NotLetIn) return refused(error.message)
    throw error
  }
}

const refused = (fault: string): FormulaReading => ({ run: null, fault })

// The shapes of the library's nodes that are let in.
interface Shapes {
  value: unknown
  name: string
  fn: string | { name: string }
  args: MathNode[]
  content: MathNode
  condition: MathNode
  trueExpr: MathNode
  falseExpr: MathNode
  conditionals: string[]
  params: MathNode[]
}

/** A part of a formula. `isPlain`: it is the same at all times. */
interface Part {
  run: Run
  thrown: number
  isPlain: boolean
}

/** A part made of others. */
const madeOf = (parts: readonly Part[], run: Run, thrown = 0): Part => ({
  run,
  thrown: parts.reduce((sum, part) => sum + part.thrown, thrown),
  isPlain: parts.every(({ isPlain }) => isPlain),
})

function compiled(node: MathNode): Part {
  // The parser's nodes have other fields for each type; only those of the type at hand are read.
  const it = node as unknown as Shapes
  switch (node.type) {
    case 'ConstantNode': {
      const { value } = it
      if (typeof value !== 'number') throw new NotLetIn('may hold numbers only')
      return madeOf([], () => value)
    }
    case 'SymbolNode':
      return symbol(it.name)
    case 'ParenthesisNode':
      return compiled(it.content)
    case 'OperatorNode': {
      const operator = OPERATORS[String(it.fn)]
      if (!operator) throw new NotLetIn(`has an operator that is not known (${String(it.fn)})`)
      const parts = it.args.map(compiled)
      const [a, b] = parts.map(({ run }) => run)
      return madeOf(parts, b ? (scope) => operator(a!(scope), b(scope)) : (scope) => operator(a!(scope), 0))
    }
    case 'FunctionNode':
      return call((it.fn as { name: string }).name, it.args.map(compiled))
    case 'ConditionalNode': {
      const parts = [compiled(it.condition), compiled(it.trueExpr), compiled(it.falseExpr)] as const
      const [is, yes, no] = parts
      return madeOf(parts, (scope) => (is.run(scope) !== 0 ? yes.run(scope) : no.run(scope)))
    }
    case 'RelationalNode': {
      const parts = it.params.map(compiled)
      const relations = it.conditionals.map((name) => OPERATORS[name]!)
      return madeOf(parts, (scope) =>
        truth(relations.every((holds, i) => holds(parts[i]!.run(scope), parts[i + 1]!.run(scope)) !== 0)),
      )
    }
    default:
      throw new NotLetIn('may hold only arithmetic, comparisons and the listed functions')
  }
}

function symbol(name: string): Part {
  const constant = Object.hasOwn(CONSTANTS, name) ? CONSTANTS[name] : undefined
  if (constant !== undefined) return madeOf([], () => constant)
  const own = NAMES.find((known) => known === name)
  if (!own) throw new NotLetIn(`does not know ${name}: there are t, f, p, v, pi, tau, e`)
  return { run: (scope) => scope[own], thrown: 0, isPlain: false }
}

function call(name: string, args: Part[]): Part {
  const found = Object.hasOwn(FORMULA_FUNCTIONS, name) ? FORMULA_FUNCTIONS[name]! : null
  if (!found) throw new NotLetIn(`does not know the function ${name}`)
  const [least, most] = found.takes
  if (args.length < least || args.length > most) {
    throw new NotLetIn(
      `gives ${name} ${args.length} values; it takes ${least === most ? least : `${least} to ${most}`}`,
    )
  }
  return name === 'noise'
    ? noise(found, args)
    : madeOf(args, (scope) => found.call(...args.map(({ run }) => run(scope))))
}

/** Noise throws its points anew where they, or its seed, are others than the last time. */
function noise({ call }: Callable, [at, points, seed]: Part[]): Part {
  const parts = [at!, points!, ...(seed ? [seed] : [])]
  const values = parts.map(({ run }) => run)
  if (!points!.isPlain) {
    const run: Run = (scope) => {
      const [place, count, own] = values.map((value) => value(scope))
      return call(...[place!, Math.min(count!, MOST_CHANGING_POINTS), ...(own === undefined ? [] : [own])])
    }
    return madeOf(parts, run, MOST_CHANGING_POINTS)
  }
  const isKept = !seed || seed.isPlain
  const count = limited(Math.round(points!.run(AT_REST)), 2, MOST_POINTS)
  return madeOf(parts, (scope) => call(...values.map((value) => value(scope))), isKept ? 0 : count)
}

const AT_REST: FormulaScope = { t: 0, f: 0, p: 0, v: 0 }
