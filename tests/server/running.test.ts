import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, describe, expect, test } from '@jest/globals'
import { eq, sql } from 'drizzle-orm'
import { migrate } from 'drizzle-orm/postgres-js/migrator'
import { connect } from '#server/database/connect'
import { cards, pictures, tokens } from '#server/database/schema'
import { setToken } from '#server/database/set-token'
import { plainError } from '#server/rim/log'
import { sizeAllowed } from '#server/rim/sizes'
import { startCluster } from '../../scripts/cluster.mjs'
import { readSettings, SETTINGS } from '../../scripts/settings.mjs'
import { movingBox } from '../support/database'

// What it takes to run it for real: settings, backup and restore, what is told in logs.

describe('settings', () => {
  test('without any there are defaults; what is wrong is named with what it should be', () => {
    const { values, faults } = readSettings({})
    expect(faults).toEqual([])
    expect(values).toMatchObject({ PORT: 3000, HOST: '127.0.0.1', WAX_DATA: '.wax/data', WAX_RENDER_THREADS: null })
    const wrong = {
      ...{ PORT: '70000', WAX_ALLOWED_HOSTS: 'https://wax.example', WAX_TOKEN: 'short', DATABASE_URL: 'localhost/wax' },
      ...{ WAX_RENDER_THREADS: 'many', WAX_LOG: 'loud', WAX_MOST_PICTURE: '0' },
    }
    expect(readSettings(wrong).faults.map((fault) => fault.split(':')[0])).toEqual(
      SETTINGS.map(({ name }) => name).filter((name) => name in wrong),
    )
  })

  test('npm start tells what is wrong and starts nothing', () => {
    const { status, stderr } = spawnSync(process.execPath, ['scripts/start.mjs'], {
      ...{ encoding: 'utf8', env: { ...process.env, PORT: 'http' } },
    })
    expect(status).toBe(2)
    expect(stderr).toMatch(/^PORT: “http” is no whole number from 1 to 65535\. Port of the web server/)
  })

  test('sizes are those of the settings, and told where they are exceeded', () => {
    expect(sizeAllowed('picture', 60 * 1024 * 1024, 'boat.png').most).toBe(60 * 1024 * 1024)
    process.env.WAX_MOST_PICTURE = '5'
    const { most, fault } = sizeAllowed('picture', 60 * 1024 * 1024, 'boat.png')
    delete process.env.WAX_MOST_PICTURE
    expect([most, fault.remedy]).toEqual([5 * 1024 * 1024, 'Pictures may have up to 5 MB.'])
  })
})

test('logs hold no values that people wrote', () => {
  const error = new Error('Failed query: insert into cards\nparams: Odile Marsh', {
    cause: Object.assign(new Error('duplicate key\nDetail: (Odile Marsh)'), { code: '23505' }),
  })
  const told = JSON.stringify(plainError(error))
  expect(told).toMatch(/insert into cards/)
  expect(told).toMatch(/23505/)
  expect(told).not.toMatch(/Odile/)
})

describe('backup and restore', () => {
  const folder = resolve(`.wax/backup-${process.pid}`)
  mkdirSync(folder, { recursive: true })
  afterAll(() => rmSync(folder, { recursive: true, force: true }))
  const archive = join(folder, 'all.zip')
  const run = (script: string, data: string, ...args: string[]) => {
    const env = { ...process.env, WAX_DATA: join(folder, data), DATABASE_URL: '', WAX_STORAGE: '' }
    const { status, stdout, stderr } = spawnSync(process.execPath, [`scripts/${script}.mjs`, ...args], {
      ...{ encoding: 'utf8', env },
    })
    return { status, said: `${stdout}${stderr}` }
  }
  const place = (data: string) => join(folder, data, 'storage/pictures/boat')
  const boat = { id: 'boat', fileName: 'boat.png', width: 4, height: 4 }
  /** A cluster with a card, and a file beside it. */
  async function inUse<T>(data: string, work: (database: ReturnType<typeof connect>['database']) => Promise<T>) {
    const cluster = await startCluster(join(folder, data, 'database'))
    const { database, client } = connect(cluster.url)
    try {
      await migrate(database, { migrationsFolder: 'server/database/migrations' })
      return await work(database)
    } finally {
      await client.end()
      cluster.stop()
    }
  }

  test('what was backed up while it was in use is there again, to the byte; a damaged archive changes nothing', async () => {
    const document = movingBox()
    await inUse('first', async (database) => {
      await database.insert(cards).values({ id: 'one', name: 'Boat', document })
      await database.insert(pictures).values(boat)
      // What nobody names: halves of what is being written, pictures of a sequence that are made again.
      mkdirSync(join(folder, 'first/storage/renders'), { recursive: true })
      writeFileSync(join(folder, 'first/storage/renders/x.1.file.part.mov'), 'half')
      mkdirSync(join(place('first'), '..'), { recursive: true })
      writeFileSync(place('first'), 'not looked into')
      const { status, said } = run('backup', 'first', '--out', archive)
      expect([status, said]).toEqual([0, expect.stringMatching(/^2 files, .*read again and whole/)])
      // Not over those who work.
      expect(run('restore', 'first', archive, '--replace').said).toMatch(/is running\. Stop it first/)
      await setToken(database, 'a'.repeat(24))
      await setToken(database, '')
      expect(await database.select().from(tokens)).toEqual([])
    })

    expect(run('restore', 'second', archive)).toMatchObject({ status: 0 })
    expect(readFileSync(place('second'), 'utf8')).toBe('not looked into')
    await inUse('second', async (database) => {
      const [row] = await database.select().from(cards).where(eq(cards.id, 'one'))
      expect(row!.document).toEqual(document)
    })
    expect(run('restore', 'second', archive).said).toMatch(/There are cards already/)

    const bytes = readFileSync(archive)
    const at = bytes.indexOf('not looked into')
    bytes.write('was', at)
    writeFileSync(join(folder, 'damaged.zip'), bytes)
    const { status, said } = run('restore', 'second', join(folder, 'damaged.zip'), '--replace')
    expect([status, said]).toEqual([1, expect.stringMatching(/nothing was changed.*damaged|crc/i)])
    expect(readFileSync(place('second'), 'utf8')).toBe('not looked into')
    expect(run('restore', 'second', archive, '--replace')).toMatchObject({ status: 0 })
    expect(readdirSync(join(folder, 'second/storage'))).toEqual(['pictures'])
    // Nothing of a backup that failed stays, nor beside one that was made.
    expect(readdirSync(tmpdir()).filter((name) => /^wax-(backup|restore)-/.test(name))).toEqual([])
    expect(run('backup', 'nowhere', '--out', archive).said).toMatch(/There is no database/)
  }, 120_000)

  test('all or nothing: where the database takes it not, files are what they were; not while somebody is connected', async () => {
    await inUse('third', async (database) => {
      await database.insert(cards).values({ id: 'two', name: 'Ours', document: movingBox() })
    })
    mkdirSync(join(place('third'), '..'), { recursive: true })
    writeFileSync(place('third'), 'ours')
    // Something that the dump cannot be put over: a view that leans on a table which has to go.
    await inUse('third', (database) => database.execute(sql`create view leaning as select id from cards`))
    const { status, said } = run('restore', 'third', archive, '--replace')
    expect([status, said]).toEqual([1, expect.stringContaining('nothing was changed')])
    expect(readFileSync(place('third'), 'utf8')).toBe('ours')
    expect(readdirSync(join(folder, 'third/storage'))).toEqual(['pictures'])
    await inUse('third', async (database) => {
      expect((await database.select({ id: cards.id }).from(cards)).map(({ id }) => id)).toEqual(['two'])
      await database.execute(sql`drop view leaning`)
      // By its address, as where the database is somebody else's.
      const url = readFileSync(join(folder, 'third/database/url'), 'utf8').trim()
      const env = { ...process.env, WAX_DATA: join(folder, 'third'), DATABASE_URL: url, WAX_STORAGE: '' }
      const refused = spawnSync(process.execPath, ['scripts/restore.mjs', archive, '--replace'], {
        encoding: 'utf8',
        env,
      })
      expect([refused.status, refused.stderr]).toEqual([
        1,
        expect.stringMatching(/nothing was changed. Somebody is connected/),
      ])
    })
    expect(readFileSync(place('third'), 'utf8')).toBe('ours')
    // Killed between files and database: the next one puts it right before anything else.
    const former = join(folder, 'third/storage/.former-restore')
    mkdirSync(former)
    renameSync(join(folder, 'third/storage/pictures'), join(former, 'pictures'))
    writeFileSync(join(folder, 'damaged-too.zip'), 'no archive')
    expect(run('restore', 'third', join(folder, 'damaged-too.zip'), '--replace').status).toBe(1)
    expect(readFileSync(place('third'), 'utf8')).toBe('ours')
  }, 120_000)
})
