import { z } from 'zod'
import { faultsOf } from '../card/faults'
import type { DocumentKind, Reading } from '../documents/document'
import { readDocument, readDocumentText } from '../documents/document'
import type { Fault } from '../errors'
import { WaxError } from '../errors'
import { headingOf } from '../card/fields'

// A roster: a table of rows that fill the fields of cards. Version 1 of the roster file.

export const ROSTER_FORMAT = 'wax-ribbon-roster'
export const ROSTER_VERSION = 1

export const MOST_ROWS = 50_000
export const MOST_COLUMNS = 200
/** Characters of a cell. */
export const LONGEST_CELL = 5000

export interface RosterColumn {
  id: string
  /** Its heading: the field of a card with this label is filled by it. */
  name: string
  /** Other headings under which fields find it: two cards may call the same thing otherwise. */
  also: string[]
}

export interface RosterRow {
  id: string
  /** What its files are called after; where it is empty, its first words are. */
  name: string
  /** Whether it is rendered. */
  on: boolean
  note: string
  /** Timecodes of the programme, as they were written; empty where it has none. */
  in: string
  out: string
  /** Cells by the ids of their columns; those without anything are left out. */
  cells: Readonly<Record<string, string>>
}

export interface Roster {
  format: typeof ROSTER_FORMAT
  version: typeof ROSTER_VERSION
  name: string
  columns: readonly RosterColumn[]
  rows: readonly RosterRow[]
}

const id = z.string().min(1).max(40)
const cell = z.string().max(LONGEST_CELL)

export const rosterSchema = z
  .strictObject({
    format: z.literal(ROSTER_FORMAT),
    version: z.literal(ROSTER_VERSION),
    name: z.string().trim().min(1).max(200),
    columns: z
      .array(
        z.strictObject({
          id,
          name: z.string().trim().min(1).max(80),
          also: z.array(z.string().trim().min(1).max(80)).max(20).default([]),
        }),
      )
      .max(MOST_COLUMNS)
      .default([]),
    rows: z
      .array(
        z.strictObject({
          id,
          name: z.string().max(200).default(''),
          on: z.boolean().default(true),
          note: z.string().max(2000).default(''),
          in: z.string().max(40).default(''),
          out: z.string().max(40).default(''),
          cells: z.record(id, cell).default({}),
        }),
      )
      .max(MOST_ROWS)
      .default([]),
  })
  .superRefine(({ columns, rows }, context) => {
    const refuse = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message })
    const headings = new Set<string>()
    columns.forEach(({ name }, i) => {
      const heading = headingOf(name)
      if (headings.has(heading)) refuse(['columns', i, 'name'], 'is the heading of another column')
      headings.add(heading)
    })
    for (const [name, list] of [
      ['columns', columns],
      ['rows', rows],
    ] as const) {
      const ids = new Set<string>()
      list.forEach((entry, i) => {
        if (ids.has(entry.id)) refuse([name, i, 'id'], 'is an id that is taken')
        ids.add(entry.id)
      })
    }
  })

const ROSTER: DocumentKind = {
  format: ROSTER_FORMAT,
  version: ROSTER_VERSION,
  upgrades: [],
  noun: 'roster',
  schema: rosterSchema,
  faults: (issue, document) => faultsOf(issue, document),
  mostBytes: 64 * 1024 * 1024,
}

export const readRoster = (value: unknown): Reading<Roster> => readDocument<Roster>(ROSTER, value)
export const readRosterText = (text: string): Reading<Roster> => readDocumentText<Roster>(ROSTER, text)

/** As readRoster, but throws the first fault. */
export function expectRoster(value: unknown): Roster {
  const { document, faults } = readRoster(value)
  if (document) return document
  const { code, place, message, remedy } = faults[0] as Fault
  throw new WaxError(code, place, message, remedy)
}

export const createRoster = (name: string): Roster => ({
  ...{ format: ROSTER_FORMAT, version: ROSTER_VERSION, name },
  ...{ columns: [], rows: [] },
})

/** Whether nothing was written into a row: a line of the table that waits for words. */
export const isBlank = ({ name, note, in: begins, out, cells }: RosterRow): boolean =>
  [name, note, begins, out, ...Object.values(cells)].every((text) => text.trim() === '')

/** Whether a row is rendered, as far as that is for people to say. */
export const isRendered = (row: RosterRow): boolean => row.on && !isBlank(row)

/** What a row is called: its name, or its first words. */
export function rowTitle(roster: Pick<Roster, 'columns'>, row: RosterRow): string {
  if (row.name.trim() !== '') return row.name.trim()
  const first = roster.columns.map(({ id }) => row.cells[id]?.trim() ?? '').find((text) => text !== '')
  return first?.split('\n')[0]!.slice(0, 80) ?? ''
}
