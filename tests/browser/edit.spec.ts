import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { addColumn, addRows, setCells } from '../../core/rosters/edit'
import { makeField } from '../../core/rosters/field-edit'
import { createRoster } from '../../core/rosters/roster'
import { coat, demoCard, emptyCard, solid, withType } from '../support/engine'
import { expect, openCard, test } from './bench-page'

// The stand-in edit: what an editing program shows of a delivered file.

const folder = mkdtempSync(join(tmpdir(), 'wax-edit-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

const item = (page: Page) => page.locator('article.item').first()

async function made(page: Page, kind: string, data: object): Promise<{ id: string }> {
  return (await (await page.request.post(`/api/${kind}`, { data })).json()) as { id: string }
}

/** Renders of one card, at once. */
async function rendered(page: Page, ...options: object[]): Promise<string[]> {
  const document = { ...demoCard('02-lower-third'), name: 'Edit test' }
  const card = await made(page, 'cards', { document })
  const renders = await Promise.all(options.map((wish) => made(page, 'renders', { cardId: card.id, options: wish })))
  for (const { id } of renders) await finished(page, id)
  return renders.map(({ id }) => id)
}

async function finished(page: Page, id: string) {
  const status = async () =>
    ((await (await page.request.get(`/api/renders/${id}`)).json()) as { status: string }).status
  await expect.poll(status, { timeout: 60_000 }).toBe('done')
}

/** The colour of the middle of the picture in the room. */
const middle = (page: Page) =>
  page.evaluate(() => {
    const canvas = document.querySelector('canvas')!
    return [...canvas.getContext('2d')!.getImageData(canvas.width / 2, canvas.height / 3, 1, 1).data]
  })

test('a new user renders a lower third of 12 s, tries it in an edit, sees the proof and takes it away', async ({
  page,
}) => {
  await openCard(page, { ...demoCard('02-lower-third'), name: 'Road · strip' })
  await page.getByRole('button', { name: 'Render with transparency' }).click()
  const form = page.getByRole('form', { name: 'Render' })
  await form.getByRole('radio', { name: 'ProRes 4444' }).click()
  await form.getByLabel('or a length').fill('12:00')
  await form.getByLabel('or a length').press('Tab')
  await form.getByLabel('Size').selectOption('50 %, 960×540')
  await form.getByRole('button', { name: 'Start the render' }).click()
  await expect(item(page)).toContainText('ProRes 4444')
  await expect(item(page).getByRole('progressbar')).toBeVisible()
  await expect(item(page)).toHaveAttribute('data-status', 'done', { timeout: 80_000 })
  await expect(item(page)).toContainText('Transparency verified')
  await expect(item(page).locator('img')).toHaveJSProperty('complete', true)

  await item(page).getByRole('link', { name: 'Try in an edit' }).click()
  const canvas = page.locator('canvas')
  await expect(canvas).toHaveAttribute('data-shown', /^file /, { timeout: 30_000 })
  await page.getByRole('radio', { name: 'Difference' }).click()
  await expect(page.getByRole('status')).toContainText(/Off by \d of 255 at most/, { timeout: 30_000 })
  await page.getByRole('button', { name: 'Play' }).click()
  await expect(page.getByRole('radio', { name: 'The file' })).toBeChecked()
  const before = await page.locator('.time').textContent()
  await expect(page.locator('.time')).not.toHaveText(before!)
  await page.getByRole('link', { name: 'Back to the press room' }).click()

  await item(page).getByRole('button', { name: /more$/ }).click()
  await page.getByRole('listitem').filter({ hasText: 'Proof' }).click()
  const sheet = page.getByRole('region', { name: 'Proof' })
  await expect(sheet.locator('[data-check=seam]')).toBeVisible({ timeout: 60_000 })
  await sheet.locator('[data-check=contrast]').getByRole('button', { name: 'See it' }).click()
  await expect(sheet.locator('[data-shown=contrast] canvas')).toBeVisible()
  await sheet.locator('[data-check=flashes]').getByRole('button', { name: 'See it' }).click()
  await expect(sheet.getByRole('img', { name: 'Luminance over time' })).toBeVisible()
  await sheet.getByRole('button', { name: 'Close' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    item(page).getByRole('link', { name: 'Download' }).click(),
  ])
  expect(download.suggestedFilename()).toMatch(/\.mov$/)
})

test('of a lossless file nothing differs; footage of one’s own lies beneath', async ({ page }) => {
  const [id] = await rendered(page, { format: 'apng', from: 40, to: 46, scale: 0.5 })
  await page.goto(`/renders/${id}`)
  const canvas = page.locator('canvas')
  await page.getByRole('radio', { name: 'Difference' }).click()
  await expect(page.getByRole('status')).toHaveText('This frame is the same, over this footage', { timeout: 30_000 })
  await page.getByRole('radio', { name: 'The file' }).click()
  await expect(canvas).toHaveAttribute('data-shown', /^file /)
  // Above the lower third nothing but footage is seen.
  const dusk = await middle(page)
  await page.locator('[data-test=footage]').setInputFiles('public/footage/bright-fog.webm')
  await expect.poll(async () => (await middle(page))[2]! - dusk[2]!).toBeGreaterThan(60)
  await page.getByLabel('Begins at').fill('2')
  await page.getByRole('slider', { name: 'Moment' }).fill('0')
  await expect(page.locator('footer')).toContainText('footage alone')
})

test('a programme is held against the engine row by row', async ({ page }) => {
  const bare = withType(
    { ...emptyCard(320, 180, 12), name: 'Programme test' },
    { id: 'name', name: 'Name', wording: 'Nobody', size: 40, x: 160, y: 90 } as never,
    { face: [coat('fill', 'fill', { paint: solid('#F2A33C') })] },
  )
  const card = await made(page, 'cards', { document: makeField(bare, 'name/wording') })
  const table = addRows(addColumn(createRoster('Two rows'), 'Name').roster, 2).roster
  const cells = [
    ['Ada', '10:00:00:00', '10:00:00:12'],
    ['Tam Voss', '10:00:00:15', '10:00:01:02'],
  ].flatMap(([name, from, to], i) => [
    { row: `row-${i + 1}`, column: 'column-1', text: name! },
    { row: `row-${i + 1}`, column: ':in', text: from! },
    { row: `row-${i + 1}`, column: ':out', text: to! },
  ])
  const roster = await made(page, 'rosters', { document: setCells(table, cells), cardId: card.id })
  const wish = { cardId: card.id, rosterId: roster.id, as: 'programme', options: { format: 'apng' } }
  const batch = await made(page, 'batches', wish)
  const { renders } = (await (await page.request.get(`/api/batches/${batch.id}`)).json()) as {
    renders: { id: string }[]
  }
  await finished(page, renders[0]!.id)
  await page.goto(`/renders/${renders[0]!.id}`)
  await page.getByRole('radio', { name: 'Difference' }).click()
  const same = 'This frame is the same, over this footage'
  await expect(page.getByRole('status')).toHaveText(same, { timeout: 30_000 })
  // The first row, what lies between them, the second row: the file begins a second after the footage.
  for (const frame of [5, 13, 20].map((place) => place + 25)) {
    await page.getByRole('slider', { name: 'Moment' }).fill(String(frame))
    await expect(page.locator('canvas')).toHaveAttribute('data-shown', `difference ${frame}`, { timeout: 30_000 })
    await expect(page.getByRole('status')).toHaveText(same)
  }
})

test('Chromium plays the WebM over red and over green as it was read, and reads every picture of WebP and APNG so', async ({
  page,
}) => {
  const part = { from: 30, to: 42, scale: 0.5 }
  const few = { from: 30, to: 36, scale: 0.5 }
  const [webm, ...pictures] = await rendered(
    page,
    { format: 'webm', ...part },
    { format: 'webp', ...few },
    { format: 'apng', ...few },
  )
  await page.goto('/sign-in')
  const worst = await page.evaluate(async (render) => {
    const video = document.createElement('video')
    video.muted = true
    video.src = `/api/renders/${render}/files/0`
    await new Promise((go) => video.addEventListener('loadeddata', go, { once: true }))
    const canvas = new OffscreenCanvas(video.videoWidth, video.videoHeight)
    const context = canvas.getContext('2d', { willReadFrequently: true })!
    const over = (colour: string, picture: CanvasImageSource) => {
      context.fillStyle = colour
      context.fillRect(0, 0, canvas.width, canvas.height)
      context.drawImage(picture, 0, 0)
      return context.getImageData(0, 0, canvas.width, canvas.height).data
    }
    const found: { mean: number; far: number }[] = []
    for (const frame of [0, 5, 11]) {
      const there = new Promise((go) => video.requestVideoFrameCallback(go))
      video.currentTime = (frame + 0.5) / 25
      await there
      const png = await (await fetch(`/api/renders/${render}/as-read/${frame}`)).blob()
      const read = await createImageBitmap(png)
      for (const colour of ['#ff0000', '#00ff00']) {
        const played = over(colour, video)
        const wanted = over(colour, read)
        let [sum, far] = [0, 0]
        for (let i = 0; i < played.length; i++) {
          const off = Math.abs(played[i]! - wanted[i]!)
          sum += off
          if (off > 48) far++
        }
        found.push({ mean: sum / played.length, far: far / played.length })
      }
    }
    return found
  }, webm!)
  // Chromas are filled in between their pixels by Chromium, and stand for four of them here: edges differ, nothing else does.
  for (const { mean, far } of worst) {
    expect(mean).toBeLessThan(0.5)
    expect(far).toBeLessThan(0.004)
  }

  for (const [i, type] of ['image/webp', 'image/png'].entries()) {
    const found = await page.evaluate(
      async ([render, mediaType]) => {
        const data = await (await fetch(`/api/renders/${render}/files/0`)).arrayBuffer()
        const decoder = new ImageDecoder({ data, type: mediaType })
        await decoder.tracks.ready
        await decoder.completed
        const { frameCount } = decoder.tracks.selectedTrack!
        let most = 0
        for (let frame = 0; frame < frameCount; frame++) {
          const { image } = await decoder.decode({ frameIndex: frame })
          const canvas = new OffscreenCanvas(image.displayWidth, image.displayHeight)
          const context = canvas.getContext('2d', { willReadFrequently: true })!
          const over = (colour: string, picture: CanvasImageSource) => {
            context.fillStyle = colour
            context.fillRect(0, 0, canvas.width, canvas.height)
            context.drawImage(picture, 0, 0)
            return context.getImageData(0, 0, canvas.width, canvas.height).data
          }
          const read = await createImageBitmap(await (await fetch(`/api/renders/${render}/as-read/${frame}`)).blob())
          for (const colour of ['#ff0000', '#00ff00']) {
            const theirs = over(colour, image)
            over(colour, read).forEach((value, i) => (most = Math.max(most, Math.abs(value - theirs[i]!))))
          }
          image.close()
        }
        return { frameCount, most }
      },
      [pictures[i]!, type] as const,
    )
    // Canvases round premultiplied colours.
    expect(found.frameCount).toBe(6)
    expect(found.most).toBeLessThanOrEqual(1)
  }
})
