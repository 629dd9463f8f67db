import { readFileSync } from 'node:fs'
import { extname } from 'node:path'
import { expect, test } from '@jest/globals'
import { readCardText } from '#core/card/read'
import { Engine } from '#core/frame/engine'
import { EXAMPLES } from '#core/formats/examples'
import { svgPieces } from '#core/formats/svg-in'
import { readTable } from '#core/rosters/table-in'
import { readSealsText } from '#core/seals/read'
import { openArchive } from '#server/archive/card-archive'
import { readOwnFont } from '#server/fonts/own-font'
import { readOwnPicture } from '#server/pictures/own-picture'
import { smallSequence } from '#server/sequences/small-frames'
import { emptyCard } from '../support/engine'

// Every example is what it says, by the reader that takes such files from anybody.

/** What was found in a file, by its ending. */
const READERS: Record<string, (path: string, name: string) => Promise<unknown>> = {
  '.json': async (path, name) => {
    const text = readFileSync(path, 'utf8')
    const { faults } = name.endsWith('.seals.json') ? readSealsText(text) : readCardText(text)
    return faults ?? 'whole'
  },
  '.csv': async (path) => readTable(new Uint8Array(readFileSync(path)), {}, []).rows.length,
  '.png': async (path, name) => {
    const { pixels } = (await readOwnPicture(new Uint8Array(readFileSync(path)), name)).picture
    return pixels.some((value, i) => i % 4 === 3 && value === 0) ? 'with transparency' : 'without'
  },
  '.svg': async (path, name) => svgPieces(emptyCard(640, 360, 10), readFileSync(path, 'utf8'), name).card.pieces.length,
  '.woff2': async (path, name) => (await readOwnFont(new Uint8Array(readFileSync(path)), name)).family,
  '.zip': async (path, name) =>
    name.includes('.card.') ? rendered(path, name) : (await smallSequence(path)).frames.length > 1,
}

/** Whether an archive brings all that its card shows. */
async function rendered(path: string, name: string): Promise<boolean> {
  const { card, fonts, pictures, close } = await openArchive(path, name)
  const engine = new Engine()
  for (const { id, bytes } of fonts) engine.fonts.add(id, await bytes())
  for (const { id, bytes, fileName } of pictures)
    engine.pictures.add(id, (await readOwnPicture(await bytes(), fileName)).picture)
  close()
  const { pixels } = engine.render(card, Math.floor(card.length / 2), { scale: 0.1 })
  return fonts.length > 0 && pictures.length > 0 && pixels.some((value, i) => i % 4 === 3 && value > 0)
}

const FOUND: Record<string, unknown> = {
  'badge.card.json': 'whole',
  'night-of-the-lanterns.card.zip': true,
  'lantern-regatta.seals.json': 'whole',
  'crews.csv': 60,
  'boat.png': 'with transparency',
  'boat.svg': 1,
  'righteous.woff2': 'Righteous',
  'ink-spreading.zip': true,
}

test.each(EXAMPLES.map(({ name, path }) => [name, path]))('%s is what it says', async (name, path) => {
  expect(await READERS[extname(name)]!(path, name)).toEqual(FOUND[name])
})
