import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, test } from '@jest/globals'
import { unzipSync } from 'fflate'
import sharp from 'sharp'
import type { Card } from '#core/card/schema'
import { createPiece } from '#core/card/create'
import type { ProofLine } from '#core/judge/proof/definition'
import { makeField } from '#core/rosters/field-edit'
import { readTable } from '#core/rosters/table-in'
import { coat, emptyCard, solid, withPiece } from '../support/engine'

// Rosters by the command line: a file for each row, a programme, and what is told of rows.

const folder = mkdtempSync(join(tmpdir(), 'wax-roster-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

function wax(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['.wax/node/wax.mjs', ...args], { encoding: 'utf8' })
  return { status, out: stdout, error: stderr }
}

const card: Card = (() => {
  const base = { ...emptyCard(128, 72, 6), zones: { hold: 1, out: 5 } }
  const words = withPiece(
    base,
    'type',
    { wording: 'Name', font: 'barlow-condensed-bold', size: 14, x: 64, y: 20 } as object,
    {
      face: [coat('fill', 'fill-1', { paint: solid('#FFFFFF') })],
    },
  )
  const logo = { ...createPiece('picture', words), name: 'Logo', width: 40, height: 20, x: 64, y: 50 }
  return ['type-1/wording', 'picture-1/picture'].reduce((next, at) => makeField(next, at), {
    ...words,
    pieces: [logo, ...words.pieces],
  } as Card)
})()
const path = join(folder, 'strip.card.json')
writeFileSync(path, JSON.stringify(card))

/** Rows that name a picture beside them, one that is missing, and a name that has no room. */
async function crews(): Promise<string> {
  const square = sharp({ create: { width: 20, height: 20, channels: 4, background: '#9B2D26' } })
  await square.png().toFile(join(folder, 'red.png'))
  const rows = [
    'Type,Logo,In,Out',
    'Ada Reed,red.png,00:00:00:05,00:00:00:15',
    'Tam Voss,gone.png,,',
    'Nell Tidewater,,00:00:01:00,',
  ]
  const file = join(folder, 'crews.csv')
  writeFileSync(file, rows.join('\r\n'))
  return file
}

test('wax proof judges the rows with their card', async () => {
  const long = join(folder, 'long.csv')
  writeFileSync(long, 'Type\r\nAda\r\nNell Tidewater of the Long Lantern Quay\r\n')
  const { status, out } = wax('proof', path, '--roster', long, '--json')
  const { lines } = JSON.parse(out) as { lines: ProofLine[] }
  const { findings } = lines.find(({ check }) => check === 'overflow')!
  expect(status).toBe(1)
  const inRows = findings.filter(({ row }) => row !== undefined)
  expect(inRows.map(({ message }) => message)).toEqual([
    '“Nell Tidewater of the Long Lantern Quay”: It reaches beyond the frame.',
  ])
  const gone = wax('proof', path, '--roster', join(folder, 'gone.csv'))
  expect([gone.status, gone.out]).toEqual([1, ''])
  expect(gone.error).toMatch(/gone\.csv.*roster file cannot be read/s)
})

test('a file for each row, with the picture that it names; report and timeline beside them; what is left out is told', async () => {
  const out = join(folder, 'out')
  const { status, error } = wax('roster', path, await crews(), '--out', out, '--threads', '1')
  expect(status).toBe(1)
  expect(error).toMatch(
    /left out: Tam Voss: Logo: The picture “gone.png” is not here\. Bring its file in, or mend its name\./,
  )
  expect(readdirSync(out).sort()).toEqual(['ada-reed.zip', 'crews-report.csv', 'crews.otio', 'nell-tidewater.zip'])
  const { rows } = readTable(readFileSync(join(out, 'crews-report.csv')))
  expect(rows.map((cells) => [cells[0], cells[2], cells[3]])).toEqual([
    ['Ada Reed', 'done', '10'],
    ['Nell Tidewater', 'done', '6'],
    ['Tam Voss', 'left out', ''],
  ])
  // The square stands in the box of 40 × 20, as large as it fits: 20 × 20 about its middle.
  const frame = Object.values(unzipSync(readFileSync(join(out, 'ada-reed.zip'))))[2]!
  const { data } = await sharp(frame).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  const at = (x: number, y: number) => [...data.subarray((y * 128 + x) * 4, (y * 128 + x) * 4 + 4)]
  expect(at(64, 50)).toEqual([0x9b, 0x2d, 0x26, 255])
  expect([at(52, 50)[3], at(76, 50)[3]]).toEqual([0, 0])
})

test('a programme is one file from the first in to the last out', async () => {
  const out = join(folder, 'programme')
  mkdirSync(out)
  const { status } = wax('roster', path, await crews(), '--out', out, '--programme', '--threads', '1')
  expect(status).toBe(1)
  expect(Object.keys(unzipSync(readFileSync(join(out, 'crews.zip'))))).toHaveLength(26)
})

test('--look tells what is wrong with rows, as words and as JSON', async () => {
  const file = join(folder, 'long.csv')
  writeFileSync(file, 'Type\nTam\nBartholomew Featherstonehaugh-Quill of the Lantern House\n')
  const { status, out } = wax('roster', path, file, '--look', '--json')
  expect(status).toBe(1)
  const found = JSON.parse(out) as { row: string; flags: { check: string; fits: boolean }[] }[]
  expect(found.map(({ flags }) => flags.filter(({ check }) => check === 'overflow').map(({ fits }) => fits))).toEqual([
    [],
    [true],
  ])
  expect(wax('roster', path, file, '--look').out).toMatch(/2 rows looked at/)
  expect(wax('roster', path).error).toMatch(/No file of rows was named/)
})
