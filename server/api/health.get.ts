import { statfs } from 'node:fs/promises'
import { sql } from 'drizzle-orm'
import { version } from '../../package.json'
import { livingWorkers } from '../renders/queue/workers'
import { reserve } from '../renders/space'

/**
 * How the application is. 503 where its database does not answer; `well` is false where it could not go on working: no disk, no worker.
 */
export default route(async () => {
  const database = useDatabase()
  const begun = performance.now()
  await database.execute(sql`select 1`)
  const took = performance.now() - begun
  const workers = await livingWorkers(database)
  const disk = await statfs(useRuntimeConfig().storage).catch(() => null)
  const free = disk ? disk.bavail * disk.bsize : null
  const hasRoom = free === null || free >= reserve()
  return {
    well: hasRoom,
    version,
    database: { milliseconds: Math.round(took * 10) / 10 },
    disk: { free, reserve: reserve(), hasRoom },
    workers: { count: workers.length, lanes: workers.reduce((sum, { lanes }) => sum + lanes, 0) },
  }
})
