// `npm run restore -- FILE`: puts a backup in place of what is there: all of it, or nothing. The whole archive is read, held against its hashes
// and laid beside before anything is changed; files are exchanged, then the database in one transaction, and files come back where that
// fails. Nobody may be connected to the database meanwhile.
import { spawnSync } from 'node:child_process'
import { createWriteStream, mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { chdir } from 'node:process'
import { pipeline } from 'node:stream/promises'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { DUMP, eachFile, FILES } from './backup-archive.mjs'
import { databaseFor } from './database-for.mjs'
import { newestPostgres } from './packages.mjs'
import { readSettings } from './settings.mjs'
import { beginExchange, endExchange, exchange, putBack } from './storage-exchange.mjs'

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

const work = mkdtempSync(join(tmpdir(), 'wax-restore-'))
const dump = join(work, DUMP)
let incoming = ''
let database = null
try {
  incoming = beginExchange(storage)
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
  const others = 'select count(*) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()'
  if (psql('-tAc', others).trim() !== '0')
    throw new Error('Somebody is connected to the database: stop the application and its workers first.')
  exchange(storage)
  const options = ['--clean', '--if-exists', '--no-owner', '--no-privileges', '--single-transaction', '--exit-on-error']
  run(`${bin}/pg_restore`, [...options, `--dbname=${database.url}`, dump])
  endExchange(storage)
  console.log('Restored. At the next start the database is brought to the form of today.')
} catch (error) {
  if (incoming) putBack(storage)
  console.error(`Not restored, nothing was changed. ${error.message}`)
  process.exitCode = 1
} finally {
  rmSync(work, { recursive: true, force: true })
  await database?.release()
}

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
