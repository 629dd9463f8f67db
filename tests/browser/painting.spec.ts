import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import sharp from 'sharp'
import type { BrushStroke } from '../../core/brushes/stroke'
import { strokesOf } from '../../core/brushes/stroke'
import type { Mask } from '../../core/card/schema'
import { coat, emptyCard, solid, withType } from '../support/engine'
import { expect, expectSameBytes, openCard, pixels, savedCard, test } from './bench-page'

const folder = mkdtempSync(join(tmpdir(), 'wax-painting-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** Paints from one point of the stage to another, in shares of it. */
async function paint(page: Page, from: readonly [number, number], to: readonly [number, number], key?: string) {
  const { x, y, width, height } = (await page.locator('svg.handles').boundingBox())!
  const at = (share: number) =>
    [x + width * (from[0] + (to[0] - from[0]) * share), y + height * (from[1] + (to[1] - from[1]) * share)] as const
  await page.mouse.move(...at(0))
  await page.mouse.down()
  if (key) await page.keyboard.down(key)
  // Not straight: what is held straight differs from it.
  for (let i = 1; i <= 8; i++) await page.mouse.move(at(i / 8)[0], at(i / 8)[1] + (i % 2) * 14 * (i < 8 ? 1 : 0))
  await page.mouse.up()
  if (key) await page.keyboard.up(key)
}

test('a mask and a painting are painted, erased and undone by hand, and rendered to the same bytes', async ({
  page,
}) => {
  const start = withType(
    { ...emptyCard(640, 360, 24), name: 'Painted', background: solid('#1E3A46') },
    { id: 'word', name: 'Word', wording: 'QUAY', font: 'anton', size: 150, align: 'centre', x: 320, y: 180 },
    { face: [coat('fill', 'fill', { paint: solid('#FFF6EE') })] },
  )
  const id = await openCard(page, start)
  const maskStrokes = async (): Promise<readonly BrushStroke[]> => {
    const word = (await savedCard(page, id)).pieces.find((piece) => piece.id === 'word')!
    return word.masks.flatMap((mask: Mask) => [...strokesOf(mask)])
  }
  await page.locator('.piece .body', { hasText: 'Word' }).click()
  await page.getByRole('button', { name: 'Pour, form or finish' }).click()
  await page.getByRole('menuitem', { name: 'Painted mask' }).click()
  // The brush is in hand at once; cracks are taken out of the word.
  await expect(page.getByRole('button', { name: 'Put the brush away' })).toBeVisible()
  await page.getByRole('radio', { name: 'Take' }).click()
  await page.getByRole('radio', { name: 'Crack' }).click()
  await page.getByLabel('Brush size', { exact: true }).fill('60')
  await page.keyboard.press('Tab')
  const whole = await pixels(page)
  await paint(page, [0.2, 0.4], [0.8, 0.6])
  await expect.poll(() => pixels(page)).not.toBe(whole)
  const [crack] = await maskStrokes()
  expect(crack).toMatchObject({ tip: 'crack', size: 60, erase: false, along: true })
  expect(crack!.points.length).toBeGreaterThan(12)

  // What the mask covers is hatched over the picture, or shown alone; the picture below stays.
  const cracked = await pixels(page)
  await page.getByRole('radio', { name: 'Hatched' }).click()
  await expect(page.locator('[data-test=mask-picture]')).toBeVisible()
  await page.getByRole('radio', { name: 'Not shown' }).click()
  await expect(page.locator('[data-test=mask-picture]')).toHaveCount(0)
  expect(await pixels(page)).toBe(cracked)

  // Every stroke is one step; held straight, it has two points.
  await paint(page, [0.3, 0.3], [0.5, 0.7], 'Shift')
  await expect.poll(async () => (await maskStrokes()).length).toBe(2)
  expect((await maskStrokes())[1]!.points).toHaveLength(6)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await maskStrokes()).length).toBe(1)
  await page.keyboard.press('Control+z')
  await expect.poll(() => pixels(page)).toBe(whole)
  await page.keyboard.press('Control+Shift+z')
  await expect.poll(async () => (await maskStrokes()).length).toBe(1)

  // A painting in front of all; what is painted there is erased again.
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByRole('menuitem', { name: /^Painting/ }).click()
  const art = async () => {
    const piece = (await savedCard(page, id)).pieces.find(({ kind }) => kind === 'painting')
    return piece ? strokesOf(piece) : []
  }
  const bare = await pixels(page)
  await page.getByRole('radio', { name: 'Snow' }).click()
  await paint(page, [0.2, 0.2], [0.7, 0.25])
  await expect.poll(() => pixels(page)).not.toBe(bare)
  const painted = await pixels(page)
  await page.getByRole('button', { name: 'Erase' }).click()
  await page.getByRole('radio', { name: 'Round, hard' }).click()
  for (let i = 0; i < 6; i++) await page.keyboard.press('b')
  await paint(page, [0.4, 0.15], [0.45, 0.35])
  await expect.poll(() => pixels(page)).not.toBe(painted)
  const strokes = await art()
  expect(strokes.map(({ tip, erase }) => [tip, erase])).toEqual([
    ['snow', false],
    ['round-hard', true],
  ])
  expect(strokes[1]!.size).toBeGreaterThan(strokes[0]!.size * 2)

  // The area of a path mask is drawn around by hand.
  await page.keyboard.press('Escape')
  await page.locator('.piece .body', { hasText: 'Word' }).click()
  await page.getByRole('button', { name: 'Pour, form or finish' }).click()
  await page.getByRole('menuitem', { name: 'Path mask' }).click()
  const pathOf = async () => {
    const word = (await savedCard(page, id)).pieces.find((piece) => piece.id === 'word')!
    return String(word.masks.find(({ kind }) => kind === 'path')?.path)
  }
  const first = await pathOf()
  await page.getByRole('button', { name: 'Draw it' }).click()
  await paint(page, [0.25, 0.3], [0.7, 0.6])
  await expect.poll(pathOf).not.toBe(first)
  expect(await pathOf()).toMatch(/^M[^M]*C[^M]*Z$/)

  // A picture as a tip.
  const leaf = join(folder, 'leaf.png')
  await sharp({ create: { width: 40, height: 24, channels: 4, background: '#000000' } })
    .png()
    .toFile(leaf)
  await page.locator('.piece .body', { hasText: 'Painting' }).click()
  await page.locator('[data-test=tip-file]').setInputFiles(leaf)
  await expect(page.getByRole('radio', { name: 'leaf' })).toBeChecked()
  await page.getByRole('button', { name: 'Take the brush' }).click()
  await page.getByRole('button', { name: 'Erase' }).click()
  await paint(page, [0.2, 0.8], [0.7, 0.8])
  await expect.poll(async () => (await art()).at(-1)?.tip).toMatch(/^picture-/)

  const card = await savedCard(page, id)
  await expectSameBytes(page, card, folder, '--picture', leaf)
})
