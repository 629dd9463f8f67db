// `npm run backup -- --out FILE`: database and files in one archive, while the application may be in use: the database as it is at one moment,
// and the files that it names then, which are finished and never change. Reads the archive again and holds every file against the hash
// that it was written with.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  copyFileSync,
  createReadStream,
  createWriteStream,
  linkSync,
  mkdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs'
import { mkdtemp } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { chdir } from 'node:process'
import { pipeline } from 'node:stream/promises'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import yazl from 'yazl'
import { eachFile, MANIFEST, DUMP, FILES } from './backup-archive.mjs'
import { databaseFor } from './database-for.mjs'
import { newestPostgres } from './packages.mjs'
import { readSettings } from './settings.mjs'

/** Files of the storage by the names that the database has for them; what can be made from them again is not among them. */
const NAMED = `
  select 'pictures/' || id from pictures
  union all select 'sequences/' || id || '/source' from sequences
  union all select 'sequences/' || id || '/about.json' from sequences
  union all select 'renders/' || (file ->> 'stored') from renders, jsonb_array_elements(files) as file
  union all select 'renders/' || sidecar from renders where sidecar is not null
  union all select 'renders/' || small from renders where small is not null`

const from = process.cwd()
chdir(fileURLToPath(new URL('..', import.meta.url)))
const { values: args } = parseArgs({ options: { out: { type: 'string' } } })
if (!args.out) fail('Where to? Give a file: npm run backup -- --out FILE')
const out = resolve(from, args.out)
const { values, faults } = readSettings(process.env)
if (faults.length > 0) fail(faults.join('\n'))
const storage = resolve(values.WAX_STORAGE || `${values.WAX_DATA}/storage`)
const bin = newestPostgres()
if (!bin) fail('PostgreSQL’s own programs are needed: install Debian’s package postgresql.')

const work = await mkdtemp(join(tmpdir(), 'wax-backup-'))
// Files keep their contents here though the application takes them away meanwhile: a second name on the same disk.
const held = join(storage, `.held-for-backup-${process.pid}`)
const half = `${out}.half`
let failure = null
try {
  const { url, release } = await databaseFor(values)
  const dump = join(work, DUMP)
  let named = []
  try {
    run(`${bin}/pg_dump`, ['--format=custom', '--no-owner', '--no-privileges', `--file=${dump}`, `--dbname=${url}`])
    named = run(`${bin}/psql`, [`--dbname=${url}`, '-tA', '-c', NAMED])
      .split('\n')
      .filter(Boolean)
      .sort()
  } finally {
    await release()
  }
  const zip = new yazl.ZipFile()
  const written = pipeline(zip.outputStream, createWriteStream(half))
  zip.on('error', (error) => zip.outputStream.destroy(error))
  const manifest = { format: 'wax-ribbon-backup', version: 1, made: new Date().toISOString(), files: {} }
  const add = async (path, name) => {
    manifest.files[name] = { sha256: await hashOf(path), bytes: statSync(path).size }
    zip.addFile(path, name, { compress: false })
  }
  await add(dump, DUMP)
  for (const [i, name] of named.entries()) {
    const path = join(held, String(i))
    if (hold(join(storage, name), path)) await add(path, `${FILES}${name}`)
  }
  zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 1)), MANIFEST)
  zip.end()
  await written
  let count = 0
  await eachFile(half, async () => void count++)
  renameSync(half, out)
  console.log(`${count} files, ${(statSync(out).size / 1e6).toFixed(1)} MB, read again and whole: ${out}`)
} catch (error) {
  failure = error
} finally {
  rmSync(half, { force: true })
  rmSync(held, { recursive: true, force: true })
  rmSync(work, { recursive: true, force: true })
}
if (failure) fail(`The backup was not made. ${failure.message}`)

/** Gives a file a second name; false for one that is gone: a render that was cleaned away since. */
function hold(path, as) {
  mkdirSync(held, { recursive: true })
  try {
    linkSync(path, as)
  } catch (error) {
    if (error.code === 'ENOENT') return false
    // A disk without such names.
    copyFileSync(path, as)
  }
  return true
}

async function hashOf(path) {
  const hash = createHash('sha256')
  for await (const part of createReadStream(path)) hash.update(part)
  return hash.digest('hex')
}

function run(program, options) {
  const { status, stdout, stderr } = spawnSync(program, options, { encoding: 'utf8' })
  if (status !== 0) throw new Error(stderr.trim())
  return stdout
}

function fail(words) {
  console.error(words)
  process.exit(1)
}
