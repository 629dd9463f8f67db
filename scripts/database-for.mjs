// The database that the settings name, for programs beside the application: one that runs is used, a private cluster that rests is started.
import { existsSync, readFileSync } from 'node:fs'
import { connectable, startCluster } from './cluster.mjs'

/** Gives its address and `release`, which stops what was started for it. */
export async function databaseFor(values, { fresh = false } = {}) {
  if (values.DATABASE_URL) return { url: values.DATABASE_URL, release: async () => {} }
  const folder = `${values.WAX_DATA}/database`
  if (!fresh && !existsSync(`${folder}/data/PG_VERSION`)) throw new Error(`There is no database in ${values.WAX_DATA}.`)
  // A running application tells its port beside its files.
  const known = existsSync(`${folder}/url`) ? readFileSync(`${folder}/url`, 'utf8').trim() : ''
  if (known && (await connectable(known))) return { url: known, release: async () => {}, running: true }
  const cluster = await startCluster(folder)
  return { url: cluster.url, release: async () => cluster.stop() }
}
