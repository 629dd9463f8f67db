import type { z } from 'zod'
import type { Fault } from '../errors'
import { gathered } from './gathered'
import { oddPlace } from './odd-json'
import type { Stored, Upgrade } from './upgrades'
import { upgraded } from './upgrades'

/** A kind of file of our own: one JSON document with a name and a version at its head. */
export interface DocumentKind {
  format: string
  /** Today's. */
  version: number
  /** The steps from every earlier version to the next. */
  upgrades: readonly Upgrade[]
  /** `card`, `set of seals`: in messages. */
  noun: string
  schema: z.ZodType
  /** What the schema finds wrong in a document, in words. */
  faults(issue: z.core.$ZodIssue, document: unknown): Fault[]
  /** Larger files are refused before they are read. */
  mostBytes: number
}

/** What reading gives: the document with all defaults filled in, or every fault that was found. */
export type Reading<T> = { document: T; faults: null } | { document: null; faults: Fault[] }

const broken = (code: string, place: string, message: string, remedy: string): { document: null; faults: Fault[] } => ({
  document: null,
  faults: [{ code, place, message, remedy }],
})

/** Reads the text of a file of our own. */
export function readDocumentText<T>(kind: DocumentKind, text: string): Reading<T> {
  if (text.length > kind.mostBytes) {
    const megabytes = Math.round(kind.mostBytes / 1024 / 1024)
    return broken(
      'too-large',
      'file',
      `The file is larger than ${megabytes} MB.`,
      `Take parts out of it, or check that it is a ${kind.noun}.`,
    )
  }
  let value: unknown
  try {
    // A byte order mark says nothing of UTF-8 (RFC 8259 §8.1 lets readers pass over it).
    value = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    const what = error instanceof Error ? error.message : String(error)
    return broken(
      'not-json',
      'file',
      `The file is not valid JSON: ${what}.`,
      'Mend the text at that place, or export it again.',
    )
  }
  return readDocument<T>(kind, value)
}

/** Brings a value to today's version of a format and checks it. */
export function readDocument<T>(kind: DocumentKind, value: unknown): Reading<T> {
  const odd = oddPlace(value)
  if (odd) return { document: null, faults: [odd] }
  const head = value as { format?: unknown; version?: unknown } | null
  if (typeof value !== 'object' || head === null || head.format !== kind.format) {
    return broken(
      `not-a-${kind.noun.replaceAll(' ', '-')}`,
      'format',
      `This is no Wax Ribbon ${kind.noun}.`,
      `A ${kind.noun} starts with "format": "${kind.format}".`,
    )
  }
  if (typeof head.version === 'number' && head.version > kind.version) {
    return broken(
      'newer-version',
      'version',
      `The ${kind.noun} has version ${head.version}.`,
      `This application reads version ${kind.version}: open it with a newer one.`,
    )
  }
  const today = upgraded(kind, value as Stored)
  const result = kind.schema.safeParse(today)
  if (result.success) return { document: result.data as T, faults: null }
  return { document: null, faults: gathered(result.error.issues.flatMap((issue) => kind.faults(issue, today))) }
}
