// `npm run backup -- --out FILE`: database and files in one archive, while the application may be in use. Reads the archive again and holds
// every file against the hash that it was written with.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { createReadStream, createWriteStream, existsSync, renameSync, rmSync, statSync } from 'node:fs'
import { mkdtemp, readdir } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join, relative, resolve, sep } from 'node:path'
import { chdir } from 'node:process'
import { pipeline } from 'node:stream/promises'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import yazl from 'yazl'
import { eachFile, MANIFEST, DUMP, FILES } from './backup-archive.mjs'
import { databaseFor } from './database-for.mjs'
import { newestPostgres } from './packages.mjs'
import { readSettings } from './settings.mjs'

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
const half = `${out}.half`
try {
  // The database first, as it is at one moment: whatever it names was on the disk before. Files that come later only lie beside.
  const { url, release } = await databaseFor(values)
  const dump = join(work, 'database.dump')
  try {
    run(`${bin}/pg_dump`, ['--format=custom', '--no-owner', '--no-privileges', `--file=${dump}`, `--dbname=${url}`])
  } finally {
    await release()
  }
  const files = existsSync(storage) ? await filesIn(storage) : []
  const zip = new yazl.ZipFile()
  const written = pipeline(zip.outputStream, createWriteStream(half))
  const manifest = { format: 'wax-ribbon-backup', version: 1, made: new Date().toISOString(), files: {} }
  const add = async (path, name) => {
    // Renders may be cleaned away meanwhile: what is gone is not in the archive.
    const hash = await hashOf(path).catch((error) => (error.code === 'ENOENT' ? null : Promise.reject(error)))
    if (hash === null) return
    manifest.files[name] = { sha256: hash, bytes: statSync(path).size }
    zip.addFile(path, name, { compress: false })
  }
  await add(dump, DUMP)
  for (const path of files) await add(path, `${FILES}${relative(storage, path).split(sep).join('/')}`)
  zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 1)), MANIFEST)
  zip.end()
  await written
  let count = 0
  await eachFile(half, async () => void count++)
  renameSync(half, out)
  console.log(`${count} files, ${(statSync(out).size / 1e6).toFixed(1)} MB, read again and whole: ${out}`)
} catch (error) {
  rmSync(half, { force: true })
  fail(`The backup was not made. ${error.message}`)
} finally {
  rmSync(work, { recursive: true, force: true })
}

/** All finished files of the storage; those on their way in are not. */
async function filesIn(folder) {
  const entries = await readdir(folder, { withFileTypes: true, recursive: true })
  return entries
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name))
    .filter((path) => !/(^|\/)incoming\/|\.half$|\.frames$/.test(path))
    .sort()
}

async function hashOf(path) {
  const hash = createHash('sha256')
  for await (const part of createReadStream(path)) hash.update(part)
  return hash.digest('hex')
}

function run(program, options) {
  const { status, stderr } = spawnSync(program, options, { encoding: 'utf8' })
  if (status !== 0) throw new Error(stderr.trim())
}

function fail(words) {
  console.error(words)
  process.exit(1)
}
