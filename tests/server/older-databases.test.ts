import { cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { asc, eq, sql } from 'drizzle-orm'
import { migrate } from 'drizzle-orm/postgres-js/migrator'
import { runMigrations } from 'graphile-worker'
import { expectCard } from '#core/card/read'
import { connect } from '#server/database/connect'
import type { Database } from '#server/database/connect'
import { bringUpToDate } from '#server/database/up-to-date'
import { storedSeal } from '#core/seals/read'
import { cards, fonts, pictures, renders, seals, sequences, versions } from '#server/database/schema'
import { pictureFile } from '#server/pictures/files'
import { ownDatabase } from '../support/database'

// Databases as every version of the application left them: its own migrations up to then, and rows as it wrote them. Each is
// brought up to date as a start of today does, and has all that it had.

interface Journal {
  entries: { idx: number; tag: string }[]
}
const MIGRATIONS = 'server/database/migrations'
const journal = JSON.parse(readFileSync(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as Journal
const tags = journal.entries.map(({ tag }) => tag)
const at = (name: string) => tags.findIndex((tag) => tag.endsWith(name))

const stored = (file: string) => JSON.parse(readFileSync(`tests/reference/versions/${file}`, 'utf8')) as object
const oldCard = stored('card-1.card.json')
const card2 = stored('card-2.card.json')
const [oldSeal] = (stored('seals-1.seals.json') as { seals: object[] }).seals

const own = ownDatabase('older-databases')
const folder = () => own.folder
const storage = () => join(own.folder, 'storage')
const opened: ReturnType<typeof connect>[] = []
afterAll(async () => {
  for (const { client } of opened) await client.end()
})

/** The migrations that a version had, in a folder of their own. */
function migrationsUpTo(last: number): string {
  const path = join(folder(), `migrations-${last}`)
  cpSync(MIGRATIONS, path, { recursive: true })
  const entries = journal.entries.slice(0, last + 1)
  writeFileSync(join(path, 'meta/_journal.json'), JSON.stringify({ ...journal, entries }))
  return path
}

/** Rows as that version wrote them: columns that came later are not named. */
async function fill(database: Database, version: number): Promise<void> {
  const json = (value: object) => sql`${JSON.stringify(value)}::jsonb`
  await database.execute(sql`insert into cards (id, name, document, revision) values
    ('first', 'First', ${json(oldCard)}, 7), ('second', 'Second', ${json(card2)}, 1)`)
  await database.execute(sql`insert into fonts (id, family, style, file_name, sfnt) values
    ('own-0123456789abcdef', 'Own', 'Bold', 'own.ttf', ${Buffer.from('a font')})`)
  const options = { format: 'png', from: 0, to: 10, bits: 8 }
  await database.execute(sql`insert into renders (id, card_id, name, document, options, status, frames_total, frames_done)
    values ('done', 'first', 'Done', ${json(oldCard)}, ${json(options)}, 'done', 10, 10),
      ('failed', 'first', 'Failed', ${json(oldCard)}, ${json(options)}, 'failed', 10, 3)`)
  if (version >= at('pictures')) {
    await database.execute(sql`insert into pictures (id, file_name, width, height, file) values
      ('picture-0123456789abcdef', 'boat.png', 4, 3, ${Buffer.from('a picture')})`)
  }
  if (version >= at('seals_versions')) {
    await database.execute(sql`insert into seals (id, name, document) values ('seal', 'Ember', ${json(oldSeal!)})`)
    await database.execute(sql`insert into versions (id, card_id, revision, name, document) values
      ('v', 'first', 3, 'Before', ${json(oldCard)})`)
  }
  if (version >= at('sequences')) {
    await database.execute(sql`insert into sequences (id, file_name, width, height, frames) values
      ('sequence-0123456789abcdef', 'ink.zip', 4, 3, 12)`)
  }
}

describe.each(tags.map((tag, version) => [tag, version] as const))('a database of %s', (_, version) => {
  let database: Database
  beforeAll(async () => {
    const name = `older_${version}`
    await own.connection.database.execute(sql.raw(`create database ${name}`))
    const url = new URL(own.url)
    url.pathname = `/${name}`
    const connection = connect(url.href)
    opened.push(connection)
    database = connection.database
    const before = migrationsUpTo(version)
    await migrate(database, { migrationsFolder: before })
    await fill(database, version)
    rmSync(storage(), { recursive: true, force: true })
    mkdirSync(storage(), { recursive: true })
    // As a start does it; the second time nothing is left to do.
    for (let start = 0; start < 2; start++) {
      await migrate(database, { migrationsFolder: MIGRATIONS })
      await runMigrations({ connectionString: url.href })
      await bringUpToDate(database, storage())
    }
  }, 60_000)

  test('has its cards, in the form of today, with their revisions', async () => {
    const rows = await database.select().from(cards).orderBy(asc(cards.id))
    expect(rows.map(({ id, revision }) => [id, revision])).toEqual([
      ['first', 7],
      ['second', 1],
    ])
    expect(rows.map(({ document }) => document)).toEqual([expectCard(oldCard), expectCard(card2)])
    expect(rows[0]!.recentSaves).toEqual([])
  })

  test('has its fonts, pictures, seals, versions and sequences', async () => {
    const [font] = await database.select().from(fonts)
    expect(Buffer.from(font!.sfnt).toString()).toBe('a font')
    if (version >= at('pictures')) {
      const file = await pictureFile(storage(), 'picture-0123456789abcdef')
      expect(Buffer.from(file!).toString()).toBe('a picture')
    }
    expect(await database.$count(pictures)).toBe(version >= at('pictures') ? 1 : 0)
    const shelf = await database.select().from(seals)
    expect(shelf.map(({ document }) => document)).toEqual(
      version >= at('seals_versions') ? [storedSeal({ ...oldSeal })] : [],
    )
    const kept = await database.select().from(versions)
    expect(kept.map(({ document }) => document)).toEqual(version >= at('seals_versions') ? [expectCard(oldCard)] : [])
    expect(await database.$count(sequences)).toBe(version >= at('sequences') ? 1 : 0)
  })

  test('has its renders; what was done is offered as it was', async () => {
    const [done] = await database.select().from(renders).where(eq(renders.id, 'done'))
    const [failed] = await database.select().from(renders).where(eq(renders.id, 'failed'))
    expect([done!.status, done!.framesDone, failed!.status]).toEqual(['done', 10, 'failed'])
    expect([done!.batchId, done!.rowName, done!.priority, done!.take]).toEqual([null, '', 1, 1])
    if (version < at('deliveries')) {
      expect(done!.files).toEqual([{ name: 'done', stored: 'done.zip', bytes: 0, mediaType: 'application/zip' }])
      expect(done!.options).toMatchObject({ format: 'png', holds: 1, scale: 1, name: '{card}', bits: 8 })
    }
  })
})
