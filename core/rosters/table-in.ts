import { extentOf } from '../extent'
import Papa from 'papaparse'
import type { CardField } from '../card/fields'
import { headingOf } from '../card/fields'
import { WaxError } from '../errors'
import { HEX_COLOUR } from '../values/colour'
import type { Encoding } from './encoding'
import { decoded, encodingOf } from './encoding'
import { ownNamed } from './own-headings'
import { LONGEST_CELL, MOST_COLUMNS, MOST_ROWS } from './roster'

// A table as it comes in: CSV (RFC 4180), the same with other delimiters, or JSON. What was found is shown before it is taken,
// and can be said otherwise.

export const DELIMITERS = [
  { sign: ',', label: 'Comma' },
  { sign: ';', label: 'Semicolon' },
  { sign: '\t', label: 'Tab' },
  { sign: '|', label: 'Vertical bar' },
] as const
export type Delimiter = (typeof DELIMITERS)[number]['sign']

/** How a table is read. */
export interface TableForm {
  encoding: Encoding
  /** Null for JSON. */
  delimiter: Delimiter | null
  /** Whether its first row has the headings. */
  header: boolean
}

export interface Table {
  form: TableForm
  /** Headings: those of the first row, or, without any, empty. As many as the widest row has cells. */
  headings: string[]
  rows: string[][]
  /** What a person should know: rows with too few cells, quotes that were never closed. */
  notes: string[]
}

/** Larger files are refused before they are read. */
export const LARGEST_TABLE_BYTES = 64 * 1024 * 1024

/** What is known of a heading: the label of a field. */
type Labelled = Pick<CardField, 'label'>

/** Reads a table; what `said` does not say is found, by the fields of the card too. Throws a WaxError where there is none. */
export function readTable(bytes: Uint8Array, said: Partial<TableForm> = {}, fields: readonly Labelled[] = []): Table {
  if (bytes.length > LARGEST_TABLE_BYTES) {
    throw new WaxError('too-large', 'file', 'The file is larger than 64 MB.', 'Part it into several rosters.')
  }
  const encoding = said.encoding ?? encodingOf(bytes)
  const text = decoded(bytes, encoding)
  if (text.trim() === '') throw empty()
  const isJson = said.delimiter === null || (said.delimiter === undefined && /^\s*[[{]/.test(text))
  return isJson ? ofJson(text, encoding) : ofText(text, encoding, said, fields)
}

const empty = () =>
  new WaxError('empty-table', 'file', 'The file has no rows.', 'Choose a file with a heading and a row at the least.')

function ofText(text: string, encoding: Encoding, said: Partial<TableForm>, fields: readonly Labelled[]): Table {
  const guessed = DELIMITERS.map(({ sign }) => sign)
  const { data, errors, meta } = Papa.parse<string[]>(text, {
    delimiter: said.delimiter ?? '',
    delimitersToGuess: guessed,
    skipEmptyLines: 'greedy',
  })
  // Rows of few cells tell nothing: the first line does, by what stands in it most often.
  if (said.delimiter === undefined && errors.some(({ type }) => type === 'Delimiter')) {
    const line = text.split(/[\r\n]/).find((one) => one.trim() !== '')!
    const count = (sign: string) => line.split(sign).length
    const most = guessed.reduce((best, sign) => (count(sign) > count(best) ? sign : best))
    if (count(most) > 1) return ofText(text, encoding, { ...said, delimiter: most }, fields)
  }
  if (data.length === 0) throw empty()
  const header = said.header ?? looksLikeHeadings(data, fields)
  const broken = errors.find(({ type }) => type === 'Quotes')
  const notes = broken
    ? [`A quotation mark in row ${(broken.row ?? 0) + 1} is never closed: what follows may be one cell.`]
    : []
  const delimiter = guessed.includes(meta.delimiter as Delimiter) ? (meta.delimiter as Delimiter) : ','
  return asTable(data, { encoding, delimiter, header }, notes)
}

function asTable(all: readonly (readonly string[])[], form: TableForm, notes: string[]): Table {
  const width = extentOf(all.map((cells) => cells.length))[1]
  const rows = form.header ? all.slice(1) : all
  if (width > MOST_COLUMNS || rows.length > MOST_ROWS) {
    throw new WaxError(
      'too-large',
      'file',
      `The table has ${rows.length} rows and ${width} columns.`,
      `The most is ${MOST_ROWS} rows and ${MOST_COLUMNS} columns: part it.`,
    )
  }
  const short = rows.filter((cells) => cells.length < (form.header ? all[0]!.length : width)).length
  const long = rows.flatMap((cells) => cells).filter((cell) => cell.length > LONGEST_CELL).length
  return {
    form,
    headings: Array.from({ length: width }, (_, i) => (form.header ? (all[0]![i] ?? '').trim() : '')),
    rows: rows.map((cells) => Array.from({ length: width }, (_, i) => (cells[i] ?? '').slice(0, LONGEST_CELL))),
    notes: [
      ...notes,
      ...(short > 0
        ? [`${short} ${short === 1 ? 'row has' : 'rows have'} fewer cells than headings: they stay empty.`]
        : []),
      ...(long > 0 ? [`${long} cells are longer than ${LONGEST_CELL} characters and were cut.`] : []),
    ],
  }
}

/**
 * Whether the first row has headings: where one of them is known, or where none is empty, told twice, a number or a colour, and
 * there are rows below.
 */
function looksLikeHeadings(data: readonly (readonly string[])[], fields: readonly Labelled[]): boolean {
  const first = data[0]!.map(headingOf)
  const names = new Set(fields.map(({ label }) => headingOf(label)))
  if (first.some((heading) => names.has(heading))) return true
  // Two of them: a single word may well be somebody's.
  if (first.filter((heading) => ownNamed(heading)).length > 1) return true
  if (names.size > 0 && first.length === 1) return false
  const isValue = (text: string) => /^[-+−]?[\d.,:;]+\s*\S{0,2}$/.test(text) || HEX_COLOUR.test(text)
  const plain = first.every((text) => text !== '' && text.length <= 40 && !isValue(text))
  return plain && new Set(first).size === first.length && data.length > 1
}

/** Objects whose names are headings, or lists of cells. */
function ofJson(text: string, encoding: Encoding): Table {
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch (error) {
    const what = error instanceof Error ? error.message : String(error)
    throw new WaxError('not-json', 'file', `The file is not valid JSON: ${what}.`, 'Mend the text at that place.')
  }
  const rows: unknown = Array.isArray(value) ? value : (value as { rows?: unknown } | null)?.rows
  if (!Array.isArray(rows) || !rows.every((row) => typeof row === 'object' && row !== null)) {
    throw new WaxError(
      'no-table',
      'file',
      'This JSON is no table.',
      'A table is a list of objects, one a row, such as [{"Name": "Ada Reed"}].',
    )
  }
  if (rows.length === 0) throw empty()
  const cell = (one: unknown) =>
    one === null || one === undefined ? '' : typeof one === 'object' ? JSON.stringify(one) : String(one)
  if (rows.every(Array.isArray)) {
    const lists = (rows as unknown[][]).map((row) => row.map(cell))
    return asTable(lists, { encoding, delimiter: null, header: looksLikeHeadings(lists, []) }, [])
  }
  const headings = [...new Set((rows as object[]).flatMap((row) => Object.keys(row)))]
  const lists = (rows as Record<string, unknown>[]).map((row) => headings.map((name) => cell(row[name])))
  return asTable([headings, ...lists], { encoding, delimiter: null, header: true }, [])
}
