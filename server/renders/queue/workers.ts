import { hostname } from 'node:os'
import { gt, lt, sql } from 'drizzle-orm'
import type { Database } from '../../database/connect'
import { workers } from '../../database/schema'

export type KnownWorker = Omit<typeof workers.$inferInsert, 'seenAt'>

/** Notes that a worker lives. */
export async function seeWorker(database: Database, worker: KnownWorker): Promise<void> {
  const { name, place, lanes } = worker
  await database
    .insert(workers)
    .values(worker)
    .onConflictDoUpdate({ target: workers.id, set: { name, place, lanes, seenAt: sql`now()` } })
}

/** Those that have been heard of within the last ten seconds. */
export const livingWorkers = (database: Database) =>
  database
    .select({ id: workers.id, name: workers.name, place: workers.place, lanes: workers.lanes })
    .from(workers)
    .where(gt(workers.seenAt, sql`now() - interval '10 seconds'`))
    .orderBy(workers.place, workers.name, workers.id)

/** Forgets those that have not been heard of for an hour. */
export async function forgetWorkers(database: Database): Promise<void> {
  await database.delete(workers).where(lt(workers.seenAt, sql`now() - interval '1 hour'`))
}

/** What a worker of this machine calls itself. */
export const machineName = (): string => hostname().slice(0, 60) || 'worker'
