import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import type { Card, WashPiece } from '../../core/card/schema'
import { decodePng } from '../../server/renders/encoders/png-sequence'
import { coat, emptyCard, solid, withBox, withType } from '../support/engine'
import { expect, openCard, pixels, savedCard, test } from './bench-page'

const folder = mkdtempSync(join(tmpdir(), 'wax-finish-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

async function addFinish(page: Page, name: string) {
  await page.getByRole('button', { name: /Pour or finish|Add a finish/ }).click()
  await page.getByLabel('Find a coat or finish').fill(name)
  await page.getByRole('menuitem', { name, exact: true }).click()
}

test('a new user washes the scene, treats a title, seals its look, presses it, undoes and redoes all, and renders it', async ({
  page,
}) => {
  const scene = withBox(
    { ...emptyCard(640, 360, 40), name: 'Washed', background: solid('#1E3A46') },
    { id: 'box', name: 'Bar', width: 220, height: 60, x: 320, y: 290 },
    { face: [coat('fill', 'fill-bar', { paint: solid('#F2A33C') })] },
  )
  const start = withType(
    scene,
    { id: 'title', name: 'Title', wording: 'Ferry', size: 130, align: 'centre', x: 320, y: 150 },
    { face: [coat('fill', 'fill-title', { paint: solid('#FFF6EE') })] },
  )
  const id = await openCard(page, start)
  const bare = await pixels(page)
  const wash = async () => (await savedCard(page, id)).pieces.find(({ kind }) => kind === 'wash') as WashPiece

  // A flash at the playhead: a few frames long, two stops in the middle.
  const frame = page.getByRole('slider', { name: 'Frame', exact: true })
  await frame.focus()
  await page.keyboard.press('Shift+ArrowRight')
  await page.getByRole('button', { name: 'Wash here' }).click()
  await page.getByRole('menuitem', { name: /^Flash/ }).click()
  await expect(page.getByRole('heading', { name: 'Flash' })).toBeVisible()
  const made = await wash()
  expect(made.finishes.map(({ kind }) => kind)).toEqual(['exposure'])
  expect(made.span!.in).toBe(10)

  // Its span is a bar on the ribbon: moved by hand, with its keys.
  const bar = page.locator('.ribbon .span rect.bar:not(.whole)').first()
  const at = (await bar.boundingBox())!
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2)
  await page.mouse.down()
  await page.mouse.move(at.x + at.width / 2 + 60, at.y + at.height / 2, { steps: 6 })
  await page.mouse.up()
  const moved = await wash()
  expect(moved.span!.in).toBeGreaterThan(10)
  const keys = (piece: WashPiece) =>
    (piece.finishes[0]!.stops as { keys: { frame: number }[] }).keys.map((key) => key.frame)
  expect(keys(moved)[0]! - moved.span!.in).toBe(keys(made)[0]! - made.span!.in)

  // Grain and trails on the title; a bloom that moves.
  await page.locator('.piece .body', { hasText: 'Title' }).click()
  await addFinish(page, 'Trails')
  await addFinish(page, 'Grain')
  await addFinish(page, 'Bloom')
  await frame.focus()
  await page.keyboard.press('Home')
  const radius = page.getByRole('textbox', { name: 'Title · bloom brightness' })
  await page
    .getByRole('button', { name: /Key.*bloom brightness|bloom brightness.*key/i })
    .first()
    .click()
  await frame.focus()
  await page.keyboard.press('Shift+ArrowRight')
  await radius.fill('160')
  await radius.press('Enter')
  const card = await savedCard(page, id)
  const title = card.pieces.find((piece) => piece.id === 'title')!
  expect(title.finishes.map(({ kind }) => kind)).toEqual(['bloom', 'grain', 'trails'])
  expect((title.finishes[0]!.amount as { keys: unknown[] }).keys).toHaveLength(2)
  await expect.poll(() => pixels(page)).not.toBe(bare)

  // The look as a seal, pressed on the bar.
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Save as seal' }).click()
  const saving = page.getByRole('form', { name: 'Save as a seal' })
  await saving.getByLabel('Name of the seal').fill('Grainy bloom')
  await expect(saving.getByLabel(/With its finishes/)).toBeChecked()
  await saving.getByRole('button', { name: 'Save seal' }).click()
  await expect(page.getByText('“Grainy bloom” is among the seals.')).toBeVisible()
  await page.locator('.piece .body', { hasText: 'Bar' }).click()
  await page.getByRole('button', { name: 'Press a seal' }).click()
  await page.getByRole('button', { name: 'Press Grainy bloom', exact: true }).click()
  const pressed = await savedCard(page, id)
  expect(pressed.pieces.find((piece) => piece.id === 'box')!.finishes.map(({ kind }) => kind)).toEqual([
    'bloom',
    'grain',
    'trails',
  ])

  // All undone, all done again.
  const undo = page.getByRole('button', { name: /^Undo/ })
  while (await undo.isEnabled()) await undo.click()
  expect((await savedCard(page, id)).pieces).toEqual(start.pieces)
  const redo = page.getByRole('button', { name: /^Redo/ })
  while (await redo.isEnabled()) await redo.click()
  expect(await savedCard(page, id)).toEqual(pressed)

  // The bench's bytes are those of the command line.
  const frames = [4, 12, 13]
  const bench = await page.evaluate(([c, list]) => Promise.all(list.map((one) => window.waxFrameHash!(c, one))), [
    pressed,
    frames,
  ] as const)
  expect(await byCommandLine(pressed, frames)).toEqual(bench)
})

async function byCommandLine(card: Card, frames: readonly number[]): Promise<string[]> {
  const path = join(folder, 'washed.card.json')
  writeFileSync(path, JSON.stringify(card))
  const hashes: string[] = []
  for (const frame of frames) {
    const out = join(folder, `frame-${frame}`)
    execFileSync(process.execPath, ['.wax/node/wax.mjs', 'render', path, '--frames', `${frame}-${frame}`, '--out', out])
    const [file] = readdirSync(out)
    const { pixels: bytes } = await decodePng(readFileSync(join(out, file!)))
    hashes.push(createHash('sha256').update(bytes).digest('hex'))
  }
  return hashes
}
