import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import type { Mask } from '../../core/card/schema'
import { coat, emptyCard, solid, withType } from '../support/engine'
import { expect, expectSameBytes, openCard, pixels, savedCard, test } from './bench-page'

const folder = mkdtempSync(join(tmpdir(), 'wax-masks-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

async function dragBy(page: Page, name: RegExp, dx: number, dy: number) {
  const { x, y, width, height } = (await page.getByRole('button', { name }).boundingBox())!
  await page.mouse.move(x + width / 2, y + height / 2)
  await page.mouse.down()
  await page.mouse.move(x + width / 2 + dx, y + height / 2 + dy, { steps: 5 })
  await page.mouse.up()
}

test('a word is held by a mask: by hand on the stage and by keys, undone, and rendered to the same bytes', async ({
  page,
}) => {
  const start = withType(
    { ...emptyCard(640, 360, 24), name: 'Held', background: solid('#1E3A46') },
    { id: 'word', name: 'Word', wording: 'QUAY', font: 'anton', size: 150, align: 'centre', x: 320, y: 240 },
    { face: [coat('fill', 'fill', { paint: solid('#FFF6EE') })], behind: [coat('glow', 'glow', { reach: 20 })] },
  )
  const id = await openCard(page, start)
  const only = async () => (await savedCard(page, id)).pieces[0]!.masks as Mask[]
  await page.locator('.piece .body', { hasText: 'Word' }).click()
  await page.getByRole('button', { name: 'Pour, form or finish' }).click()
  await page.getByLabel('Find a coat, step or finish').fill('ellipse')
  await page.keyboard.press('Enter')
  await expect(page.locator('.thin .title', { hasText: 'Ellipse mask' })).toBeVisible()

  // It begins as large as the word; its sides, its place and its feather are moved on the stage.
  const [made] = await only()
  expect(Number(made!.width)).toBeGreaterThan(200)
  const whole = await pixels(page)
  await dragBy(page, /^Width and height/, -60, -10)
  await expect.poll(() => pixels(page)).not.toBe(whole)
  await dragBy(page, /^Feather/, 25, 0)
  const [pulled] = await only()
  expect(Number(pulled!.width)).toBeLessThan(Number(made!.width) - 60)
  expect(Number(pulled!.feather)).toBeGreaterThan(10)
  await page.getByRole('button', { name: /^Place, on the stage/ }).press('Shift+ArrowRight')
  await expect.poll(async () => (await only())[0]!.x).toBe(Math.round((Number(pulled!.x) + 10) * 10) / 10)

  // What it does is one click, and one undo.
  const added = await pixels(page)
  await page.getByRole('radio', { name: 'Take' }).click()
  await expect.poll(() => pixels(page)).not.toBe(added)
  await page.keyboard.press('Control+z')
  await expect.poll(() => pixels(page)).toBe(added)
  await expect(page.locator('.thin .amount')).toHaveText('add')

  // Its values are keyed as all others are.
  await page.getByRole('button', { name: /^Set a key of Word · ellipse mask opacity here/ }).click()
  const card = await savedCard(page, id)
  expect(card.pieces[0]!.masks[0]!.opacity).toMatchObject({ keys: [{ frame: 0, value: 100 }] })

  await expectSameBytes(page, card, folder)
})

test('the points of a path mask are dragged, added and taken away on the stage', async ({ page }) => {
  const start = withType(
    { ...emptyCard(640, 360, 24), name: 'Cut', background: solid('#1E3A46') },
    { id: 'word', name: 'Word', wording: 'QUAY', font: 'anton', size: 150, align: 'centre', x: 320, y: 240 },
    { face: [coat('fill', 'fill', { paint: solid('#FFF6EE') })] },
  )
  const id = await openCard(page, start)
  const path = async () => String(((await savedCard(page, id)).pieces[0]!.masks[0] as Mask).path)
  await page.locator('.piece .body', { hasText: 'Word' }).click()
  await page.getByRole('button', { name: 'Pour, form or finish' }).click()
  await page.getByRole('menuitem', { name: 'Path mask' }).click()
  await expect(page.locator('.thin .title', { hasText: 'Path mask' })).toBeVisible()
  const before = await path()
  const points = page.locator('.path .point')
  await expect(points).toHaveCount(3)
  const { x, y } = (await points.nth(1).boundingBox())!
  await page.mouse.move(x + 4, y + 4)
  await page.mouse.down()
  await page.mouse.move(x + 60, y - 20, { steps: 4 })
  await page.mouse.up()
  await expect.poll(path).not.toBe(before)
  await expect.poll(path).toMatch(/^M -200 100 L \d/)
  // The point that was dragged is the one that Delete takes away; with none chosen it takes the mask.
  await page.keyboard.press('Delete')
  await expect.poll(path).toBe('M -200 100 L 200 100 Z')
  await page.keyboard.press('Delete')
  await expect.poll(async () => (await savedCard(page, id)).pieces[0]!.masks).toEqual([])
})
