import { coat, emptyCard, solid, withBox, withType } from '../support/engine'
import { expect, test } from './bench-page'

const tile = (name: string) => `article[aria-label="${name}"]`

test('lists the demo cards with pictures from the engine, which play under the pointer', async ({ page }) => {
  await page.goto('/')
  const opening = page.locator(tile('Lantern Regatta · opening'))
  // Pictures are made when they come near.
  await opening.scrollIntoViewIfNeeded()
  const canvas = opening.locator('canvas')
  const look = () => canvas.evaluate((c) => (c as HTMLCanvasElement).toDataURL())
  await expect.poll(look).not.toBe(await page.evaluate(() => document.createElement('canvas').toDataURL()))
  await expect.poll(async () => (await look()).length).toBeGreaterThan(8000)
  const still = await look()
  await opening.hover()
  await expect.poll(look).not.toBe(still)
})

test('however many pictures wait for the same font, each tile shows its own card', async ({ page }) => {
  const colours = ['#B03A2E', '#1F6B6B', '#D4A017', '#3B5BA5', '#6D3FA0', '#2E8B57', '#C2185B', '#455A64']
  for (const [i, colour] of colours.entries()) {
    const box = withBox(
      emptyCard(320, 180, 10),
      { x: 160, y: 90, width: 320, height: 180 },
      { face: [coat('fill', 'f', { paint: solid(colour) })] },
    )
    const card = withType(box, { wording: 'Tile', font: 'pacifico', size: 40, x: 160, y: 90 } as never, {
      face: [coat('fill', 'g', { paint: solid('#FFFFFF') })],
    })
    await page.request.post('/api/cards', { data: { document: { ...card, name: `Tile ${i}` } } })
  }
  // All of them are asked for while the font is on its way.
  let asked = 0
  let bring = () => {}
  const brought = new Promise<void>((go) => (bring = go))
  await page.route('**/*pacifico*', async (route) => {
    asked++
    await brought
    await route.continue()
  })
  await page.goto('/')
  for (const i of colours.keys()) {
    await expect(page.getByRole('article', { name: `Tile ${i}`, exact: true })).toBeVisible()
  }
  // By every engine.
  await expect.poll(() => asked).toBeGreaterThan(1)
  bring()
  const corner = (name: string) =>
    page
      .getByRole('article', { name, exact: true })
      .locator('canvas')
      .evaluate((canvas: HTMLCanvasElement) => {
        const [r, g, b, a] = canvas.getContext('2d')!.getImageData(3, 3, 1, 1).data
        const hex = [r!, g!, b!].map((value) => value.toString(16).padStart(2, '0')).join('')
        return a === 255 ? `#${hex}`.toUpperCase() : ''
      })
  for (const [i, colour] of colours.entries()) await expect.poll(() => corner(`Tile ${i}`)).toBe(colour)
})

test('a new card from a size; renamed, duplicated, deleted, and the deletion undone', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'New card', exact: true }).click()
  const sheet = page.getByRole('region', { name: 'New card' })
  await sheet.getByRole('button', { name: 'Empty card' }).click()
  const form = sheet.getByRole('form', { name: 'Empty card' })
  await form.getByLabel('Name').fill('Race number')
  // A size that cannot be is refused before anything is made.
  await form.getByLabel('Width').fill('20000')
  await form.getByRole('button', { name: 'Make the card' }).click()
  await expect(form.getByRole('alert')).toContainText('8192')
  await expect(page).toHaveURL(/\/$/)
  await sheet.getByRole('button', { name: 'Square' }).click()
  await form.getByLabel('Loop, seconds').fill('2')
  await form.getByRole('button', { name: 'Make the card' }).click()
  await expect(page).toHaveURL(/\/card\//)
  await expect(page.getByText('1080×1080 · 25 fps · loop 2:00')).toBeVisible()

  await page.getByRole('link', { name: 'Shelf' }).click()
  const card = page.locator(tile('Race number'))
  await card.getByRole('button', { name: 'Race number, more' }).click()
  await page.getByText('Rename', { exact: true }).click()
  await card.getByLabel('Name').fill('Heat 7')
  await page.keyboard.press('Enter')
  await expect(page.locator(tile('Heat 7'))).toBeVisible()

  await page.getByRole('button', { name: 'Heat 7, more' }).click()
  await page.getByText('Duplicate', { exact: true }).click()
  await expect(page.locator(tile('Heat 7, copy'))).toBeVisible()

  await page.getByRole('button', { name: 'Heat 7, more' }).click()
  await page.getByText('Delete', { exact: true }).click()
  await expect(page.locator(tile('Heat 7'))).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator(tile('Heat 7'))).toBeVisible()
  await page.reload()
  await expect(page.locator(tile('Heat 7'))).toBeVisible()
})

test('a broken card file: every place is named, nothing is changed; a good one comes in', async ({ page }) => {
  await page.goto('/')
  await page.locator(tile('Lantern Regatta · opening')).waitFor()
  const count = async () => ((await (await page.request.get('/api/cards')).json()) as unknown[]).length
  const before = await count()
  const response = await page.request.get('/api/cards/demo-02-lower-third')
  const { document } = (await response.json()) as {
    document: Record<string, unknown> & { pieces: { coats: { face: { kind: string }[] } }[] }
  }
  const file = (content: unknown) => ({
    name: 'strip.card.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(content)),
  })
  const broken = structuredClone(document)
  broken.length = 0
  broken.pieces[0]!.coats.face[0]!.kind = 'varnish'
  await page.locator('[data-test=card-file]').setInputFiles(file(broken))
  const sheet = page.getByRole('alertdialog')
  await expect(sheet).toContainText('pieces[0].coats.face[0].kind')
  await expect(sheet).toContainText('length')
  await sheet.getByRole('button', { name: 'Close' }).click()
  expect(await count()).toBe(before)
  await page.locator('[data-test=card-file]').setInputFiles(file({ ...document, name: 'Strip, brought in' }))
  await expect(page.locator(tile('Strip, brought in'))).toBeVisible()
})

test('a shelf that is opened again shows the pictures that it kept, and fetches no card for them', async ({ page }) => {
  const look = (name: string) =>
    page
      .getByRole('article', { name, exact: true })
      .locator('canvas')
      .evaluate((canvas: HTMLCanvasElement) => (canvas.width === 300 ? '' : canvas.toDataURL()))
  const { id } = await page.request
    .post('/api/cards', { data: { document: { ...emptyCard(320, 180, 10), name: 'Kept' } } })
    .then((answer) => answer.json())
  const boxed = (colour: string) =>
    withBox(
      { ...emptyCard(320, 180, 10), name: 'Kept' },
      { x: 160, y: 90, width: 320, height: 180 },
      { face: [coat('fill', 'f', { paint: solid(colour) })] },
    )
  await page.request.put(`/api/cards/${id}`, { data: { document: boxed('#B03A2E'), revision: 1 } })
  await page.goto('/')
  await expect.poll(() => look('Kept')).not.toBe('')
  const first = await look('Kept')
  const kept = () =>
    page.evaluate(async (address) => {
      for (const name of await caches.keys()) if (await (await caches.open(name)).match(address)) return true
      return false
    }, `/small-pictures/${id}`)
  await expect.poll(kept).toBe(true)
  const asked: string[] = []
  page.on('request', (request) => asked.push(new URL(request.url()).pathname))
  await page.reload()
  await expect.poll(() => look('Kept')).toBe(first)
  expect(asked).not.toContain(`/api/cards/${id}`)
  // Its card is fetched to play it; and of another revision another picture is made.
  await page.getByRole('article', { name: 'Kept', exact: true }).hover()
  await expect.poll(() => asked).toContain(`/api/cards/${id}`)
  await page.request.put(`/api/cards/${id}`, { data: { document: boxed('#1F6B6B'), revision: 2 } })
  await page.reload()
  await expect.poll(async () => ['', first].includes(await look('Kept'))).toBe(false)
})

for (const [name, address, answers] of [
  ['the shelf', '/', ['/api/cards', '/api/rosters', '/api/seals']],
  ['a bench', '/card/demo-02-lower-third', ['/api/cards/demo-02-lower-third', '/api/fonts']],
] as const)
  test(`${name} is told what it needs by its first answer, and asks for it once`, async ({ page }) => {
    const html = await page.request.get(address).then((answer) => answer.text())
    const early = [...html.matchAll(/<link rel="(?:module)?preload"[^>]* href="([^"]+)"/g)].map(([, href]) => href!)
    expect(early).toEqual(expect.arrayContaining([...answers]))
    expect(early.filter((href) => href.endsWith('.js')).length).toBeGreaterThan(4)
    const asked: string[] = []
    page.on('request', (request) => asked.push(new URL(request.url()).pathname))
    await page.goto(address)
    await page.waitForLoadState('networkidle')
    // What was fetched early is what the page then takes: it asks the server no second time.
    for (const answer of answers) expect(asked.filter((path) => path === answer)).toEqual([answer])
    expect(early.filter((href) => !asked.includes(href))).toEqual([])
  })
