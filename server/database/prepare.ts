import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { count } from 'drizzle-orm'
import { migrate } from 'drizzle-orm/postgres-js/migrator'
import { runMigrations } from 'graphile-worker'
import { expectCard } from '../../core/card/read'
import { expectRoster } from '../../core/rosters/roster'
import { readSealsText } from '../../core/seals/read'
import { connect } from './connect'
import { sweepIncoming, takeInPath } from '../sequences/store'
import { cards, rosters, seals, sequences } from './schema'
import { setToken } from './set-token'
import { bringUpToDate } from './up-to-date'

// Brings the database up to date and, where the shelf has never had a card, lays the demo cards on it with the sequences that
// they show, and the shipped seals beside them.

/** Rosters of the demo, each with the card that it is filled into first. */
const DEMO_ROSTERS = [
  ['crews', '29-strip-that-grows'],
  ['evening', '30-bar-of-fixed-width'],
] as const

const url = process.env.NUXT_DATABASE_URL
if (!url) throw new Error('NUXT_DATABASE_URL names no database.')

const { database, client } = connect(url)
await migrate(database, { migrationsFolder: 'server/database/migrations' })
await runMigrations({ connectionString: url })
const storage = process.env.NUXT_STORAGE ?? '.wax/storage'
await bringUpToDate(database, storage)
await sweepIncoming(storage)
await setToken(database, process.env.WAX_TOKEN ?? '')
// `npm start` lays no demo cards: the shelf is that of its users.
const wantsDemo = process.env.WAX_DEMO !== 'no'
const [known] = await database.select({ cards: count() }).from(cards)
const isFirst = wantsDemo && known?.cards === 0
if (isFirst) {
  const files = (await readdir('demo/cards')).filter((file) => file.endsWith('.card.json')).sort()
  for (const [i, file] of files.entries()) {
    const document = expectCard(JSON.parse(await readFile(join('demo/cards', file), 'utf8')))
    const id = `demo-${file.replace('.card.json', '')}`
    // Cards are listed last touched first: the first file is to stand first.
    const updatedAt = new Date(Date.now() - i * 1000)
    await database.insert(cards).values({ id, name: document.name, document, updatedAt })
  }
}
if (isFirst) {
  for (const file of await readdir('demo/sequences')) {
    const about = await takeInPath(storage, join('demo/sequences', file))
    const { id, fileName, width, height, frames } = about
    await database.insert(sequences).values({ id, fileName, width, height, frames }).onConflictDoNothing()
  }
}
if (isFirst) {
  for (const [file, card] of DEMO_ROSTERS) {
    const document = expectRoster(JSON.parse(await readFile(`demo/rosters/${file}.roster.json`, 'utf8')))
    await database.insert(rosters).values({ id: `demo-${file}`, name: document.name, document, cardId: `demo-${card}` })
  }
}
const [sealed] = await database.select({ seals: count() }).from(seals)
if (sealed?.seals === 0) {
  for (const file of (await readdir('demo/seals')).filter((name) => name.endsWith('.seals.json')).sort()) {
    const { document, faults } = readSealsText(await readFile(join('demo/seals', file), 'utf8'))
    if (!document) throw new Error(`demo/seals/${file}: ${faults[0]!.place}: ${faults[0]!.message}`)
    for (const seal of document.seals) {
      const id = `demo-${seal.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}`
      await database.insert(seals).values({ id, name: seal.name, document: seal })
    }
  }
}
await client.end()
