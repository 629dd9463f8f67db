// `npm run restore -- FILE`: puts a backup in place of what is there. The whole archive is read and held against its hashes before anything
// is changed; the application must not be running.
import { spawnSync } from 'node:child_process'
import { createWriteStream, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { chdir } from 'node:process'
import { pipeline } from 'node:stream/promises'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { DUMP, eachFile, FILES } from './backup-archive.mjs'
import { databaseFor } from './database-for.mjs'
import { newestPostgres } from './packages.mjs'
import { readSettings } from './settings.mjs'

const from = process.cwd()
chdir(fileURLToPath(new URL('..', import.meta.url)))
const { values: args, positionals } = parseArgs({
  allowPositionals: true,
  options: { replace: { type: 'boolean', default: false } },
})
if (!positionals[0]) fail('Of which backup? npm run restore -- FILE [--replace]')
const archive = resolve(from, positionals[0])
const { values, faults } = readSettings(process.env)
if (faults.length > 0) fail(faults.join('\n'))
const storage = resolve(values.WAX_STORAGE || `${values.WAX_DATA}/storage`)
const bin = newestPostgres()
if (!bin) fail('PostgreSQL’s own programs are needed: install Debian’s package postgresql.')

const incoming = `${storage}.incoming`
const former = `${storage}.former`
let database = null
try {
  rmSync(incoming, { recursive: true, force: true })
  mkdirSync(incoming, { recursive: true })
  const dump = `${incoming}/${DUMP}`
  await eachFile(archive, async (name, stream) => {
    const path = name === DUMP ? dump : placeOf(name)
    if (!path) throw new Error(`${name} has no place in the storage.`)
    mkdirSync(dirname(path), { recursive: true })
    await pipeline(await stream(), createWriteStream(path))
  })
  database = await databaseFor(values, { fresh: true })
  if (database.running) throw new Error('The application is running. Stop it first.')
  const there = psql('-tAc', "select count(*) from information_schema.tables where table_schema = 'public'").trim()
  if (there !== '0' && !args.replace) {
    throw new Error('There are cards already. --replace puts the backup in their place; make a backup of them before.')
  }
  const options = ['--clean', '--if-exists', '--no-owner', '--no-privileges', '--single-transaction', '--exit-on-error']
  run(`${bin}/pg_restore`, [...options, `--dbname=${database.url}`, dump])
  rmSync(dump)
  rmSync(former, { recursive: true, force: true })
  if (existsSync(storage)) renameSync(storage, former)
  renameSync(incoming, storage)
  rmSync(former, { recursive: true, force: true })
  console.log('Restored. At the next start the database is brought to the form of today.')
} catch (error) {
  rmSync(incoming, { recursive: true, force: true })
  await database?.release()
  fail(`Not restored, nothing was changed. ${error.message}`)
}
await database.release()

/** Where a file of the archive goes; null for a name that would leave the storage. */
function placeOf(name) {
  const path = resolve(incoming, name.slice(FILES.length))
  return name.startsWith(FILES) && path.startsWith(`${incoming}/`) ? path : null
}

function psql(...options) {
  return run(`${bin}/psql`, [`--dbname=${database.url}`, ...options])
}

function run(program, options) {
  const { status, stdout, stderr } = spawnSync(program, options, { encoding: 'utf8' })
  if (status !== 0) throw new Error(stderr.trim().split('\n')[0])
  return stdout
}

function fail(words) {
  console.error(words)
  process.exit(1)
}
