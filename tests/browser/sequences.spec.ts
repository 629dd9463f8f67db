import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { strToU8, zipSync } from 'fflate'
import type { Page } from '@playwright/test'
import type { SequencePiece } from '../../core/card/schema'
import { allPieces } from '../../core/card/tree'
import { coat, emptyCard, solid, withType } from '../support/engine'
import { expect, expectSameBytes, openCard, pixels, savedCard, test } from './bench-page'

const folder = mkdtempSync(join(tmpdir(), 'wax-sequences-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

const TWIST = 'demo/sequences/twisting-word.zip'

const start = () =>
  withType(
    { ...emptyCard(640, 360, 80), name: 'Brought in', background: solid('#1E3A46') },
    { id: 'word', name: 'Word', wording: 'QUAY', font: 'anton', size: 190, align: 'centre', x: 320, y: 180 },
    { face: [coat('fill', 'fill', { paint: solid('#FFF6EE') })] },
  )

/** Drops a file on the middle of the stage. */
async function drop(page: Page, path: string, name: string) {
  const data = await page.evaluateHandle(
    ([text, fileName]) => {
      const bytes = Uint8Array.from(atob(text!), (c) => c.charCodeAt(0))
      const transfer = new DataTransfer()
      transfer.items.add(new File([bytes], fileName!))
      return transfer
    },
    [readFileSync(path).toString('base64'), name],
  )
  const { x, y, width, height } = (await page.locator('.screen').first().boundingBox())!
  await page
    .locator('.mat')
    .dispatchEvent('drop', { dataTransfer: data, clientX: x + width / 2, clientY: y + height / 2 })
}

test('a sequence is dropped, cut at its period, put inside a word, cracked and frozen: the same bytes everywhere', async ({
  page,
}) => {
  const id = await openCard(page, start())
  const find = async (kind: string) =>
    allPieces((await savedCard(page, id)).pieces).filter((piece) => piece.kind === kind) as SequencePiece[]
  const before = await pixels(page)
  await drop(page, TWIST, 'twisting-word.zip')
  await expect(page.getByText('58 pictures of 480×150 px, 8 bit')).toBeVisible()
  await expect.poll(() => pixels(page)).not.toBe(before)
  const [dropped] = await find('sequence')
  expect(dropped).toMatchObject({ name: 'twisting-word', width: 480, height: 150, x: 320, y: 180 })
  // Its pictures lie on the ribbon.
  await expect(page.locator('.tile image').first()).toBeVisible()

  // Its best cut: the map says after how many pictures it repeats itself; a point of it can be picked.
  await page.getByRole('button', { name: 'Best cut…' }).click()
  const sheet = page.getByRole('dialog')
  await expect(sheet.getByText(/It repeats itself after 40/)).toBeVisible()
  await expect(sheet.getByText('The seam does not show')).toBeVisible()
  await sheet.locator('rect.ground').click({ position: { x: 20, y: 100 } })
  await expect(sheet.getByText(/of 255, others are/)).toBeVisible()
  await sheet.locator('.cuts button').first().click()
  await sheet.getByRole('button', { name: 'Use this cut' }).click()
  const [cut] = await find('sequence')
  const to = (cut!.clockTo as number) || 58
  expect([to - (cut!.clockFrom as number), cut!.clockEnd]).toEqual([40, 'again'])
  await page.keyboard.press('Delete')
  await expect.poll(async () => (await find('sequence')).length).toBe(0)

  // The same again, in one step within the face of the word.
  await page.locator('.piece .body', { hasText: 'Word' }).click()
  await page.getByRole('button', { name: 'Pour, form or finish' }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('menuitem', { name: 'Picture inside' }).click()
  await (await chooser).setFiles(TWIST)
  await expect.poll(async () => (await find('sequence'))[0]?.masks).toMatchObject([{ kind: 'matte', source: 'word' }])

  // Cracks are taken out of it.
  await page.getByRole('button', { name: 'Pour or finish' }).click()
  await page.getByRole('menuitem', { name: 'Painted mask' }).click()
  await page.getByRole('radio', { name: 'Take' }).click()
  await page.getByRole('radio', { name: 'Crack' }).click()
  const whole = await pixels(page)
  const { x, y, width, height } = (await page.locator('svg.handles').boundingBox())!
  await page.mouse.move(x + width * 0.3, y + height * 0.4)
  await page.mouse.down()
  for (let i = 1; i <= 6; i++) await page.mouse.move(x + width * (0.3 + i * 0.07), y + height * (0.4 + (i % 2) * 0.1))
  await page.mouse.up()
  await expect.poll(() => pixels(page)).not.toBe(whole)
  await page.keyboard.press('Escape')

  // It plays to the middle, and stands still from there on.
  await page.getByRole('button', { name: 'Play' }).focus()
  await page.keyboard.press('End')
  const row = page.locator('.piece', { has: page.locator('.name', { hasText: 'twisting-word' }) }).first()
  await row.hover()
  await page.getByRole('button', { name: 'twisting-word, more' }).click()
  await page.getByText('Freeze here', { exact: true }).click()
  await expect.poll(async () => (await find('sequence'))[0]?.clock).toBe('keyed')
  const card = await savedCard(page, id)
  await expectSameBytes(page, card, folder, '--sequence', TWIST)

  // With its sequence in one file, read where it was never brought in.
  const archive = join(folder, 'shown.card.zip')
  writeFileSync(archive, await (await page.request.get(`/api/cards/${id}/archive`)).body())
  const out = join(folder, 'from-archive')
  execFileSync(process.execPath, ['.wax/node/wax.mjs', 'render', archive, '--frames', '3-3', '--out', out], {
    env: { ...process.env, NUXT_STORAGE: join(folder, 'elsewhere') },
  })
  const only = (name: string) => readFileSync(join(folder, name, readdirSync(join(folder, name))[0]!))
  expect(only('from-archive').equals(only('out'))).toBe(true)
})

test('what is broken is told in one sentence, and nothing is lost', async ({ page }) => {
  const id = await openCard(page, start())
  const before = await pixels(page)
  const broken = join(folder, 'broken.zip')
  writeFileSync(broken, zipSync({ 'wave-1.png': strToU8('no picture at all, but some words that go on for a while') }))
  await page.locator('[data-test=piece-file]').setInputFiles(broken)
  await expect(page.getByText('It is no PNG file.')).toBeVisible()
  writeFileSync(join(folder, 'nothing.mov'), 'nothing')
  await page.locator('[data-test=piece-file]').setInputFiles(join(folder, 'nothing.mov'))
  await expect(page.getByText('The file has no pictures that can be read.')).toBeVisible()
  expect((await savedCard(page, id)).pieces).toHaveLength(1)
  expect(await pixels(page)).toBe(before)

  // A sequence that is gone is named; the card stays as it is.
  const gone = { ...start(), name: 'Gone' }
  const piece = {
    ...{ kind: 'sequence', id: 'away', name: 'Away', x: 320, y: 180 },
    sequence: { id: 'sequence-0123456789abcdef', frames: 5 },
  }
  const response = await page.request.post('/api/cards', { data: { document: { ...gone, pieces: [piece] } } })
  await page.goto(`/card/${((await response.json()) as { id: string }).id}`)
  await expect(page.locator('.mat [role=alert]')).toContainText('Picture 0 of the sequence: It is not here.')
})
