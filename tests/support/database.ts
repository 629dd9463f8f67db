import { mkdirSync, rmSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { afterAll, beforeAll } from '@jest/globals'
import { migrate } from 'drizzle-orm/postgres-js/migrator'
import { runMigrations } from 'graphile-worker'
import { connect } from '#server/database/connect'
import { startCluster } from '../../scripts/cluster.mjs'
import { coat, emptyCard, solid, withBox } from './engine'

type Connection = ReturnType<typeof connect>

/**
 * A database of its own for a file of tests, up to date, and a folder beside it; both are gone afterwards. The connection is there when
 * the first test begins.
 */
export function ownDatabase(name: string): { folder: string; connection: Connection; url: string } {
  // PostgreSQL's own user must reach it: below the project, as for the application, and not in a copy that only we may enter.
  const folder = resolve(process.env['WAX_TESTS_BELOW'] ?? '.wax', `${name}-${process.pid}`)
  mkdirSync(folder, { recursive: true })
  const own = { folder, connection: null as unknown as Connection, url: '' }
  let cluster: Awaited<ReturnType<typeof startCluster>>
  beforeAll(async () => {
    cluster = await startCluster(join(folder, 'database'))
    own.connection = connect(cluster.url)
    own.url = cluster.url
    await migrate(own.connection.database, { migrationsFolder: 'server/database/migrations' })
    await runMigrations({ connectionString: cluster.url })
  })
  afterAll(async () => {
    await own.connection.client.end()
    cluster.stop()
    rmSync(folder, { recursive: true, force: true })
  })
  return own
}

/** A card of 40 frames that is soon rendered: a box that goes across it. */
export const movingBox = () =>
  withBox(
    { ...emptyCard(320, 180, 40), name: 'Two workers' },
    {
      x: {
        keys: [
          { frame: 0, value: 40 },
          { frame: 39, value: 280 },
        ],
      } as never,
      y: 90,
      width: 60,
      height: 40,
    },
    { face: [coat('fill', 'f', { paint: solid('#F2A33C') })] },
  )
