import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Locator, Page } from '@playwright/test'
import type { Card, WashPiece } from '../../core/card/schema'
import { unzipSync } from 'fflate'
import { decodePng } from '../../server/renders/encoders/png'
import { coat, emptyCard, solid, withBox, withType } from '../support/engine'
import { expect, openCard, pixels, savedCard, test } from './bench-page'

const folder = mkdtempSync(join(tmpdir(), 'wax-finish-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

async function addFinish(page: Page, name: string) {
  await page.getByRole('button', { name: /Pour, form or finish|Pour or finish|Add a finish/ }).click()
  await page.getByLabel(/^Find a /).fill(name)
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
  const washes = async () =>
    (await savedCard(page, id)).pieces.filter((piece): piece is WashPiece => piece.kind === 'wash')
  const wash = async () => (await washes())[0]!

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
  await dragBy(page, bar, 60)
  const moved = await wash()
  expect(moved.span!.in).toBeGreaterThan(10)
  const keys = (piece: WashPiece) =>
    (piece.finishes[0]!.stops as { keys: { frame: number }[] }).keys.map((key) => key.frame)
  expect(keys(moved)[0]! - moved.span!.in).toBe(keys(made)[0]! - made.span!.in)

  // Its end is trimmed; a copy of it is moved to the seam.
  await dragBy(page, page.getByRole('slider', { name: /^Span of Flash.*, end$/ }), -20)
  const trimmed = await wash()
  expect(trimmed.span!.in).toBe(moved.span!.in)
  expect(trimmed.span!.out).toBeLessThan(moved.span!.out)
  await page.getByRole('button', { name: 'Flash', exact: true }).first().click()
  await page.keyboard.press('Control+d')
  expect(await washes()).toHaveLength(2)
  await dragBy(page, bar, 1500)
  const [copied, first] = await washes()
  expect(first!.span).toEqual(trimmed.span)
  expect(copied!.span).toEqual({ in: 40 - (trimmed.span!.out - trimmed.span!.in), out: 40 })

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
  const frames = [12, 13]
  const bench = await page.evaluate(([c, list]) => Promise.all(list.map((one) => window.waxFrameHash!(c, one))), [
    pressed,
    frames,
  ] as const)
  const alone = await byCommandLine(pressed, frames)
  expect(alone).toEqual(bench)

  // And so are those of a render from the press room.
  await page.getByRole('button', { name: 'Render with transparency' }).click()
  const form = page.getByRole('form', { name: 'Render' })
  await form.getByRole('radio', { name: 'PNG sequence' }).click()
  await form.getByLabel('First frame').fill('12')
  await form.getByLabel('Last frame').fill('13')
  await form.getByRole('button', { name: 'Start the render' }).click()
  const item = page.locator('article.item').first()
  await expect(item).toHaveAttribute('data-status', 'done', { timeout: 60_000 })
  const link = item.getByRole('link', { name: /Download/ })
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()])
  const zip = join(folder, 'washed.zip')
  await download.saveAs(zip)
  const files = unzipSync(readFileSync(zip))
  const rendered = await Promise.all(
    Object.keys(files)
      .sort()
      .map((name) => hashOf(files[name]!)),
  )
  expect(rendered).toEqual(alone)
})

async function hashOf(png: Uint8Array): Promise<string> {
  return createHash('sha256')
    .update((await decodePng(Buffer.from(png))).pixels)
    .digest('hex')
}

/** Pulls something sideways by its middle. */
async function dragBy(page: Page, what: Locator, by: number) {
  const { x, y, width, height } = (await what.boundingBox())!
  const [fromX, atY] = [x + width / 2, y + height / 2]
  await page.mouse.move(fromX, atY)
  await page.mouse.down()
  await page.mouse.move(fromX + by, atY, { steps: 6 })
  await page.mouse.up()
}

async function byCommandLine(card: Card, frames: readonly number[]): Promise<string[]> {
  const path = join(folder, 'washed.card.json')
  writeFileSync(path, JSON.stringify(card))
  const out = join(folder, 'frames')
  execFileSync(process.execPath, ['.wax/node/wax.mjs', 'render', path, '--frames', frames.join('-'), '--out', out])
  const files = readdirSync(out).sort()
  return Promise.all(files.map((file) => hashOf(readFileSync(join(out, file)))))
}
