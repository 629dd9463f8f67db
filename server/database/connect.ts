import { drizzle } from 'drizzle-orm/postgres-js'
import postgres from 'postgres'
import * as schema from './schema'

/** A pool of connections; it connects when first used and again after the database was away. */
export function connect(url: string) {
  const client = postgres(url, { max: 8, connect_timeout: 5, onnotice: () => {} })
  return { database: drizzle(client, { schema }), client }
}

export type Database = ReturnType<typeof connect>['database']
