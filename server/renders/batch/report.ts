import { nameFrom, fileNameOf } from '../../../core/formats/deliveries/file-name'
import { deliveryOf } from '../../../core/formats/deliveries/table'
import type { MadeRow } from '../../../core/rosters/report'
import { rowReport, rowTimeline } from '../../../core/rosters/report'
import type { renders, RowLeftOut } from '../../database/schema'

type RenderRow = typeof renders.$inferSelect

/** The files that a render is, or will be, by their names. */
export function filesOf({ options, name, rowName, take, files }: RenderRow): string[] {
  if (files.length > 0) return files.map((file) => file.name)
  const stem = nameFrom(options.name, { card: name, row: rowName, take })
  return deliveryOf(options.format)
    .files(options)
    .map((file) => fileNameOf(stem, file))
}

const madeRow = (render: RenderRow): MadeRow => ({
  ...{ row: render.rowName, files: filesOf(render), state: render.status },
  ...{ frames: render.framesTotal, rate: render.document.rate },
  ...{ start: render.rowStart, timecode: render.options.timecode ?? null },
  passed: render.report?.passed ?? null,
  wrong: render.fault ? `${render.fault.message} ${render.fault.remedy}` : '',
})

/** The report of a job of many files as CSV: a line for each row, those that were left out too. */
export const batchReport = (rows: readonly RenderRow[], leftOut: readonly RowLeftOut[]): string =>
  rowReport(rows.map(madeRow), leftOut)

/** The job as an OpenTimelineIO timeline: every finished file of a placed row on one track, by the first of its files. */
export const batchTimeline = (name: string, rows: readonly RenderRow[]): object | null =>
  rowTimeline(name, rows.map(madeRow))
