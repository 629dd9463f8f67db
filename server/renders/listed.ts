import type { Fault } from '../../core/errors'
import type { RenderOptions } from '../../core/formats/deliveries/render-options'
import type { Rate } from '../../core/values/rate'
import type { RenderStatus, StoredFile } from '../database/schema'
import type { RenderReport } from './report'

/** What of a report is in lists: all but the single checks. */
export type ShortReport = Omit<RenderReport, 'checks'>

/** A render as the press room lists it: everything but its document and the single checks. Times are as JSON has them. */
export interface ListedRender<Time = string> {
  id: string
  cardId: string
  name: string
  /** The job of many files that it belongs to, and the row that fills its card; null and empty for a render of its own. */
  batchId: string | null
  rowId: string
  rowName: string
  options: RenderOptions
  status: RenderStatus
  /** Those with a lower number come first. */
  priority: number
  /** Of the card, not of the file. */
  frame: { width: number; height: number }
  rate: Rate
  framesTotal: number
  /** Made; then, when all runs are done, written into the file; then compared. */
  framesDone: number
  attempts: number
  fault: Fault | null
  report: ShortReport | null
  files: StoredFile[]
  take: number
  revision: number | null
  /** Whether there is a small picture of it. */
  small: boolean
  kept: boolean
  /** Of a render whose frames are being made. */
  runs: { total: number; done: number; running: number } | null
  /** Names of the machines that are at it. */
  workers: string[]
  createdAt: Time
  startedAt: Time | null
  finishedAt: Time | null
}
