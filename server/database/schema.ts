import { boolean, customType, index, integer, jsonb, pgTable, primaryKey, text, timestamp } from 'drizzle-orm/pg-core'
import { readCard } from '../../core/card/read'
import type { Card } from '../../core/card/schema'
import { storedSeal } from '../../core/seals/read'
import type { Seal } from '../../core/seals/schema'
import { SEALS_VERSION } from '../../core/seals/schema'
import type { Fault } from '../../core/errors'
import type { RenderOptions } from '../../core/formats/deliveries/render-options'
import type { ProgrammeRun } from '../../core/rosters/run'
import type { Roster } from '../../core/rosters/roster'
import type { RenderReport } from '../renders/report'

const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
/**
 * A card in the form of today: what an older application saved gets the values that have come since. One that cannot
 * be read any more is handed on as it is, so that its fault is named where it is opened.
 */
const cardDocument = customType<{ data: Card; driverData: string }>({
  dataType: () => 'jsonb',
  toDriver: (card) => JSON.stringify(card),
  fromDriver(stored) {
    const value: unknown = typeof stored === 'string' ? JSON.parse(stored) : stored
    return readCard(value).card ?? (value as Card)
  },
})
/**
 * A seal, with the version of its form beside it; those that say none are of the first. One that cannot be read any more is handed on
 * as it is.
 */
const sealDocument = customType<{ data: Seal; driverData: string }>({
  dataType: () => 'jsonb',
  toDriver: (seal) => JSON.stringify({ ...seal, version: SEALS_VERSION }),
  fromDriver(stored) {
    const value = (typeof stored === 'string' ? JSON.parse(stored) : stored) as Record<string, unknown>
    return storedSeal(value) ?? (value as unknown as Seal)
  },
})
const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' })

export interface RecentSave {
  save: string
  revision: number
}

/** Cards on the shelf. A deleted card stays until the undo of its deletion is no longer offered. */
export const cards = pgTable('cards', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  document: cardDocument('document').notNull(),
  /** Grows by one with every save; a save names the revision it was made from. */
  revision: integer('revision').notNull().default(1),
  /** The last saves by the ids that windows gave them: one whose answer was lost is known when it comes again. */
  recentSaves: jsonb('recent_saves').$type<RecentSave[]>().notNull().default([]),
  createdAt: moment('created_at').notNull().defaultNow(),
  updatedAt: moment('updated_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
})

/** Versions of cards, as they were when a bench rested or when somebody named one. */
export const versions = pgTable(
  'versions',
  {
    id: text('id').primaryKey(),
    cardId: text('card_id').notNull(),
    /** The revision of the card that this is. */
    revision: integer('revision').notNull(),
    /** Given by hand; null for those that were kept by themselves. */
    name: text('name'),
    document: cardDocument('document').notNull(),
    createdAt: moment('created_at').notNull().defaultNow(),
  },
  (table) => [index('versions_card').on(table.cardId, table.createdAt)],
)

/** Seals: stacks of coats that can be pressed on pieces. */
export const seals = pgTable('seals', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  document: sealDocument('document').notNull(),
  revision: integer('revision').notNull().default(1),
  createdAt: moment('created_at').notNull().defaultNow(),
  updatedAt: moment('updated_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
})

/** Rosters: tables of rows that fill the fields of cards. */
export const rosters = pgTable('rosters', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  document: jsonb('document').$type<Roster>().notNull(),
  /** The card that it was filled into last; null where it has none, or that one is gone. */
  cardId: text('card_id'),
  revision: integer('revision').notNull().default(1),
  /** As of cards. */
  recentSaves: jsonb('recent_saves').$type<RecentSave[]>().notNull().default([]),
  createdAt: moment('created_at').notNull().defaultNow(),
  updatedAt: moment('updated_at').notNull().defaultNow(),
  deletedAt: moment('deleted_at'),
})

/** Fonts that people brought, as sfnt. The id is made from the contents. */
export const fonts = pgTable('fonts', {
  id: text('id').primaryKey(),
  family: text('family').notNull(),
  style: text('style').notNull(),
  fileName: text('file_name').notNull(),
  sfnt: bytes('sfnt').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
})

/** Pictures that people brought. Their files lie in the storage by their ids; see server/pictures/files.ts. */
export const pictures = pgTable('pictures', {
  id: text('id').primaryKey(),
  fileName: text('file_name').notNull(),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  /** Of pictures that an older application took: it is moved to the storage at the start. */
  file: bytes('file'),
  createdAt: moment('created_at').notNull().defaultNow(),
})

/** Sequences that people brought. They lie in the storage by their ids; see server/sequences/store.ts. */
export const sequences = pgTable('sequences', {
  id: text('id').primaryKey(),
  fileName: text('file_name').notNull(),
  width: integer('width').notNull(),
  height: integer('height').notNull(),
  frames: integer('frames').notNull(),
  createdAt: moment('created_at').notNull().defaultNow(),
})

/** A finished file of a render. */
export interface StoredFile {
  /** The name that people see. */
  name: string
  /** The name in the storage: that of the attempt that made it. */
  stored: string
  bytes: number
  mediaType: string
}

export type RenderStatus = 'queued' | 'running' | 'checking' | 'done' | 'failed' | 'cancelled'

/** A row that was asked for and cannot be rendered, and why. */
export interface RowLeftOut {
  row: string
  title: string
  fault: Fault
}

/** A roster rendered as one job of many files: each is a render of its own. */
export const batches = pgTable('batches', {
  id: text('id').primaryKey(),
  cardId: text('card_id').notNull(),
  rosterId: text('roster_id').notNull(),
  /** The names of the card and of the roster, as they were. */
  cardName: text('card_name').notNull(),
  rosterName: text('roster_name').notNull(),
  leftOut: jsonb('left_out').$type<RowLeftOut[]>().notNull().default([]),
  createdAt: moment('created_at').notNull().defaultNow(),
})

/**
 * Renders with the card as it was when they were asked for. Their frames are made in runs; one worker, the presser, puts them
 * together, and `worker`, `heartbeat` and `attempts` are about that.
 */
export const renders = pgTable(
  'renders',
  {
    id: text('id').primaryKey(),
    cardId: text('card_id').notNull(),
    name: text('name').notNull(),
    document: cardDocument('document').notNull(),
    options: jsonb('options').$type<RenderOptions>().notNull(),
    /** The job of many files that it belongs to; null for a render of its own. */
    batchId: text('batch_id').references(() => batches.id, { onDelete: 'cascade' }),
    /** The row that fills the card, and what its files are called after; empty without one. */
    rowId: text('row_id').notNull().default(''),
    rowName: text('row_name').notNull().default(''),
    /** Where the row stands in a programme, in frames of its clock; null where it has no place. */
    rowStart: integer('row_start'),
    /** Rows of a roster, each at its place in time, in one file; null for the card as it is. */
    programme: jsonb('programme').$type<ProgrammeRun>(),
    status: text('status').$type<RenderStatus>().notNull().default('queued'),
    framesTotal: integer('frames_total').notNull(),
    framesDone: integer('frames_done').notNull().default(0),
    attempts: integer('attempts').notNull().default(0),
    /** Those with a lower number come first: see server/renders/queue/priority.ts. */
    priority: integer('priority').notNull().default(1),
    /** The queue's name of the worker that presses it, and when that worker last said that it lives. */
    worker: text('worker'),
    heartbeat: moment('heartbeat'),
    fault: jsonb('fault').$type<Fault>(),
    report: jsonb('report').$type<RenderReport>(),
    /** Its finished files in the order of the delivery's table; empty until they are checked. */
    files: jsonb('files').$type<StoredFile[]>().notNull().default([]),
    /** The sidecar's name in the storage. */
    sidecar: text('sidecar'),
    /** The how manieth render of its card it is. */
    take: integer('take').notNull().default(1),
    /** The revision of the card that it shows; null where that was not kept. */
    revision: integer('revision'),
    /** The name of a small moving picture of it in the storage. */
    small: text('small'),
    /** Whether its files stay for good: others are cleaned away some time. */
    kept: boolean('kept').notNull().default(false),
    createdAt: moment('created_at').notNull().defaultNow(),
    startedAt: moment('started_at'),
    finishedAt: moment('finished_at'),
  },
  (table) => [index('renders_batch').on(table.batchId)],
)

export type RunState = 'waiting' | 'running' | 'done'

/** Runs of frames that a render is cut into: each is made by one worker at one go. */
export const renderRuns = pgTable(
  'render_runs',
  {
    renderId: text('render_id')
      .notNull()
      .references(() => renders.id, { onDelete: 'cascade' }),
    /** The how manieth of its render. */
    index: integer('index').notNull(),
    frames: integer('frames').notNull(),
    state: text('state').$type<RunState>().notNull().default('waiting'),
    /** Who has it, or had it last; the how manieth that is; and when that one last said that it lives. */
    worker: text('worker'),
    attempts: integer('attempts').notNull().default(0),
    heartbeat: moment('heartbeat'),
    /** Frames that are made. */
    framesDone: integer('frames_done').notNull().default(0),
    /** The name of its segment in the storage, once it is whole. */
    segment: text('segment'),
  },
  (table) => [
    primaryKey({ columns: [table.renderId, table.index] }),
    index('render_runs_state').on(table.state, table.renderId, table.index),
  ],
)

/** How many frames were handed out of each card that is in work: whose number is lower, is served first. */
export const cardTurns = pgTable('card_turns', {
  cardId: text('card_id').primaryKey(),
  served: integer('served').notNull(),
})

/** Workers that have been heard of lately. */
export const workers = pgTable('workers', {
  id: text('id').primaryKey(),
  /** What people know it by: the name of its machine. */
  name: text('name').notNull(),
  /** Whether it has the storage before it, or comes by the network. */
  place: text('place').$type<'here' | 'elsewhere'>().notNull(),
  lanes: integer('lanes').notNull(),
  seenAt: moment('seen_at').notNull().defaultNow(),
})

/** What lets programs in. The token itself is shown once and kept nowhere. */
export const tokens = pgTable('tokens', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  /** SHA-256 of the token, in hex. */
  hash: text('hash').notNull().unique(),
  createdAt: moment('created_at').notNull().defaultNow(),
  usedAt: moment('used_at'),
})
