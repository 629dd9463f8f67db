import { nameFrom, fileNameOf } from '../../../core/formats/deliveries/file-name'
import { deliveryOf } from '../../../core/formats/deliveries/table'
import { timelineOf } from '../../../core/rosters/otio'
import { csvOf } from '../../../core/rosters/table-out'
import { readTimecode, timecode } from '../../../core/time/timecode'
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

/** The report of a job of many files as CSV: a line for each row, those that were left out too. */
export function batchReport(rows: readonly RenderRow[], leftOut: readonly RowLeftOut[]): string {
  const said = (fault: { message: string; remedy: string } | null) => (fault ? `${fault.message} ${fault.remedy}` : '')
  return csvOf([
    ['Row', 'File', 'State', 'Frames', 'Seconds', 'In', 'Checks', 'What is wrong'],
    ...rows.map((render) => {
      const { rowName, status, framesTotal, document, rowStart, report, fault } = render
      const { numerator, denominator } = document.rate
      return [
        rowName,
        filesOf(render).join(' + '),
        status,
        String(framesTotal),
        ((framesTotal * denominator) / numerator).toFixed(2),
        rowStart === null ? '' : timecode(rowStart, document.rate),
        report ? (report.passed ? 'all passed' : 'failed') : '',
        said(fault),
      ]
    }),
    ...leftOut.map(({ title, fault }) => [title, '', 'left out', '', '', '', '', `${fault.place}: ${said(fault)}`]),
  ])
}

/** The job as an OpenTimelineIO timeline: every finished file of a placed row on one track, by the first of its files. */
export function batchTimeline(name: string, rows: readonly RenderRow[]): object | null {
  const placed = rows
    .filter(({ rowStart, status }) => rowStart !== null && status === 'done')
    .sort((a, b) => a.rowStart! - b.rowStart!)
  const [first] = placed
  if (!first) return null
  const { rate } = first.document
  return timelineOf({
    ...{ name, rate },
    entries: placed.map((render) => ({
      ...{ name: render.rowName, file: filesOf(render)[0]!, note: '' },
      ...{ start: render.rowStart!, frames: render.framesTotal },
      mediaStart: render.options.timecode ? readTimecode(render.options.timecode, rate) : 0,
    })),
  })
}
