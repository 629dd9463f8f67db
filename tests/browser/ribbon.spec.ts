import type { Page } from '@playwright/test'
import type { Moving } from '../../core/values/moving'
import type { BoxPiece, Card } from '../../core/card/schema'
import { coat, emptyCard, solid, withBox } from '../support/engine'
import { expect, openCard, pixels, savedCard, test } from './bench-page'

const keys = (...at: [number, number][]) => at.map(([frame, value]) => ({ frame, value }))
const fill = (n: number) => coat('fill', `fill-${n}`, { paint: solid('#F2A33C') })

/** Boxes beside each other, front first, on a card of 50 frames. */
function boxes(...values: Partial<BoxPiece>[]): Card {
  const start: Card = { ...emptyCard(960, 540, 50), name: 'Ribbon test' }
  return values.reduceRight<Card>((card, value, i) => {
    const own = { id: `box-${i}`, name: `Box ${i}`, x: 240 + 200 * i, y: 270, width: 120, height: 90, ...value }
    return withBox(card, own, { face: [fill(i)] })
  }, start)
}

const lane = (page: Page, address: string) => page.locator(`[data-lane="${address}"]`)
const moving = async (page: Page, id: string, n: number, name: 'x' | 'y' | 'opacity' | 'rotation') =>
  (await savedCard(page, id)).pieces[n]![name] as Moving<number>
const framesOf = (value: Moving<number>) => value.keys.map(({ frame }) => frame)

/** The pointer's place for a frame on the ribbon, read off two keys. */
async function frameToX(page: Page, address: string, a: number, b: number) {
  const middle = async (frame: number) => {
    const box = (await lane(page, address)
      .getByRole('button', { name: new RegExp(`at 0:${String(frame).padStart(2, '0')}$`) })
      .boundingBox())!
    return box.x + box.width / 2
  }
  const [x, y] = [await middle(a), await middle(b)]
  return (frame: number) => x + ((frame - a) / (b - a)) * (y - x)
}

test('keys of several lanes: netted, nudged, reversed, copied to another piece, taken away', async ({ page }) => {
  const id = await openCard(
    page,
    boxes({ x: { keys: keys([10, 240], [20, 400]) }, opacity: { keys: keys([10, 20], [20, 100]) } }, {}),
  )
  const at = await frameToX(page, 'box-0/x', 10, 20)
  const [first, last] = [
    (await lane(page, 'box-0/x').boundingBox())!,
    (await lane(page, 'box-0/opacity').boundingBox())!,
  ]
  await page.mouse.move(at(7), first.y + 2)
  await page.mouse.down()
  await page.mouse.move(at(23), last.y + last.height - 2, { steps: 6 })
  await page.mouse.up()
  await expect(page.getByText('4 keys')).toBeVisible()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  expect(framesOf(await moving(page, id, 0, 'x'))).toEqual([21, 31])
  expect(framesOf(await moving(page, id, 0, 'opacity'))).toEqual([21, 31])

  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Reverse' }).click()
  await expect(page.getByRole('menuitem', { name: 'Reverse' })).toHaveCount(0)
  expect((await moving(page, id, 0, 'x')).keys.map(({ value }) => value)).toEqual([400, 240])

  await page.keyboard.press('Control+c')
  await page.getByRole('button', { name: 'Box 1 box' }).click()
  for (let i = 0; i < 3; i++) await page.keyboard.press('.')
  await page.keyboard.press('Control+v')
  expect(framesOf(await moving(page, id, 1, 'x'))).toEqual([3, 13])
  expect((await moving(page, id, 1, 'opacity')).keys.map(({ value }) => value)).toEqual([100, 20])
  await page.keyboard.press('Delete')
  expect((await savedCard(page, id)).pieces[1]!.opacity).toBe(100)
})

test('a curve is shaped by its handles, peaks where it is told, and is kept for others', async ({ page }) => {
  const id = await openCard(page, boxes({ x: { keys: keys([0, 240], [25, 600]) } }))
  await lane(page, 'box-0/x')
    .getByRole('button', { name: /at 0:00$/ })
    .click()
  await page.getByRole('button', { name: 'Curves' }).click()
  const handle = page.getByRole('slider', { name: 'Start handle of Box 0 · x' })
  const box = (await handle.boundingBox())!
  await page.mouse.move(box.x + 5, box.y + 5)
  await page.mouse.down()
  await page.mouse.move(box.x + 85, box.y + 5, { steps: 6 })
  await page.mouse.up()
  const easing = async () => (await moving(page, id, 0, 'x')).keys[0]!.easing
  expect(await easing()).toMatch(/^cubic-bezier\(0\.\d+, 0(\.0\d+)?, 1, 1\)$/)
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: /Keep this curve/ }).click()
  expect((await savedCard(page, id)).easings).toEqual([{ name: 'Curve 1', easing: await easing() }])
  await page.getByLabel('Easing', { exact: true }).selectOption({ label: 'peak late' })
  expect(await easing()).toBe('cubic-bezier(0.7, 0, 0.9, 0.2)')
  await page.getByLabel('Easing as CSS text').fill('wobble')
  await page.getByLabel('Easing as CSS text').press('Enter')
  await expect(page.getByText('“wobble” is no easing.')).toBeVisible()
  await page.getByLabel('Easing', { exact: true }).selectOption({ label: 'Curve 1' })
  expect(await easing()).toMatch(/^cubic-bezier\(0\.\d+, 0/)
})

test('motors: given at the value, moving the picture, told of what is wrong', async ({ page }) => {
  const id = await openCard(page, boxes({}))
  await page.getByRole('button', { name: 'Set a key of Box 0 · rotation here' }).click({ button: 'right' })
  const sheet = page.getByRole('dialog', { name: 'Motors of Box 0 · rotation' })
  await sheet.getByRole('button', { name: 'Spin' }).click()
  await sheet.getByLabel('Amount').fill('180')
  await sheet.getByLabel('Amount').press('Enter')
  await expect(sheet.getByText(/makes 0.5 turns in a loop/)).toBeVisible()
  await expect(page.getByRole('button', { name: '1 jump at the seam' })).toBeVisible()
  await sheet.getByRole('button', { name: 'Let it meet' }).click()
  await expect(page.getByRole('button', { name: 'Loop closes' })).toBeVisible()
  expect((await moving(page, id, 0, 'rotation')).motors).toMatchObject([{ kind: 'spin', amount: 360, per: 'loop' }])
  const before = await pixels(page)
  for (let i = 0; i < 6; i++) await page.keyboard.press('.')
  await expect.poll(() => pixels(page)).not.toBe(before)
  // The field shows the value that the motors play around.
  await expect(page.getByRole('textbox', { name: 'Box 0 · rotation' })).toHaveValue('0')

  await sheet.getByRole('button', { name: 'Formula' }).click()
  const formula = sheet.getByLabel('Formula', { exact: true })
  await formula.fill('1 / (f - 10)')
  await formula.press('Enter')
  await expect(sheet.getByRole('alert')).toHaveText(/gives no number at frame 10/)
  await formula.fill('fetch(1)')
  await formula.press('Enter')
  await expect(sheet.getByRole('alert')).toHaveText(/does not know the function fetch/)
  await formula.fill('v + 10 * sin(tau * p)')
  await formula.press('Enter')
  await expect(sheet.getByRole('alert')).toHaveCount(0)
  await sheet.getByRole('button', { name: 'Take Formula away' }).click()
  expect((await moving(page, id, 0, 'rotation')).motors).toHaveLength(1)

  // How far a motor goes can have keys: a lane of its own.
  await sheet.getByRole('button', { name: 'Sway', exact: true }).click()
  const amount = sheet.getByRole('textbox', { name: /sway amount$/ })
  await amount.fill('12')
  await amount.press('Enter')
  await sheet.getByRole('button', { name: /^Set a key of .* sway amount here$/ }).click()
  await expect(page.locator('[data-lane$="/rotation/motors/1/amount"]')).toBeVisible()
  const sway = (await moving(page, id, 0, 'rotation')).motors![1] as unknown as { amount: unknown }
  expect(sway.amount).toMatchObject({ keys: [{ value: 12 }] })
})

test('the seam: what jumps is told, and closed in one step that says what it changes', async ({ page }) => {
  const id = await openCard(page, boxes({ x: { keys: keys([5, 240], [40, 700]), loop: false } }))
  await page.getByRole('button', { name: '1 jump at the seam' }).click()
  const sheet = page.getByRole('dialog').filter({ hasText: 'The seam' })
  await expect(sheet.getByText(/its keys end at another value than they begin with/)).toBeVisible()
  await expect(sheet.getByText('The seam shows')).toBeVisible()
  await expect(sheet.getByText('glides from its last key back to its first, across the seam')).toBeVisible()
  await sheet.getByRole('button', { name: 'Close the loop' }).click()
  await expect(sheet.getByText('The seam does not show')).toBeVisible()
  await sheet.getByRole('button', { name: 'Done' }).click()
  expect((await moving(page, id, 0, 'x')).loop).toBe(true)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: '1 jump at the seam' })).toBeVisible()
})

test('spans are trimmed and moved, a piece is split, a motion is staggered', async ({ page }) => {
  const id = await openCard(page, boxes({ opacity: { keys: keys([0, 0], [10, 100]) } }, {}, {}))
  const at = await frameToX(page, 'box-0/opacity', 0, 10)
  const end = page.getByRole('slider', { name: /^Span of Box 0.*, end$/ })
  const box = (await end.boundingBox())!
  await page.mouse.move(box.x + 3, box.y + 5)
  await page.mouse.down()
  await page.mouse.move(box.x + 3 - (at(10) - at(0)), box.y + 5, { steps: 5 })
  await page.mouse.up()
  const spanOf = async (n: number) => (await savedCard(page, id)).pieces[n]!.span
  expect(await spanOf(0)).toEqual({ in: 0, out: 40 })
  await page.getByRole('slider', { name: /^Span of Box 0.*, first frame$/ }).press('Shift+ArrowRight')
  expect(await spanOf(0)).toEqual({ in: 10, out: 40 })

  await page.getByRole('button', { name: 'Box 0 box' }).click()
  for (let i = 0; i < 20; i++) await page.keyboard.press('.')
  await page.keyboard.press('x')
  expect((await savedCard(page, id)).pieces.map(({ span }) => span)).toEqual([
    { in: 10, out: 20 },
    { in: 20, out: 40 },
    null,
    null,
  ])
  await page.keyboard.press('Control+z')

  await page.getByRole('button', { name: 'Box 0 box' }).click()
  await page.getByRole('button', { name: 'Box 2 box' }).click({ modifiers: ['Shift'] })
  await page.getByRole('button', { name: 'Stagger' }).click()
  await page.getByLabel('Frames later').fill('4')
  await page.getByRole('dialog', { name: 'Stagger' }).getByRole('button', { name: 'Stagger' }).click()
  expect(framesOf(await moving(page, id, 2, 'opacity'))).toEqual([8, 18])
})

test('frames are counted as the designer wishes; the card runs on twos; words change at a key', async ({ page }) => {
  const card = {
    ...boxes({ x: { keys: keys([0, 240], [25, 600]) } }),
    rate: { numerator: 30000, denominator: 1001 },
    length: 3600,
  }
  const id = await openCard(page, card)
  const ruler = page.locator('.ruler')
  await page.getByLabel('Frames written as').selectOption('drop')
  await expect(ruler).toContainText('00:01:00;02')
  await page.getByLabel('Frames written as').selectOption('frames')
  await expect(ruler).toContainText('1800')
  await page.getByLabel('Frames written as').selectOption('seconds')
  await page.getByLabel('Stepped time of the card').selectOption('2')
  expect((await savedCard(page, id)).steps).toBe(2)
  await page.getByRole('button', { name: 'Zones' }).click()
  await expect(ruler).toContainText('hold')
  expect((await savedCard(page, id)).zones).toEqual({ hold: 900, out: 2700 })
})

test('motion blur is the card’s, a piece can be left out of it', async ({ page }) => {
  const id = await openCard(page, boxes({ x: { keys: keys([0, 240], [10, 600]) } }))
  for (let i = 0; i < 5; i++) await page.keyboard.press('.')
  const sharp = await pixels(page)
  await page.keyboard.press('Escape')
  await page.getByLabel('Motion blur').check()
  await expect.poll(() => pixels(page)).not.toBe(sharp)
  expect((await savedCard(page, id)).shutter).toEqual({ angle: 180, phase: 0 })
  await page.getByRole('button', { name: 'Box 0 box' }).click()
  await page.getByLabel('Motion blur').uncheck()
  await expect.poll(() => pixels(page)).toBe(sharp)
})

test('a card with zones plays its hold alone, and is rendered with whole holds', async ({ page }) => {
  await openCard(page, { ...boxes({ x: { keys: keys([0, 240], [10, 400]) } }), zones: { hold: 10, out: 20 } })
  await page.getByRole('button', { name: 'Play the hold again and again' }).click()
  await page.getByRole('button', { name: 'Play the loop' }).click()
  const frame = async () =>
    Number(await page.getByRole('slider', { name: 'Frame', exact: true }).getAttribute('aria-valuenow'))
  await expect.poll(frame).toBeGreaterThan(10)
  // A whole loop takes two seconds: it would have left the hold by then.
  for (let i = 0; i < 20; i++) {
    await page.waitForTimeout(110)
    const now = await frame()
    expect(now).toBeGreaterThanOrEqual(10)
    expect(now).toBeLessThan(20)
  }
  await page.keyboard.press('h')
  await expect.poll(frame).toBeGreaterThan(20)
  await page.getByRole('button', { name: 'Stop' }).click()

  await page.getByRole('button', { name: 'Render with transparency' }).click()
  await page.getByLabel('Holds').fill('4')
  await page.getByRole('button', { name: 'Start the render' }).click()
  const item = page.locator('[data-status]').filter({ hasText: 'Ribbon test' }).first()
  await expect(item).toHaveAttribute('data-status', 'done', { timeout: 60_000 })
  await expect(item).toContainText('80 frames')
})
