import type { z } from 'zod'
import { COAT_KINDS } from '../coats/table'
import type { Fault } from '../errors'
import { WaxError } from '../errors'
import { PIECE_KINDS } from './pieces'
import type { Card } from './schema'
import { CARD_FORMAT, CARD_VERSION, cardSchema } from './schema'

/** Card files larger than this are refused before they are read. */
export const LARGEST_CARD_BYTES = 16 * 1024 * 1024

/** What reading a card gives: the card with all defaults filled in, or every fault that was found. */
export type CardReading = { card: Card; faults: null } | { card: null; faults: Fault[] }

/** Reads the text of a `.card.json` file. */
export function readCardText(text: string): CardReading {
  if (text.length > LARGEST_CARD_BYTES) {
    return broken(
      'too-large',
      'file',
      'The card file is larger than 16 MB.',
      'Take parts out of it, or check that it is a card.',
    )
  }
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch (error) {
    const what = error instanceof Error ? error.message : String(error)
    return broken(
      'not-json',
      'file',
      `The file is not valid JSON: ${what}.`,
      'Mend the text at that place, or export the card again.',
    )
  }
  return readCard(value)
}

/** Checks a value against version 1 of the card format. */
export function readCard(value: unknown): CardReading {
  const head = value as { format?: unknown; version?: unknown } | null
  if (typeof value !== 'object' || head === null || head.format !== CARD_FORMAT) {
    return broken(
      'not-a-card',
      'format',
      'This is no Wax Ribbon card.',
      `A card starts with "format": "${CARD_FORMAT}".`,
    )
  }
  if (typeof head.version === 'number' && head.version > CARD_VERSION) {
    return broken(
      'newer-version',
      'version',
      `The card has version ${head.version}.`,
      `This application reads version ${CARD_VERSION}: open it with a newer one.`,
    )
  }
  const result = cardSchema.safeParse(value)
  if (result.success) return { card: result.data as unknown as Card, faults: null }
  return { card: null, faults: result.error.issues.flatMap((issue) => faultsOf(issue, value)) }
}

/** As readCard, but throws the first fault. */
export function expectCard(value: unknown): Card {
  const { card, faults } = readCard(value)
  if (card) return card
  const [first] = faults
  throw new WaxError(first!.code, first!.place, first!.message, first!.remedy)
}

function broken(code: string, place: string, message: string, remedy: string): CardReading {
  return { card: null, faults: [{ code, place, message, remedy }] }
}

type Issue = z.core.$ZodIssue

/** Zod's issues in the words of a card's author. */
function faultsOf(issue: Issue, card: unknown, outer: PropertyKey[] = []): Fault[] {
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
  Math.max(...issues.map((issue) => (issue.code === 'invalid_type' ? 0 : 1) + issue.path.length))

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
        remedy: `Known kinds: ${kinds}; paints: solid, linear.`,
      }
    }
    case 'too_small':
      return {
        code: 'out-of-range',
        message: `${shown} is too small.`,
        remedy: `The least is ${String(issue.minimum)}.`,
      }
    case 'too_big':
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
        remedy: 'Change it to a value that is allowed.',
      }
    default:
      return {
        code: 'not-allowed',
        message: `${shown} ${issue.message}.`,
        remedy: 'Change it to a value that is allowed.',
      }
  }
}
