import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'

// A comment or a page that sends its reader to a file must not send them to one that has gone.

/** All files below a folder that are written by hand; what is installed, built or left by a run is passed over. */
const below = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name)
    if (!entry.isDirectory()) return [path]
    return ['node_modules', 'generated', 'test-results'].includes(entry.name) || entry.name.startsWith('.')
      ? []
      : below(path)
  })

const files = below('.')
const NAME = /(?<![\w/.-])((?:[\w-]+\/)*[\w-]+\.(?:ts|mjs|vue))\b/g

/** Names of files in the words of a page (between backquotes), or in the comments of a program. */
function named(file: string): string[] {
  const text = readFileSync(file, 'utf8')
  const places = file.endsWith('.md')
    ? text.matchAll(/`([^`\n]+)`/g)
    : text.matchAll(/(?:^|\s)(?:\/\/|\/?\*\*?)\s(.*)$/gm)
  return [...places].flatMap(([, words]) => [...words!.matchAll(NAME)].map(([, name]) => name!))
}

const isThere = (name: string) => files.some((file) => file === name || file.endsWith(`/${name}`))

test('every file that a comment or a page names is there', () => {
  const readers = files.filter(
    (file) => /\.(ts|mjs|vue|md)$/.test(file) && file !== 'tests/reference/names-of-files.test.ts',
  )
  const names = readers.flatMap((file) => named(file).map((name) => ({ file, name })))
  expect(names.length).toBeGreaterThan(40)
  expect(names.filter(({ name }) => !isThere(name))).toEqual([])
})
