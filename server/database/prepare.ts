import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { count } from 'drizzle-orm'
import { migrate } from 'drizzle-orm/postgres-js/migrator'
import { runMigrations } from 'graphile-worker'
import { expectCard } from '../../core/card/read'
import { connect } from './connect'
import { cards } from './schema'

// Brings the database up to date and, where the shelf has never had a card, lays the demo cards on it.

const url = process.env.NUXT_DATABASE_URL
if (!url) throw new Error('NUXT_DATABASE_URL names no database.')

const { database, client } = connect(url)
await migrate(database, { migrationsFolder: 'server/database/migrations' })
await runMigrations({ connectionString: url })
const [known] = await database.select({ cards: count() }).from(cards)
if (known?.cards === 0) {
  const files = (await readdir('demo/cards')).filter((file) => file.endsWith('.card.json')).sort()
  for (const [i, file] of files.entries()) {
    const document = expectCard(JSON.parse(await readFile(join('demo/cards', file), 'utf8')))
    const id = `demo-${file.replace('.card.json', '')}`
    // Cards are listed last touched first: the first file is to stand first.
    const updatedAt = new Date(Date.now() - i * 1000)
    await database.insert(cards).values({ id, name: document.name, document, updatedAt })
  }
}
await client.end()
