import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import sharp from 'sharp'
import type { Card, GroupPiece, Mask, TwinPiece } from '../../core/card/schema'
import { allPieces } from '../../core/card/tree'
import { coat, emptyCard, solid, withBox, withType } from '../support/engine'
import { expect, expectSameBytes, openCard, pixels, savedCard, test } from './bench-page'

const folder = mkdtempSync(join(tmpdir(), 'wax-holding-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** A word, and a boat that goes past behind it. */
function start(): Card {
  const x = {
    keys: [
      { frame: 0, value: 60 },
      { frame: 20, value: 560 },
    ],
  }
  const boat = withBox(
    { ...emptyCard(640, 360, 24), name: 'Held', background: solid('#1E3A46') },
    { id: 'boat', name: 'Boat', width: 120, height: 60, x: x as never, y: 300 },
    { face: [coat('fill', 'boat-fill', { paint: solid('#E2683C') })] },
  )
  return withType(
    boat,
    { id: 'word', name: 'Word', wording: 'QUAY', font: 'anton', size: 150, align: 'centre', x: 320, y: 200 },
    { face: [coat('fill', 'fill', { paint: solid('#FFF6EE') })] },
  )
}

const row = (page: Page, name: string) =>
  page.locator('.piece', { has: page.locator('.name', { hasText: name }) }).first()

async function fromMenu(page: Page, name: string, item: string) {
  await row(page, name).hover()
  await page.getByRole('button', { name: `${name}, more` }).click()
  await page.getByText(item, { exact: true }).click()
}

test('a picture inside a word, a twin, a matte and a frozen boat: by hand, then the same bytes from the command line', async ({
  page,
}) => {
  const id = await openCard(page, start())
  const find = async (name: string) =>
    allPieces((await savedCard(page, id)).pieces).find((piece) => piece.name === name)

  // One action: the picture comes in and is seen within the word, as large as it.
  const before = await pixels(page)
  await row(page, 'Word').locator('.body').click()
  await page.getByRole('button', { name: 'Pour, form or finish' }).click()
  await expect(page.getByRole('menuitem', { name: 'Picture inside' })).toBeVisible()
  const water = join(folder, 'water.png')
  await sharp({ create: { width: 80, height: 60, channels: 3, background: '#30A0C0' } })
    .png()
    .toFile(water)
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('menuitem', { name: 'Picture inside' }).click()
  await (await chooser).setFiles(water)
  await expect(page.locator('.thin .title', { hasText: 'Matte' })).toBeVisible()
  await expect.poll(() => pixels(page)).not.toBe(before)
  expect((await find('water'))!.masks).toMatchObject([{ kind: 'matte', source: 'word', by: 'face' }])

  // The word is not shown any more; what is seen within it is.
  await row(page, 'Word').getByRole('button', { name: /Word/ }).last().click()
  await expect(row(page, 'Word').locator('small')).toHaveText('matte')

  // A twin of the boat, mirrored, seen within the word as well.
  await fromMenu(page, 'Boat', 'Make a twin')
  await expect(row(page, 'Boat, twin')).toBeVisible()
  await page
    .getByRole('spinbutton', { name: 'Boat, twin · stretch x' })
    .or(page.getByLabel('Boat, twin · stretch x'))
    .first()
    .fill('-100')
  await page.keyboard.press('Enter')
  await expect
    .poll(async () => (await find('Boat, twin')) as TwinPiece)
    .toMatchObject({ source: 'boat', stretchX: -100 })
  const whole = await pixels(page)
  await page.getByRole('button', { name: /^Pour or finish/ }).click()
  await page.getByRole('menuitem', { name: 'Matte', exact: true }).click()
  await page.getByLabel('Boat, twin · matte within').selectOption({ label: 'Word' })
  await expect.poll(() => pixels(page)).not.toBe(whole)
  expect(((await find('Boat, twin'))!.masks[0] as Mask).source).toBe('word')

  // The boat is frozen at the playhead; the ribbon shows the time within once something in there is taken.
  await page.keyboard.press('Escape')
  await page.locator('.ruler').click({ position: { x: 500, y: 10 } })
  await fromMenu(page, 'Boat', 'Freeze here')
  await expect(row(page, 'Boat, time')).toBeVisible()
  await expect(page.locator('.clock', { hasText: 'held at frame' })).toBeVisible()
  const frozen = (await find('Boat, time')) as GroupPiece
  expect(frozen).toMatchObject({ clock: 'keyed', pieces: [{ id: 'boat' }] })
  const still = await pixels(page)
  await row(page, 'Boat').locator('.body').click({ modifiers: [] })
  await page.locator('.piece .body', { has: page.locator('.name', { hasText: /^Boat$/ }) }).click()
  await expect(page.locator('.within')).toHaveText(/within Boat, time/)
  await page.locator('.within').click()
  await expect(page.locator('.within')).toBeHidden()
  await page.keyboard.press('Home')
  // The twin runs with the boat that is frozen: nothing of the picture moves.
  await expect.poll(() => pixels(page)).toBe(still)

  const card = await savedCard(page, id)
  await expectSameBytes(page, card, folder, '--picture', water)
})
