// The files of the storage put in the place of others, within its own folder: that may be a disk of its own, which cannot be renamed. Until it
// is done for good the former ones lie beside and come back.
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const INCOMING = '.incoming-restore'
const FORMER = '.former-restore'
/** Is there once the database is the new one too: from then on the former files are only to be removed. */
const DONE = 'DONE'

const own = (name) => name !== INCOMING && name !== FORMER

/** Moves all that lies in a folder into another one. */
function moveAll(from, to) {
  for (const name of readdirSync(from).filter(own)) renameSync(join(from, name), join(to, name))
}

/** Where the files that come are to be laid; what a restore that was killed has left is put right first. */
export function beginExchange(storage) {
  const [incoming, former] = [join(storage, INCOMING), join(storage, FORMER)]
  if (existsSync(join(former, DONE))) rmSync(former, { recursive: true, force: true })
  else if (existsSync(former)) putBack(storage)
  rmSync(incoming, { recursive: true, force: true })
  mkdirSync(incoming, { recursive: true })
  return incoming
}

/** The files that came are those of the storage; the former ones lie beside. */
export function exchange(storage) {
  const [incoming, former] = [join(storage, INCOMING), join(storage, FORMER)]
  mkdirSync(former)
  moveAll(storage, former)
  moveAll(incoming, storage)
}

/** The former files are those of the storage again; those that came are gone. */
export function putBack(storage) {
  const [incoming, former] = [join(storage, INCOMING), join(storage, FORMER)]
  if (existsSync(former)) {
    for (const name of readdirSync(storage).filter(own)) rmSync(join(storage, name), { recursive: true, force: true })
    moveAll(former, storage)
    rmSync(former, { recursive: true, force: true })
  }
  rmSync(incoming, { recursive: true, force: true })
}

/** It is done for good. */
export function endExchange(storage) {
  writeFileSync(join(storage, FORMER, DONE), '')
  for (const name of [FORMER, INCOMING]) rmSync(join(storage, name), { recursive: true, force: true })
}
