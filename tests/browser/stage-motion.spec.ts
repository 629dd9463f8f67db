import type { Moving } from '../../core/values/moving'
import type { BoxPiece, Card, PathPiece, TypePiece } from '../../core/card/schema'
import { coat, emptyCard, solid, withBox, withType } from '../support/engine'
import { expect, openCard, picture, pixels, savedCard, test } from './bench-page'

const words = (): Card => ({
  ...withType(
    emptyCard(960, 540, 60),
    { id: 'word', name: 'Word', wording: 'Regatta', font: 'archivo-black', size: 150, x: 480, y: 270 },
    { face: [coat('fill', 'fill-1', { paint: solid('#F2A33C') })] },
  ),
  name: 'Letters test',
})

test('letters rise in by a ready-made motion; its values are changed, it is switched off and taken away', async ({
  page,
}) => {
  const id = await openCard(page, words())
  const still = await pixels(page)
  await page.getByRole('button', { name: 'Move letters' }).click()
  await page.getByRole('menuitem', { name: /^Rise/ }).click()
  // The playhead goes to where letters are on their way; the sweep has a lane of its own.
  await expect(page.getByRole('slider', { name: 'Frame', exact: true })).toHaveAttribute('aria-valuenow', '11')
  await expect.poll(() => pixels(page)).not.toBe(still)
  await expect(page.locator('[data-lane="word/range-1/sweep"]')).toBeVisible()
  const rows = page.locator('section.letters')
  await rows.getByRole('radio', { name: 'Words' }).click()
  await rows.getByLabel('Word · Rise y', { exact: true }).fill('40')
  await rows.getByLabel('Word · Rise y', { exact: true }).press('Enter')
  await rows.getByLabel('Word · Rise order', { exact: true }).selectOption('Shuffled')
  await expect(rows.getByLabel('Word · Rise seed', { exact: true })).toBeVisible()
  const saved = (await savedCard(page, id)).pieces[0] as TypePiece
  expect(saved.ranges[0]).toMatchObject({ units: 'words', y: 40, order: 'shuffle', opacity: 0 })
  expect((saved.ranges[0]!.sweep as Moving<number>).keys.map(({ value }) => value)).toEqual([0, 100, 100])

  await rows.getByRole('button', { name: 'Rise: switch off' }).click()
  await expect.poll(() => pixels(page)).toBe(still)
  await rows.getByRole('button', { name: 'Rise: switch on' }).click()
  await expect.poll(() => pixels(page)).not.toBe(still)
  await rows.getByLabel('Name of Rise').fill('Come up')
  await rows.getByLabel('Name of Rise').press('Enter')
  await rows.getByRole('button', { name: 'Take Come up away' }).click()
  await expect.poll(() => pixels(page)).toBe(still)
  for (let i = 0; i < 2; i++) await page.keyboard.press('Control+z')
  expect(((await savedCard(page, id)).pieces[0] as TypePiece).ranges.map(({ name }) => name)).toEqual(['Rise'])
})

test('several motions stand in an order that can be changed, and a wave has no seam', async ({ page }) => {
  const id = await openCard(page, words())
  for (const name of [/^Wave/, /^From both sides/]) {
    await page.getByRole('button', { name: 'Move letters' }).click()
    await page.getByRole('menuitem', { name }).click()
  }
  await expect(page.getByRole('button', { name: 'Loop closes' })).toBeVisible()
  await page.getByRole('button', { name: 'From the right: earlier' }).click()
  const saved = (await savedCard(page, id)).pieces[0] as TypePiece
  expect(saved.ranges.map(({ name }) => name)).toEqual(['Wave', 'From the right', 'From the left'])
})

test('the way of a piece is bent on the stage, its keys moved, and made straight again', async ({ page }) => {
  const keys = (a: number, b: number) => ({
    keys: [
      { frame: 0, value: a },
      { frame: 30, value: b },
    ],
    loop: false,
  })
  const card = withBox(
    { ...emptyCard(960, 540, 60), name: 'Way test' },
    { id: 'box', name: 'Box', x: keys(200, 760), y: 270, width: 80, height: 60 },
    { face: [coat('fill', 'fill-1', { paint: solid('#F2A33C') })] },
  )
  const id = await openCard(page, card)
  const screen = (await picture(page).boundingBox())!
  const zoom = screen.width / 960
  const drag = async (from: [number, number], to: [number, number]) => {
    await page.mouse.move(screen.x + from[0] * zoom, screen.y + from[1] * zoom)
    await page.mouse.down()
    await page.mouse.move(screen.x + to[0] * zoom, screen.y + to[1] * zoom, { steps: 6 })
    await page.mouse.up()
  }
  // On a straight way the handle stands at a third of it.
  await drag([200 + 560 / 3, 270], [260, 90])
  let box = (await savedCard(page, id)).pieces[0]!
  const [x, y] = [box.x as Moving<number>, box.y as Moving<number>]
  expect(x.keys[0]!.bend!.out).toBeCloseTo(60, -1)
  expect(y.keys[0]!.bend!.out).toBeCloseTo(-180, -1)
  expect(y.keys.map(({ frame }) => frame)).toEqual([0, 30])

  // The other key is dragged, then pressed: the playhead goes there.
  await drag([760, 270], [700, 400])
  box = (await savedCard(page, id)).pieces[0]!
  expect((box.y as Moving<number>).keys[1]!.value).toBeCloseTo(400, -1)
  await page.mouse.click(screen.x + 700 * zoom, screen.y + 400 * zoom)
  await expect(page.locator('.route .bend.in')).toBeVisible()
  await page.locator('.route .bend.in').dblclick()
  box = (await savedCard(page, id)).pieces[0]!
  expect(JSON.stringify(box)).not.toContain('bend')
  await page.keyboard.press('Control+z')
  box = (await savedCard(page, id)).pieces[0]!
  expect((box.x as Moving<number>).keys[0]!.bend!.out).toBeCloseTo(60, -1)
})

test('the handles on the stage are moved by the keyboard too', async ({ page }) => {
  const card = withBox(
    { ...emptyCard(960, 540, 60), name: 'Keys test' },
    { id: 'box', name: 'Box', x: 480, y: 270, width: 200, height: 100 },
    { face: [coat('fill', 'fill-1', { paint: solid('#F2A33C') })] },
  )
  const id = await openCard(page, card)
  const box = async () => (await savedCard(page, id)).pieces[0] as BoxPiece
  const handle = (name: RegExp) => page.getByRole('button', { name })
  await handle(/^Turn what is selected/).focus()
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Shift+ArrowUp')
  await expect.poll(async () => (await box()).rotation).toBe(11)
  await page.keyboard.press('Control+z')
  await handle(/^Right side/).focus()
  // However quickly they come: right after an undo, and one after the other.
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  await expect.poll(async () => (await box()).width).toBe(220)
  expect(await box()).toMatchObject({ width: 220, x: 490, rotation: 0 })
  await handle(/^Upper left corner/).focus()
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowUp')
  await expect.poll(async () => (await box()).height).toBe(101)
  expect(await box()).toMatchObject({ width: 221, height: 101 })

  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByRole('menuitem', { name: /^Path/ }).click()
  const start = ((await savedCard(page, id)).pieces[0] as PathPiece).path
  await page.getByRole('button', { name: 'Edit the points' }).click()
  await handle(/^Point 1 of 7/).focus()
  await page.keyboard.press('Shift+ArrowDown')
  const path = async () => ((await savedCard(page, id)).pieces[0] as PathPiece).path as string
  expect(start).toContain('-150 10')
  await expect.poll(path).toContain('-150 20')
  await page.keyboard.press('Space')
  expect(await path()).toContain('C')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Edit the points' })).toBeVisible()
})
