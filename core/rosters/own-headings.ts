import { headingOf } from '../card/fields'
import type { OwnColumn } from './edit'
import { OWN_COLUMNS } from './edit'

/** Headings by which spreadsheets and other programs name what every row has. */
const OWN_HEADINGS: Readonly<Record<OwnColumn, readonly string[]>> = {
  name: ['row', 'row name', 'file', 'file name', 'filename'],
  on: ['on', 'render', 'active', 'enabled'],
  in: ['in', 'tc in', 'timecode in', 'start', 'from'],
  out: ['out', 'tc out', 'timecode out', 'end', 'to'],
  note: ['note', 'notes', 'comment', 'comments', 'remark'],
}

/** What every row has under a heading; undefined for headings of columns. */
export const ownNamed = (heading: string): OwnColumn | undefined =>
  OWN_COLUMNS.find((name) => OWN_HEADINGS[name].includes(headingOf(heading)))
