import Papa from 'papaparse'

/** Cells as a spreadsheet copies them: lines with tabs, in quotation marks where a cell has several lines. */
export function blockFrom(data: Pick<DataTransfer, 'getData'> | null): string[][] {
  const text = data?.getData('text/plain') ?? ''
  if (text === '') return []
  // The last line ends like all others.
  const { data: rows } = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' })
  return rows
}
