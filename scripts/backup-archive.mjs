// What a backup is: a ZIP with the database as pg_dump writes it, the files of the storage, and a list of all with their hashes.
import { createHash } from 'node:crypto'
import yauzl from 'yauzl'

export const DUMP = 'database.dump'
export const FILES = 'storage/'
export const MANIFEST = 'manifest.json'

const open = (path) =>
  new Promise((done, failed) =>
    yauzl.open(path, { lazyEntries: true, autoClose: false }, (error, zip) => (error ? failed(error) : done(zip))),
  )
const read = (zip, entry) =>
  new Promise((done, failed) => zip.openReadStream(entry, (error, stream) => (error ? failed(error) : done(stream))))

const entriesOf = (zip) =>
  new Promise((done, failed) => {
    const entries = []
    zip.on('entry', (entry) => {
      entries.push(entry)
      zip.readEntry()
    })
    zip.on('end', () => done(entries))
    zip.on('error', failed)
    zip.readEntry()
  })

/**
 * Gives every file of a backup with a function that streams it, once all of them are known to be whole: `take(name, stream)`. Throws
 * where one is missing or other than it was written.
 */
export async function eachFile(path, take) {
  const zip = await open(path).catch(() => {
    throw new Error('The file is no archive, or it is cut off.')
  })
  try {
    const entries = new Map((await entriesOf(zip)).map((entry) => [entry.fileName, entry]))
    const list = entries.get(MANIFEST)
    if (!list) throw new Error('The archive is no backup: it has no list of its files.')
    const parts = []
    for await (const part of await read(zip, list)) parts.push(part)
    const { format, version, files } = JSON.parse(Buffer.concat(parts).toString())
    if (format !== 'wax-ribbon-backup' || version !== 1)
      throw new Error('The archive is no backup of this application.')
    for (const [name, { sha256 }] of Object.entries(files)) {
      const entry = entries.get(name)
      if (!entry) throw new Error(`${name} is missing in the archive.`)
      const hash = createHash('sha256')
      for await (const part of await read(zip, entry)) hash.update(part)
      if (hash.digest('hex') !== sha256) throw new Error(`${name} is not what was written: the archive is damaged.`)
    }
    for (const name of Object.keys(files)) await take(name, () => read(zip, entries.get(name)))
  } finally {
    zip.close()
  }
}
