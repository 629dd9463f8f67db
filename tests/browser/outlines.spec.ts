import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import type { BoxPiece, Card, PathPiece, TypePiece } from '../../core/card/schema'
import { decodePng } from '../../server/renders/encoders/png'
import { coat, emptyCard, solid, withType } from '../support/engine'
import { expect, openCard, pixels, savedCard, test } from './bench-page'

const folder = mkdtempSync(join(tmpdir(), 'wax-outline-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

const fill = (id: string, colour: string) => ({ face: [coat('fill', id, { paint: solid(colour) })] })

async function addStep(page: Page, name: string) {
  await page.getByRole('button', { name: 'Pour, form or finish' }).click()
  await page.getByLabel('Find a coat, step or finish').fill(name)
  await page.getByRole('menuitem', { name, exact: true }).click()
}

const only = <T>(card: Card, kind: string) => card.pieces.find((piece) => piece.kind === kind) as T

test('a ring is drawn by hand, drawn on, made rough and woven through a word; the command line makes the same bytes', async ({
  page,
}) => {
  const start = withType(
    { ...emptyCard(640, 360, 24), name: 'Woven', background: solid('#1E3A46') },
    { id: 'word', name: 'Word', wording: 'QUAY', font: 'anton', size: 150, align: 'centre', x: 320, y: 180 },
    fill('fill-word', '#FFF6EE'),
  )
  const id = await openCard(page, start)
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByRole('menuitem', { name: 'Draw freehand' }).click()
  const stage = (await page.locator('svg.handles').boundingBox())!
  const at = (a: number): [number, number] => [
    stage.x + stage.width * (0.5 + 0.42 * Math.cos(a)),
    stage.y + stage.height * (0.5 + 0.16 * Math.sin(a)),
  ]
  await page.mouse.move(...at(-2))
  await page.mouse.down()
  for (let i = 1; i <= 40; i++) await page.mouse.move(...at(-2 + (i / 40) * 6))
  await page.mouse.up()
  await expect(page.locator('.piece.open .name')).toHaveText('Path')
  const path = only<PathPiece>(await savedCard(page, id), 'path')
  expect(String(path.path).split('C').length).toBeLessThan(14)
  expect(path.pressure.length).toBeGreaterThan(10)

  // Drawn on by keys, its end dragged along the line.
  await addStep(page, 'Draw on')
  const end = page.getByRole('button', { name: /^End of what is drawn/ })
  await expect(end).toBeVisible()
  const before = await pixels(page)
  const knob = (await end.boundingBox())!
  await page.mouse.move(knob.x + knob.width / 2, knob.y + knob.height / 2)
  await page.mouse.down()
  await page.mouse.move(...at(1), { steps: 6 })
  await page.mouse.up()
  await expect.poll(() => pixels(page)).not.toBe(before)
  const drawn = only<PathPiece>(await savedCard(page, id), 'path').outlineSteps.find(({ kind }) => kind === 'draw-on')!
  expect(Number(drawn.end)).toBeGreaterThan(30)
  expect(Number(drawn.end)).toBeLessThan(70)
  await page.getByRole('button', { name: 'Set a key of Path · draw on end here' }).click()
  await addStep(page, 'Rough')

  // Woven by ticking letters on the stage.
  await page.locator('.piece .body', { hasText: 'Path' }).click()
  await page.getByText('Woven through words').click()
  await page.getByLabel('Path · woven', { exact: true }).selectOption('word')
  const open = await pixels(page)
  await page.getByRole('checkbox', { name: 'Letter 2 passes in front' }).locator('.tick').click()
  await page.getByRole('checkbox', { name: 'Letter 3 passes in front' }).press('Space')
  await expect.poll(() => pixels(page)).not.toBe(open)
  const woven = await savedCard(page, id)
  expect(only<PathPiece>(woven, 'path')).toMatchObject({ weave: 'word', weaveLetters: '2 3' })
  expect(only<PathPiece>(woven, 'path').outlineSteps.map(({ kind }) => kind)).toContain('rough')

  const file = join(folder, 'woven.card.json')
  writeFileSync(file, JSON.stringify(woven))
  execFileSync(process.execPath, ['.wax/node/wax.mjs', 'render', file, '--frames', '3-3', '--out', folder])
  const hash = await page.evaluate((card) => window.waxFrameHash!(card, 3), woven)
  const [png] = readdirSync(folder).filter((name) => name.endsWith('.png'))
  const { pixels: bytes } = await decodePng(readFileSync(join(folder, png!)))
  expect(createHash('sha256').update(bytes).digest('hex')).toBe(hash)
})

test('a lower third that fits: words are written where they stand, the bar grows with them, by keys alone', async ({
  page,
}) => {
  const card = withType(
    { ...emptyCard(640, 360, 24), name: 'Fits' },
    { id: 'name', name: 'Name', wording: 'Mara', font: 'anton', size: 50, align: 'left', x: 80, y: 280 },
    fill('fill-name', '#FFF6EE'),
  )
  const id = await openCard(page, card)
  // A bar, behind the words, that fits them.
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByRole('menuitem', { name: /^Box/ }).first().click()
  await page.getByText('Fits other pieces').focus()
  await page.keyboard.press('Enter')
  await page.getByLabel('Box · fits', { exact: true }).selectOption('name')
  const padding = page
    .getByRole('spinbutton', { name: 'Box · right of it' })
    .or(page.getByLabel('Box · right of it', { exact: true }))
  await padding.last().fill('30')
  await padding.last().press('Enter')
  expect(only<BoxPiece>(await savedCard(page, id), 'box')).toMatchObject({ fitTo: ['name'], padRight: 30 })

  // The words: selected in the stack, written on the stage after Enter.
  await page.locator('.piece .body', { hasText: 'Name' }).click()
  await page.locator('.piece .body', { hasText: 'Name' }).evaluate((button: HTMLElement) => button.blur())
  await page.keyboard.press('Enter')
  const words = page.getByLabel('Words on the stage')
  await expect(words).toBeFocused()
  for (const name of ['Ann Vey', 'Bartholomew Quill', 'Odile']) {
    const before = await pixels(page)
    await page.keyboard.press('Control+a')
    await page.keyboard.type(name)
    await expect.poll(() => pixels(page)).not.toBe(before)
    expect(only<TypePiece>(await savedCard(page, id), 'type').wording).toBe(name)
  }
  // Kerned at the caret; undone with the usual keys while the caret stays.
  await page.keyboard.press('Home')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Alt+ArrowRight')
  expect(only<TypePiece>(await savedCard(page, id), 'type').pairs).toEqual([{ pair: 'Od', by: 5 }])
  await page.keyboard.press('Control+z')
  expect(only<TypePiece>(await savedCard(page, id), 'type').pairs).toEqual([])
  await page.keyboard.press('Escape')
  await expect(words).toHaveCount(0)

  // A side of the selection stretches type; with an arrow as well.
  await page.getByRole('button', { name: 'Right side: arrows pull it' }).press('Shift+ArrowRight')
  const stretch = async () => Number(only<TypePiece>(await savedCard(page, id), 'type').stretchX)
  await expect.poll(stretch).toBeGreaterThan(100)
})
