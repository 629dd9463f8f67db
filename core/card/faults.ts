import { extentOf } from '../extent'
import type { z } from 'zod'
import { COAT_KINDS } from '../coats/table'
import type { Fault } from '../errors'
import { PAINT_KINDS } from '../values/paints'
import { PIECE_KINDS } from '../pieces/table'

type Issue = z.core.$ZodIssue

/** Zod's issues in the words of a card's author. */
export function faultsOf(issue: Issue, card: unknown, outer: PropertyKey[] = []): Fault[] {
  const path = [...outer, ...issue.path]
  if (issue.code === 'invalid_union' && issue.errors.length > 0) {
    // The alternative that got furthest is the one that was meant.
    const best = [...issue.errors].sort((a, b) => depth(b) - depth(a) || a.length - b.length)[0]!
    return best.flatMap((inner) => faultsOf(inner, card, path))
  }
  const place = placeOf(path)
  const { message, remedy, code } = wordsFor(issue, valueAt(card, path))
  return [{ code, place, message, remedy }]
}

const depth = (issues: Issue[]) =>
  extentOf(issues.map((issue) => (issue.code === 'invalid_type' ? 0 : 1) + issue.path.length))[1]

/** A place in a document, as in `pieces[0].coats.face[1]`. */
export function placeOf(path: readonly PropertyKey[]): string {
  const text = path.map((part) => (typeof part === 'number' ? `[${part}]` : `.${String(part)}`)).join('')
  return text.replace(/^\./, '') || 'card'
}

function valueAt(root: unknown, path: readonly PropertyKey[]): unknown {
  return path.reduce<unknown>((value, part) => (value as Record<PropertyKey, unknown> | undefined)?.[part], root)
}

function wordsFor(issue: Issue, value: unknown): { code: string; message: string; remedy: string } {
  const shown = value === undefined ? 'nothing' : JSON.stringify(value)?.slice(0, 60)
  switch (issue.code) {
    case 'unrecognized_keys':
      return {
        code: 'unknown-name',
        message: `“${issue.keys.join('”, “')}” is no name known here.`,
        remedy: 'Check the spelling, or take it out.',
      }
    case 'invalid_union': {
      const kinds = [...COAT_KINDS, ...Object.keys(PIECE_KINDS)].join(', ')
      return {
        code: 'unknown-kind',
        message: `${shown} is no kind known here.`,
        remedy: `Known kinds: ${kinds}; paints: ${PAINT_KINDS.map(({ type }) => type).join(', ')}.`,
      }
    }
    case 'too_small':
      if (counted(value)) return { code: 'out-of-range', ...fewOf(value, Number(issue.minimum)) }
      return {
        code: 'out-of-range',
        message: `${shown} is too small.`,
        remedy: `The least is ${String(issue.minimum)}.`,
      }
    case 'too_big':
      if (counted(value)) return { code: 'out-of-range', ...manyOf(value, Number(issue.maximum)) }
      return {
        code: 'out-of-range',
        message: `${shown} is too large.`,
        remedy: `The most is ${String(issue.maximum)}.`,
      }
    case 'invalid_value':
      return {
        code: 'unknown-value',
        message: `${shown} is not one of the values allowed.`,
        remedy: `Use ${issue.values.map(String).join(', ')}.`,
      }
    case 'invalid_type':
      return {
        code: 'wrong-type',
        message: `Expected ${issue.expected}, found ${shown}.`,
        remedy: `Write a value of type ${issue.expected}.`,
      }
    case 'custom':
      return {
        code: 'not-allowed',
        message: `${shown} ${issue.message}.`,
        remedy: (issue.params?.remedy as string | undefined) ?? 'Change it to a value that is allowed.',
      }
    default:
      return {
        code: 'not-allowed',
        message: `${shown} ${issue.message}.`,
        remedy: 'Change it to a value that is allowed.',
      }
  }
}

/** What is too long or too short by the number of what it holds. */
const counted = (value: unknown): value is string | readonly unknown[] =>
  typeof value === 'string' || Array.isArray(value)

const lengthOf = (value: string | readonly unknown[]): string => {
  const [one, many] = typeof value === 'string' ? ['character', 'characters'] : ['entry', 'entries']
  return `${value.length} ${value.length === 1 ? one : many}`
}

const fewOf = (value: string | readonly unknown[], least: number) => ({
  message: `It has ${lengthOf(value)}, too few.`,
  remedy: `The least is ${least}.`,
})

const manyOf = (value: string | readonly unknown[], most: number) => ({
  message: `It has ${lengthOf(value)}, too many.`,
  remedy: most === 0 ? 'What it belongs to takes none: take them out.' : `The most is ${most}.`,
})
