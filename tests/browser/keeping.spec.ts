import { readFileSync } from 'node:fs'
import { strToU8, unzipSync, zipSync } from 'fflate'
import sharp from 'sharp'
import type { GroupPiece, PicturePiece } from '../../core/card/schema'
import { demoCard, emptyCard } from '../support/engine'
import { expect, openCard, pixels, savedCard, shown, test } from './bench-page'

test('a second window is told of the newer card; it can take over, and what it saved over is kept', async ({
  page,
  context,
}) => {
  const id = await openCard(page, { ...demoCard('02-lower-third'), name: 'Two windows' })
  const other = await context.newPage()
  await other.goto(`/card/${id}`)
  await shown(other)
  const rename = async (window: typeof page, name: string) => {
    await window.locator('.piece .body').first().dblclick()
    await window.getByLabel(/^Name of/).fill(name)
    await window.keyboard.press('Enter')
  }
  await rename(page, 'From the first')
  expect((await savedCard(page, id)).pieces[0]!.name).toBe('From the first')
  await expect(other.getByRole('alert')).toContainText('changed in another window')
  await rename(other, 'From the second')
  await expect(other.locator('[data-test=save-state]')).toHaveText('changed elsewhere')
  const stored = await page.request.get(`/api/cards/${id}`)
  expect(((await stored.json()) as { document: { pieces: { name: string }[] } }).document.pieces[0]!.name).toBe(
    'From the first',
  )
  await other.getByRole('button', { name: 'Take over with mine' }).click()
  expect((await savedCard(other, id)).pieces[0]!.name).toBe('From the second')
  await expect(page.getByRole('alert')).toContainText('changed in another window')
  await page.getByRole('button', { name: 'Open the newer one' }).click()
  await expect(page.locator('.piece .body').first()).toContainText('From the second')
  await page.getByRole('button', { name: 'History' }).click()
  await expect(page.getByText('Before another window took over')).toBeVisible()
})

test('versions are named, looked at and restored; restoring is a step that can be undone', async ({ page }) => {
  const id = await openCard(page, { ...demoCard('02-lower-third'), name: 'Versions' })
  const before = await savedCard(page, id)
  await page.getByRole('button', { name: 'History' }).click()
  await page.getByLabel('Name this version').fill('As delivered')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('As delivered')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+a')
  await page.keyboard.press('Delete')
  expect((await savedCard(page, id)).pieces).toEqual([])
  await page.getByRole('button', { name: 'History' }).click()
  // By key: the list may still grow between the press and the release of a pointer.
  await page.getByRole('button', { name: /^As delivered/ }).press('Enter')
  await page.getByRole('button', { name: 'Restore this version' }).press('Enter')
  expect(await savedCard(page, id)).toEqual(before)
  await page.keyboard.press('Control+z')
  expect((await savedCard(page, id)).pieces).toEqual([])
})

test('a card goes out with its fonts and pictures in one archive and comes in again, the same to the pixel', async ({
  page,
}) => {
  const blob = await sharp({ create: { width: 40, height: 30, channels: 4, background: '#E2683C' } })
    .png()
    .toBuffer()
  const id = await openCard(page, { ...emptyCard(480, 270, 10), name: 'Carried along' })
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.locator('[data-test=piece-file]').setInputFiles({ name: 'ember.png', mimeType: 'image/png', buffer: blob })
  // What comes next stands in front of it.
  await expect(page.locator('.piece .body')).toHaveCount(1)
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByText('Words in a font').click()
  const card = await savedCard(page, id)
  expect((card.pieces[1] as PicturePiece).width).toBe(40)
  const look = await pixels(page)

  const archive = await (await page.request.get(`/api/cards/${id}/archive`)).body()
  const entries = unzipSync(new Uint8Array(archive))
  const picture = (card.pieces[1] as PicturePiece).picture!
  expect(Object.keys(entries).sort()).toEqual(
    ['card.json', 'fonts/abril-fatface.ttf', `pictures/${picture}/ember.png`].sort(),
  )
  expect(Buffer.from(entries[`pictures/${picture}/ember.png`]!).equals(blob)).toBe(true)

  await page.goto('/')
  await page
    .locator('[data-test=card-file]')
    .setInputFiles({ name: 'carried.card.zip', mimeType: 'application/zip', buffer: archive })
  await expect(page.getByText('“Carried along” is on the shelf.')).toBeVisible()
  await page.getByRole('link', { name: 'Open Carried along' }).first().click()
  await shown(page)
  await expect.poll(() => pixels(page)).toBe(look)
})

test('what is broken, hostile or too large is refused with words, and nothing comes in', async ({ page }) => {
  await page.goto('/')
  const shelf = page.locator('article[aria-label]')
  // Cards and seals come one after the other: only the whole shelf is counted.
  await page.waitForLoadState('networkidle')
  await expect(shelf.first()).toBeVisible()
  await expect(page.getByRole('button', { name: /^Save [1-9]\d* as a file$/ })).toBeVisible()
  const count = await shelf.count()
  const bring = (name: string, buffer: Buffer) =>
    page.locator('[data-test=card-file]').setInputFiles({ name, mimeType: 'application/json', buffer })
  const seals = JSON.parse(readFileSync('demo/seals/lantern-regatta.seals.json', 'utf8')) as { version: number }
  await bring('newer.seals.json', Buffer.from(JSON.stringify({ ...seals, version: 9 })))
  await expect(page.getByText('The set of seals has version 9.')).toBeVisible()
  await page.keyboard.press('Escape')
  await bring('empty.card.zip', Buffer.from(zipSync({ 'readme.txt': strToU8('nothing') })))
  await expect(page.getByText('The archive holds no card.json.')).toBeVisible()
  await bring('torn.card.zip', Buffer.from('PK no zip at all'))
  await expect(page.getByText('This is no ZIP file that can be read.')).toBeVisible()
  await page.reload()
  await expect(shelf).toHaveCount(count)

  const id = await openCard(page, { ...emptyCard(480, 270, 10), name: 'Refused' })
  const onto = (name: string, mimeType: string, buffer: Buffer) =>
    page.locator('[data-test=piece-file]').setInputFiles({ name, mimeType, buffer })
  await onto('torn.svg', 'image/svg+xml', Buffer.from('<svg><path d="M0 0'))
  await expect(page.getByText(/The SVG cannot be read/)).toBeVisible()
  // 20000 × 10000 px: a picture of 200 million in a few kilobytes.
  const huge = await sharp({
    create: { width: 20_000, height: 10_000, channels: 3, background: '#000' },
    limitInputPixels: false,
  })
    .png({ compressionLevel: 9 })
    .toBuffer()
  await onto('huge.png', 'image/png', huge)
  await expect(page.getByText('The picture has 20000×10000 px.')).toBeVisible()
  expect((await savedCard(page, id)).pieces).toEqual([])

  // A script in an SVG is left where it is; the forms beside it come in.
  const script =
    '<svg xmlns="http://www.w3.org/2000/svg"><script>window.hurt = true</script><rect onload="window.hurt = true" width="80" height="60" fill="teal"/></svg>'
  await onto('script.svg', 'image/svg+xml', Buffer.from(script))
  await expect(page.locator('.piece .body').first()).toContainText('script')
  const group = (await savedCard(page, id)).pieces[0] as GroupPiece
  expect(group.pieces).toHaveLength(1)
  expect(group.pieces[0]!.coats.face[0]!.paint).toEqual({ type: 'solid', colour: '#008080' })
  expect(await page.evaluate(() => 'hurt' in window)).toBe(false)

  await page.locator('.piece .body', { hasText: 'rect' }).click()
  await page.locator('.slab .body').first().click()
  const colour = page.locator('.colour > input').first()
  await colour.fill('not a colour')
  await colour.press('Enter')
  await expect(page.getByText('“not a colour” is no colour.')).toBeVisible()
  await expect(colour).toHaveValue('#008080')
})

test('seals on the shelf: found by tag, named, kept as a file that comes in again', async ({ page }) => {
  await page.goto('/')
  const seals = page.getByRole('region', { name: 'Seals' })
  await expect(seals.locator('article')).not.toHaveCount(0)
  expect(await seals.locator('article').count()).toBeGreaterThanOrEqual(16)
  await seals.getByLabel('Find a seal').fill('metal')
  await expect(seals.locator('article')).toHaveCount(2)
  const waiting = page.waitForEvent('download')
  await seals.getByRole('button', { name: 'Save 2 as a file' }).click()
  const file = await (await waiting).path()
  await page.locator('[data-test=card-file]').setInputFiles({
    name: 'metal.seals.json',
    mimeType: 'application/json',
    buffer: readFileSync(file),
  })
  await expect(page.getByText('2 seals were brought in.')).toBeVisible()
  await expect(seals.locator('article')).toHaveCount(4)
  // Taken away again: other tests count the seals too.
  for (let i = 0; i < 2; i++) {
    await seals
      .locator('article')
      .nth(i * 1)
      .getByRole('button', { name: /, more/ })
      .click()
    await page.getByText('Delete', { exact: true }).click()
    await expect(seals.locator('article')).toHaveCount(3 - i)
  }
})

test('what was done while the server was away outlives its tab, and is offered back', async ({ page, context }) => {
  const id = await openCard(page, { ...demoCard('02-lower-third'), name: 'Kept in the browser' })
  // Not by a route: what is on its way when a page closes would be let through.
  await context.setOffline(true)
  await page.locator('.piece .body').first().dblclick()
  await page.getByLabel(/^Name of/).fill('Never saved')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-test=save-state]')).not.toHaveText('saved')
  // Kept a moment after the edit: asked again and again, as a promise alone would pass for an answer.
  const kept = () =>
    page.evaluate(async () => {
      const open = indexedDB.open('wax-unsaved')
      const database = await new Promise<IDBDatabase>((go) => (open.onsuccess = () => go(open.result)))
      const asked = database.transaction('edits').objectStore('edits').count()
      const count = await new Promise<number>((go) => (asked.onsuccess = () => go(asked.result)))
      database.close()
      return count
    })
  await expect.poll(kept).toBe(1)
  // The tab falls: nothing is asked, nothing is sent.
  await page.close({ runBeforeUnload: false })
  await context.setOffline(false)
  const next = await context.newPage()
  await next.goto(`/card/${id}`)
  await shown(next)
  await expect(next.locator('.piece .body').first()).not.toContainText('Never saved')
  await next.getByRole('button', { name: 'Bring it back' }).click()
  await expect(next.locator('.piece .body').first()).toContainText('Never saved')
  expect((await savedCard(next, id)).pieces[0]!.name).toBe('Never saved')
  await next.reload()
  await shown(next)
  await expect(next.getByRole('button', { name: 'Bring it back' })).toHaveCount(0)
})
