import type { DeliveryFormat } from '../../../core/formats/deliveries/table'
import type { RowLeftOut } from '../../database/schema'

/** A job of many files as the press room lists it. Times are as JSON has them. */
export interface ListedBatch<Time = string> {
  id: string
  cardId: string
  rosterId: string
  cardName: string
  rosterName: string
  /** Rows that were asked for and could not be rendered. */
  leftOut: RowLeftOut[]
  format: DeliveryFormat
  /** Whether all rows are in one file. */
  programme: boolean
  /** Whether rows have their place in a programme. */
  placed: boolean
  /** Files, and how many of them are in which state; the others wait. */
  total: number
  done: number
  failed: number
  cancelled: number
  running: number
  framesTotal: number
  framesDone: number
  bytes: number
  /** Id of one of its renders that has a small picture. */
  small: string | null
  createdAt: Time
  startedAt: string | null
  finishedAt: string | null
}
