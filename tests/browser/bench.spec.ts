import { readFileSync } from 'node:fs'
import sharp from 'sharp'
import type { Moving } from '../../core/values/moving'
import type { GroupPiece, TypePiece } from '../../core/card/schema'
import { coat, demoCard, emptyCard, engineWithFonts, solid, withType } from '../support/engine'
import { expect, openCard, picture, pixels, savedCard, shown, test } from './bench-page'

const title = () =>
  withType(
    { ...emptyCard(960, 540, 50), name: 'Bench test' },
    { wording: 'Wax', size: 200, id: 'title', name: 'Title' },
    { face: [coat('fill', 'fill-1', { paint: solid('#F2A33C') })] },
  )

test('the first road: type, words, font, coats; every step shows, undoes and is saved', async ({ page }) => {
  const id = await openCard(page, emptyCard(960, 540, 50))
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByText('Words in a font').click()
  // The keyboard is where one writes next: in the new words, in the font, in what is sought.
  await expect(page.getByRole('textbox', { name: 'Wording' })).toBeFocused()
  await page.keyboard.type('Oxbow')
  const plain = await pixels(page)
  await page.getByRole('combobox', { name: 'Font' }).click()
  await page.keyboard.type('bung')
  await expect(page.getByRole('option', { name: /Bungee/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect.poll(() => pixels(page)).not.toBe(plain)

  await page.getByRole('button', { name: 'Pour, form or finish' }).click()
  await expect(page.getByRole('textbox', { name: 'Find a coat, step or finish' })).toBeFocused()
  await page.keyboard.type('stroke')
  const bare = await pixels(page)
  await page.keyboard.press('Enter')
  await expect.poll(() => pixels(page)).not.toBe(bare)
  const thin = await pixels(page)
  const width = page.getByRole('textbox', { name: 'Oxbow · stroke width' })
  await width.fill('24')
  await width.press('Enter')
  await expect.poll(() => pixels(page)).not.toBe(thin)
  const wide = await pixels(page)

  await page.getByRole('button', { name: 'Pour, form or finish' }).click()
  await page.getByRole('menuitem', { name: 'Shadow, outside', exact: true }).click()
  await expect.poll(() => pixels(page)).not.toBe(wide)
  await page.getByRole('button', { name: 'Shadow, outside: switch off' }).click()
  await expect.poll(() => pixels(page)).toBe(wide)

  const card = await savedCard(page, id)
  const piece = card.pieces[0] as TypePiece
  expect(piece.wording).toBe('Oxbow')
  expect(piece.font).toBe('bungee')
  expect(piece.coats.face.map(({ kind, width: w }) => [kind, w])).toEqual([
    ['fill', undefined],
    ['stroke', 24],
  ])
  expect(piece.coats.behind[0]).toMatchObject({ kind: 'shadow', on: false })

  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z')
  await expect.poll(() => pixels(page)).toBe(thin)
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+Shift+z')
  await expect.poll(() => pixels(page)).toBe(wide)
  expect(await savedCard(page, id)).toEqual(card)
  await page.reload()
  await shown(page)
  await expect.poll(() => pixels(page)).toBe(wide)
})

test('a value dragged on its label is followed by the picture and is one step', async ({ page }) => {
  const id = await openCard(page, title())
  await page.getByRole('button', { name: 'Title type' }).click()
  const before = await pixels(page)
  const label = page.locator('.row .label', { hasText: 'Size' })
  await label.scrollIntoViewIfNeeded()
  const box = (await label.boundingBox())!
  await page.mouse.move(box.x + 10, box.y + 8)
  await page.mouse.down()
  await page.mouse.move(box.x + 40, box.y + 8, { steps: 6 })
  await expect.poll(() => pixels(page)).not.toBe(before)
  await page.mouse.move(box.x + 70, box.y + 8, { steps: 6 })
  await page.mouse.up()
  expect((await savedCard(page, id)).pieces[0]).toMatchObject({ size: 260 })
  await page.keyboard.press('Control+z')
  await expect.poll(() => pixels(page)).toBe(before)
})

test('keys: set, moved by a value at another frame, eased, played over the seam', async ({ page }) => {
  const id = await openCard(page, title())
  await page.getByRole('button', { name: 'Title type' }).click()
  await page.getByRole('button', { name: 'Set a key of Title · rotation here' }).click()
  await page.getByRole('slider', { name: 'Frame', exact: true }).focus()
  for (let i = 0; i < 2; i++) await page.keyboard.press('Shift+ArrowRight')
  const start = await pixels(page)
  const rotation = page.getByRole('textbox', { name: 'Title · rotation' })
  await rotation.fill('30')
  await rotation.press('Enter')
  await expect.poll(() => pixels(page)).not.toBe(start)
  await expect(page.locator('.lane')).toHaveCount(1)
  await page.getByRole('button', { name: 'Key of Title · rotation at 0:20' }).click()
  await page.getByLabel('Easing', { exact: true }).selectOption('ease-out')
  const saved = await savedCard(page, id)
  expect(saved.pieces[0]!.rotation).toEqual({
    keys: [
      { frame: 0, value: 0, easing: 'ease-in-out' },
      { frame: 20, value: 30, easing: 'ease-out' },
    ],
  })
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Play the loop' }).click()
  const frame = async () =>
    Number(await page.getByRole('slider', { name: 'Frame', exact: true }).getAttribute('aria-valuenow'))
  // Asked every second, a loop of two would show the same two frames each time.
  await expect.poll(frame, { intervals: [70] }).toBeGreaterThan(40)
  await expect.poll(frame, { intervals: [70] }).toBeLessThan(15)
  await page.getByRole('button', { name: 'Stop' }).click()
})

test('a key dragged on the ribbon lands where it is let go', async ({ page }) => {
  const x: Moving<number> = {
    keys: [
      { frame: 0, value: 400 },
      { frame: 20, value: 560 },
    ],
  }
  const card = title()
  const id = await openCard(page, { ...card, pieces: [{ ...card.pieces[0]!, x }] })
  const key = page.getByRole('button', { name: 'Key of Title · x at 0:20' })
  const first = (await page.getByRole('button', { name: 'Key of Title · x at 0:00' }).boundingBox())!
  const box = (await key.boundingBox())!
  const perFrame = (box.x - first.x) / 20
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + perFrame * 10, box.y + box.height / 2, { steps: 8 })
  await page.mouse.up()
  const moved = (await savedCard(page, id)).pieces[0]!.x as Moving<number>
  expect(moved.keys.map(({ frame }) => frame)).toEqual([0, 30])
})

test('on the stage a piece is moved with the pointer and snaps to the middle; engines share the pictures', async ({
  page,
}) => {
  const card = title()
  // As on a machine of more cores.
  await page.addInitScript(() => {
    const shared: number[] = []
    Object.assign(window, { waxEngines: 3, shared })
    new PerformanceObserver((list) => {
      for (const entry of list.getEntriesByName('wax:draft')) {
        shared.push((entry as PerformanceMeasure & { detail: { engines: number } }).detail.engines)
      }
    }).observe({ entryTypes: ['measure'] })
  })
  const id = await openCard(page, { ...card, pieces: [{ ...card.pieces[0]!, x: 300, y: 200 }] })
  const box = (await picture(page).boundingBox())!
  const zoom = box.width / 960
  await expect(page.locator('.handles polygon')).toBeVisible()
  await page.mouse.move(box.x + 300 * zoom, box.y + 200 * zoom)
  await page.mouse.down()
  // Three pixels beside the middle of the frame.
  await page.mouse.move(box.x + 480 * zoom + 3, box.y + 330 * zoom, { steps: 8 })
  await expect
    .poll(() => page.evaluate(() => Math.max(...(window as unknown as { shared: number[] }).shared)))
    .toBeGreaterThan(1)
  await page.mouse.up()
  // What the hand holds is looked up meanwhile: a drag as quick as this one may be told after it has ended.
  await expect(page.getByRole('textbox', { name: /· y$/i })).not.toHaveValue('200')
  const moved = await savedCard(page, id)
  // Its ink is what stands in the middle, to the tenth of a pixel that places are kept to.
  const { left, right } = engineWithFonts().outlook(moved, 0)[0]!.bounds
  expect(Math.abs((left + right) / 2 - 480)).toBeLessThan(0.11)
  expect(Math.abs(Number(moved.pieces[0]!.y) - 330)).toBeLessThan(3)
  // A press beside the frame is one on nothing.
  const mat = (await page.locator('.mat').boundingBox())!
  await page.mouse.click(mat.x + 6, mat.y + 6)
  await expect(page.getByRole('checkbox', { name: 'Motion blur' })).toBeVisible()
  // The picture that several engines made is that of one.
  const made = await pixels(page)
  await page.reload()
  await shown(page)
  await expect.poll(() => pixels(page)).toBe(made)
})

test('a gradient is made, its colours keyed; the unit of a length changes without a change of the picture', async ({
  page,
}) => {
  const id = await openCard(page, title())
  await page.getByRole('button', { name: 'Fill', exact: true }).click()
  const flat = await pixels(page)
  await page.getByRole('radio', { name: 'Linear', exact: true }).click()
  await expect.poll(() => pixels(page)).not.toBe(flat)
  const colour = page.getByLabel('Title · fill colour 1', { exact: true })
  await colour.fill('#1E6B6A')
  await colour.press('Enter')
  await page.getByRole('button', { name: 'Set a key of Title · fill colour 1 here' }).click()
  await page.locator('body').click({ position: { x: 640, y: 30 } })
  const before = await pixels(page)
  await page.getByRole('button', { name: 'Pour, form or finish' }).click()
  await page.getByRole('menuitem', { name: 'Stroke, inside', exact: true }).click()
  await expect.poll(async () => (await pixels(page)) !== before).toBe(true)
  await page.locator('.settings .room .head .quiet').waitFor()
  const inPx = await pixels(page)
  await page.getByRole('button', { name: 'Unit of Title · stroke width: px' }).click()
  await expect(page.getByRole('button', { name: 'Unit of Title · stroke width: %' })).toBeVisible()
  expect((await pixels(page)) === inPx).toBe(true)
  const saved = (await savedCard(page, id)).pieces[0]!
  const [stroke, fill] = [
    saved.coats.face.find(({ kind }) => kind === 'stroke')!,
    saved.coats.face.find(({ kind }) => kind === 'fill')!,
  ]
  expect(stroke.width).toMatchObject({ unit: '%' })
  expect(fill.paint).toMatchObject({
    type: 'linear',
    stops: [{ at: 0, colour: { keys: [{ frame: 0, value: '#1E6B6A' }] } }, { at: 100 }],
  })
})

test('own fonts: a file that is none is refused by name, a real one is used at once', async ({ page }) => {
  const id = await openCard(page, title())
  await page.getByRole('button', { name: 'Title type' }).click()
  const before = await pixels(page)
  const file = page.locator('[data-test=font-file]')
  await file.setInputFiles({ name: 'letter.ttf', mimeType: 'font/ttf', buffer: Buffer.from('a letter, no font') })
  await expect(page.locator('.v-snackbar span[role=status]')).toContainText(
    'This is no font with outlines. Use a TTF, OTF, WOFF or WOFF2 file.',
  )
  expect(await pixels(page)).toBe(before)
  await file.setInputFiles({ name: 'mine.ttf', mimeType: 'font/ttf', buffer: readFileSync('public/fonts/lobster.ttf') })
  await expect.poll(() => pixels(page)).not.toBe(before)
  expect(((await savedCard(page, id)).pieces[0] as TypePiece).font).toMatch(/^own-/)
  const heavy = await page.request.post('/api/fonts?name=heavy.ttf', { data: Buffer.alloc(30 * 1024 * 1024 + 1) })
  expect(heavy.status()).toBe(413)
  expect(JSON.stringify(await heavy.json())).toContain('30 MB')
})

test('a second window is told of the newer version and loses nothing', async ({ page, context }) => {
  const id = await openCard(page, title())
  const second = await context.newPage()
  await second.goto(`/card/${id}`)
  await shown(second)
  await second.getByRole('button', { name: 'Title type' }).click()
  await second.getByRole('textbox', { name: 'Wording' }).fill('Second')
  await savedCard(second, id)
  await page.getByRole('button', { name: 'Title type' }).click()
  await page.getByRole('textbox', { name: 'Wording' }).fill('First')
  await expect(page.getByRole('alert')).toContainText('changed in another window')
  await page.getByRole('button', { name: 'Keep mine as a copy' }).click()
  await expect(page.getByText('Bench test, copy')).toBeVisible()
  await page.getByRole('button', { name: 'Title type' }).click()
  await expect(page.getByRole('textbox', { name: 'Wording' })).toHaveValue('First')
  expect(((await savedCard(second, id)).pieces[0] as TypePiece).wording).toBe('Second')
})

test('the server refuses what would break a card, and keeps what it has', async ({ page }) => {
  const id = await openCard(page, title())
  const good = await savedCard(page, id)
  const bad = await page.request.put(`/api/cards/${id}`, { data: { document: { ...good, length: -4 }, revision: 1 } })
  expect(bad.status()).toBe(422)
  expect(((await bad.json()) as { data: { place: string } }).data.place).toBe('length')
  expect(await savedCard(page, id)).toEqual(good)
})

test('every kind of coat is poured and shows; a profile is drawn on; a gradient comes in as CSS', async ({ page }) => {
  const id = await openCard(page, title())
  for (const name of ['Bevel, inside', 'Glow, outside', 'Sheen', 'Depth']) {
    const before = await pixels(page)
    await page.getByRole('button', { name: 'Pour, form or finish' }).click()
    await page.getByRole('menuitem', { name, exact: true }).click()
    await expect.poll(() => pixels(page), name).not.toBe(before)
  }
  await page.locator('.slab .title', { hasText: 'Bevel, inside' }).click()
  const straight = await pixels(page)
  await page.getByLabel('Title · bevel profile', { exact: true }).selectOption('ovolo')
  await expect.poll(() => pixels(page)).not.toBe(straight)
  const round = await pixels(page)
  await page.getByLabel('Title · bevel profile', { exact: true }).selectOption('own')
  const point = page.getByRole('group', { name: 'Title · bevel profile, chart' }).getByRole('button').nth(4)
  await point.focus()
  for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowDown')
  await expect.poll(() => pixels(page)).not.toBe(round)

  await page.getByRole('button', { name: 'Fill', exact: true }).click()
  await page.getByRole('radio', { name: 'Linear', exact: true }).click()
  await page.getByText('As CSS').click()
  const css = page.getByLabel('Paint as CSS')
  const before = await pixels(page)
  await css.fill('radial-gradient(circle farthest-side at 30% 40%, #ffe9b8, #b8324a 60%, #1b1420)')
  await css.blur()
  await expect(page.getByRole('radio', { name: 'Radial', exact: true })).toHaveAttribute('aria-checked', 'true')
  await expect.poll(() => pixels(page)).not.toBe(before)
  await css.fill('plaid-gradient(red)')
  await css.blur()
  await expect(page.getByText('This is no CSS gradient.')).toBeVisible()
  const piece = (await savedCard(page, id)).pieces[0]!
  expect(piece.coats.face.map(({ kind }) => kind)).toEqual(['sheen', 'bevel', 'fill'])
  expect(piece.coats.behind.map(({ kind }) => kind)).toEqual(['depth', 'glow'])
  expect(piece.coats.face[1]!.profile).toHaveProperty('points')
})

test('a picture is brought in as a texture; a file that is none, and a huge one, are refused by name', async ({
  page,
}) => {
  const id = await openCard(page, title())
  await page.getByRole('button', { name: 'Fill', exact: true }).click()
  await page.getByRole('radio', { name: 'Texture', exact: true }).click()
  const file = page.locator('[data-test=picture-file]')
  await file.setInputFiles({ name: 'boat.png', mimeType: 'image/png', buffer: Buffer.from('no picture at all') })
  await expect(page.getByText('This file holds no picture that can be read.')).toBeVisible()
  const huge = await sharp({ create: { width: 9000, height: 4000, channels: 3, background: '#fff' } })
    .png()
    .toBuffer()
  await file.setInputFiles({ name: 'huge.png', mimeType: 'image/png', buffer: huge })
  await expect(page.getByText('The picture has 9000×4000 px.')).toBeVisible()
  const before = await pixels(page)
  const stripes = Buffer.from([255, 0, 0, 255, 0, 0, 255, 255, 0, 255, 0, 255, 255, 255, 0, 255])
  const small = await sharp(stripes, { raw: { width: 2, height: 2, channels: 4 } })
    .png()
    .toBuffer()
  await file.setInputFiles({ name: 'stripes.png', mimeType: 'image/png', buffer: small })
  await expect.poll(() => pixels(page)).not.toBe(before)
  const paint = (await savedCard(page, id)).pieces[0]!.coats.face[0]!.paint
  expect(paint).toMatchObject({
    type: 'texture',
    pattern: 'picture',
    picture: expect.stringMatching(/^picture-[0-9a-f]{16}$/),
  })
})

test('shapes and groups stand in the stack and are edited there', async ({ page }) => {
  const id = await openCard(page, demoCard('08-lift'))
  await page.getByRole('button', { name: 'Time plate', exact: false }).first().click()
  await expect(page.locator('.slab .title', { hasText: 'Bevel, inside' })).toBeVisible()
  const before = await pixels(page)
  await page.getByRole('button', { name: 'Plate box', exact: false }).click()
  const corners = page.getByRole('textbox', { name: 'Plate · corners' })
  await corners.fill('90')
  await corners.press('Enter')
  await expect.poll(() => pixels(page)).not.toBe(before)
  const flat = await pixels(page)
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByText('A circle or an ellipse').click()
  await expect.poll(() => pixels(page)).not.toBe(flat)
  const { pieces } = await savedCard(page, id)
  expect(pieces[0]).toMatchObject({ kind: 'ellipse' })
  const group = pieces.find(({ kind }) => kind === 'group') as GroupPiece
  expect(group.pieces.find(({ id: piece }) => piece === 'plate')).toMatchObject({ radius: 90 })
})

test('keys are the designer’s own: one is changed, a taken one is refused, the change stays', async ({ page }) => {
  await openCard(page, title())
  await page.getByRole('button', { name: 'Keys' }).click()
  await page.getByRole('button', { name: /^See the piece or coat alone/ }).click()
  await page.keyboard.press('Control+d')
  await expect(page.getByRole('alert')).toHaveText(/Ctrl\+D is “Duplicate”/)
  await page.keyboard.press('Alt+l')
  await expect(page.getByRole('button', { name: /alone, see all: Alt\+L; change/ })).toBeVisible()
  await page.getByRole('button', { name: 'Close', exact: true }).click()
  await page.reload()
  await shown(page)
  await page.getByRole('button', { name: 'Title type' }).click()
  await page.keyboard.press('i')
  await expect(page.getByText('Alone: Title')).toHaveCount(0)
  await page.keyboard.press('Alt+l')
  await expect(page.getByText('Alone: Title')).toBeVisible()
  await page.keyboard.press('?')
  await page.getByRole('button', { name: 'All as shipped' }).click()
  await expect(page.getByRole('button', { name: /alone, see all: I; change/ })).toBeVisible()
})

test('pieces and coats are renamed where they stand; Escape lets the old name be', async ({ page }) => {
  const id = await openCard(page, { ...demoCard('09-wave'), name: 'Names test' })
  const first = async () => (await savedCard(page, id)).pieces[0]!
  await page.getByRole('button', { name: /^Regatta type/ }).dblclick()
  const field = page.getByLabel('Name of Regatta')
  await field.fill('Not this')
  await field.press('Escape')
  await expect(field).toHaveCount(0)
  expect((await first()).name).toBe('Regatta')
  await page.getByRole('button', { name: /^Regatta type/ }).dblclick()
  await field.fill('Word')
  await field.press('Enter')
  expect((await first()).name).toBe('Word')

  await page.locator('.slab.fill .body').dblclick()
  await page.getByLabel('Name of Fill').fill('Gold')
  await page.locator('.head h2').click()
  expect((await first()).coats.face.find(({ kind }) => kind === 'fill')!.name).toBe('Gold')
})
