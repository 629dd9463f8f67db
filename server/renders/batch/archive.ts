import { join } from 'node:path'
import type { Readable } from 'node:stream'
import { ZipFile } from 'yazl'
import { fileStem } from '../../../core/formats/file-stem'
import type { renders, RowLeftOut } from '../../database/schema'
import { batchReport, batchTimeline } from './report'

export interface BatchFiles {
  name: string
  rows: readonly (typeof renders.$inferSelect)[]
  leftOut: readonly RowLeftOut[]
  /** Where files of renders lie. */
  place: string
}

/** A ZIP as it is written: nothing in it is packed again, moving pictures are packed already. */
export function batchArchive({ name, rows, leftOut, place }: BatchFiles): Readable {
  const zip = new ZipFile()
  const out = zip.outputStream as Readable
  // A file that is cleaned away meanwhile ends the download, and nothing else.
  zip.on('error', (error: Error) => out.destroy(error))
  for (const { status, files } of rows) {
    if (status !== 'done') continue
    for (const file of files) zip.addFile(join(place, file.stored), file.name, { compress: false })
  }
  const stem = fileStem(name)
  zip.addBuffer(Buffer.from(batchReport(rows, leftOut)), `${stem}-report.csv`)
  const timeline = batchTimeline(name, rows)
  if (timeline) zip.addBuffer(Buffer.from(JSON.stringify(timeline, null, 1)), `${stem}.otio`)
  zip.end()
  return out
}
