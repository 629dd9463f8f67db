import Papa from 'papaparse'
import { cellOf, OWN_COLUMNS, ownColumn } from './edit'
import type { Roster } from './roster'

const OWN_NAMES = { name: 'Row', on: 'On', in: 'In', out: 'Out', note: 'Note' } as const

/**
 * CSV after RFC 4180: a header, CRLF, cells with commas, quotes or line breaks in quotation marks. What every row has is written
 * where any row has it. It begins with a byte order mark, without which some spreadsheets take UTF-8 for something else.
 */
export function rosterCsv({ columns, rows }: Roster): string {
  const plain = { name: '', on: 'on', in: '', out: '', note: '' } as const
  const own = OWN_COLUMNS.filter((name) => rows.some((row) => cellOf(row, ownColumn(name)) !== plain[name]))
  const ids = [...own.map(ownColumn), ...columns.map(({ id }) => id)]
  const headings = [...own.map((name) => OWN_NAMES[name]), ...columns.map(({ name }) => name)]
  return csvOf([headings, ...rows.map((row) => ids.map((id) => cellOf(row, id)))])
}

/** Rows of cells as CSV. Cells that a spreadsheet would take for a formula are written as they are: they are somebody's words. */
export const csvOf = (rows: readonly (readonly string[])[]): string =>
  `\uFEFF${Papa.unparse(rows as string[][], { newline: '\r\n' })}\r\n`
