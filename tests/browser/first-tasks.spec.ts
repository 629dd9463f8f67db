import { readFileSync } from 'node:fs'
import type { GroupPiece, TypePiece } from '../../core/card/schema'
import { allPieces } from '../../core/card/tree'
import { cardId, expect, pixels, savedCard, shown, test } from './bench-page'
import { CountedHand } from './counted-hand'

// What newcomers come for, from nothing, by what the screen says; each road has a number of actions that it may take.

test('a lower third with my name over footage, as ProRes 4444: 25 actions at most', async ({ page }) => {
  test.setTimeout(180_000)
  const hand = new CountedHand(page)
  await page.goto('/')
  await hand.press(hand.button('New card').first())
  await hand.press(page.getByRole('button', { name: /^Quiet strip/ }))
  const form = page.getByRole('form', { name: 'Words and colours' })
  await hand.write(form.getByLabel('Name', { exact: true }).first(), 'Isolde Brook')
  await hand.write(form.getByLabel('Role', { exact: true }), 'Ferrywoman')
  await hand.press(form.getByRole('button', { name: 'Plum' }))
  await hand.press(form.getByRole('button', { name: 'Make the card' }))
  await shown(page)
  const card = await savedCard(page, cardId(page.url()))
  expect(card.name).toBe('Isolde Brook · quiet strip')
  const said = allPieces(card.pieces).flatMap((piece) => (piece.kind === 'type' ? [piece.wording] : []))
  expect(said).toEqual(['Isolde Brook', 'Ferrywoman'])
  expect(card.palette).toContain('#2C1230')
  // Over footage: the stage's backdrop moves and is no part of the card.
  hand.actions++
  await page.getByLabel('Backdrop').selectOption('river')
  // A few frames of it are enough to see that it comes.
  await hand.render('ProRes 4444', 4, 150_000)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    hand.press(
      page
        .locator('article.item')
        .first()
        .getByRole('link', { name: /Download/ }),
    ),
  ])
  expect(
    readFileSync((await download.path())!)
      .subarray(4, 8)
      .toString(),
  ).toBe('ftyp')
  expect(hand.actions).toBeLessThanOrEqual(25)
})

test('a neon title that flickers, to be rendered as WebM: 30 actions at most', async ({ page }) => {
  const hand = new CountedHand(page)
  await page.goto('/')
  await hand.press(hand.button('New card').first())
  const sheet = page.getByRole('region', { name: 'New card' })
  await hand.press(sheet.getByRole('button', { name: 'Square' }))
  await hand.press(sheet.getByRole('button', { name: 'Titles' }))
  await hand.press(page.getByRole('button', { name: /^Neon sign/ }))
  const form = page.getByRole('form', { name: 'Words and colours' })
  await hand.write(form.getByLabel('Sign', { exact: true }), 'Open Late')
  // Colours that cannot be read are told before the card is made.
  await form.getByLabel('Board, colour').fill('#ff7788')
  await expect(form.getByText(/hard to read below 4.5/).first()).toBeVisible()
  await hand.press(form.getByRole('button', { name: 'Amber and mint' }))
  await expect(form.getByText(/hard to read/)).toHaveCount(0)
  await hand.press(form.getByRole('button', { name: 'Make the card' }))
  await shown(page)
  const before = await pixels(page)
  await hand.press(
    page
      .getByRole('treeitem', { name: /^Sign/ })
      .or(page.getByText('Sign', { exact: true }))
      .first(),
  )
  await hand.press(hand.button('Move by itself…'))
  await hand.press(page.getByText('Flicker', { exact: true }))
  // It burns unsteadily: not equally bright in the frames that come.
  await expect
    .poll(async () => {
      await page.keyboard.press('.')
      return pixels(page)
    })
    .not.toBe(before)
  const card = await savedCard(page, cardId(page.url()))
  expect(JSON.stringify(card)).toContain('"jitter"')
  await hand.press(hand.button('Render with transparency'))
  await hand.press(page.getByRole('radio', { name: /^WebM/ }))
  await expect(page.getByRole('radio', { name: /^WebM/ })).toHaveAttribute('aria-checked', 'true')
  expect(hand.actions).toBeLessThanOrEqual(30)
})

test('sixty lower thirds from a table: 20 actions at most', async ({ page }) => {
  const hand = new CountedHand(page)
  await page.goto('/')
  await hand.press(hand.button('New card').first())
  await hand.press(page.getByRole('button', { name: /^Stacked blocks/ }))
  await hand.press(hand.button('Make the card'))
  await shown(page)
  await hand.press(page.getByRole('link', { name: 'Shelf' }))
  await hand.press(hand.button('Try an example'))
  await hand.press(page.getByRole('button', { name: /^Take \d+ rows$/ }))
  await page.locator('.grid[data-ready=true]').waitFor()
  await expect(page.locator('.tabulator-col .fills')).toHaveText(['Name', 'Role'])
  await hand.press(hand.button('Render the rows'))
  const form = page.getByRole('form', { name: 'Render' })
  await expect(form).toContainText('60')
  expect(hand.actions).toBeLessThanOrEqual(20)
})

test('my logo with a rim, a glow and a shadow, turning, looped: 30 actions at most', async ({ page }) => {
  const hand = new CountedHand(page)
  await hand.beginEmpty()
  await hand.press(hand.button('Add a piece'))
  await hand.bring(page.locator('[data-test=piece-file]'), 'demo/examples/boat.png')
  await expect(page.getByRole('heading', { name: 'boat' })).toBeVisible()
  await hand.set(/· scale$/, '70')
  for (const coat of ['Stroke, outside', 'Glow, outside', 'Shadow, outside']) {
    await hand.press(hand.button('Pour or finish'))
    await hand.press(page.getByRole('menuitem', { name: coat, exact: true }))
  }
  await hand.press(page.getByText('boat', { exact: true }).first())
  await hand.press(hand.button('Move by itself…'))
  await hand.press(page.getByText('Turn', { exact: true }))
  const [piece] = (await savedCard(page, cardId(page.url()))).pieces
  expect([...piece!.coats.face, ...piece!.coats.behind].map(({ kind }) => kind)).toEqual(['stroke', 'shadow', 'glow'])
  expect(piece!.rotation).toMatchObject({ motors: [{ kind: 'spin', amount: -360, per: 'loop' }] })
  await hand.press(page.getByRole('button', { name: 'Loop closes' }))
  expect(hand.actions).toBeLessThanOrEqual(30)
})

test('a title whose letters fly in and a ring that is drawn around one: 40 actions at most', async ({ page }) => {
  const hand = new CountedHand(page)
  await hand.beginEmpty()
  await hand.press(hand.button('Add a piece'))
  await hand.press(page.getByText('Words in a font'))
  await hand.write(page.getByRole('textbox', { name: 'Wording' }), 'REGATTA')
  await hand.press(hand.button('Move letters'))
  await hand.press(page.getByRole('menuitem', { name: /^Scatter/ }))
  await hand.press(hand.button('Add a piece'))
  await hand.press(page.getByRole('menuitem', { name: 'Draw ellipse' }))
  const stage = (await page.locator('svg.handles').boundingBox())!
  hand.actions++
  await page.mouse.move(stage.x + stage.width * 0.42, stage.y + stage.height * 0.3)
  await page.mouse.down()
  await page.mouse.move(stage.x + stage.width * 0.58, stage.y + stage.height * 0.68, { steps: 8 })
  await page.mouse.up()
  await hand.press(hand.button('Pour, form or finish'))
  await hand.press(page.getByRole('menuitem', { name: 'Line', exact: true }))
  await hand.press(hand.button('Pour, form or finish'))
  await hand.press(page.getByRole('menuitem', { name: 'Draw on', exact: true }))
  await hand.press(page.getByRole('button', { name: /^Set a key of .*end here$/ }))
  await hand.set(/draw on end$/, '0')
  await hand.key('End')
  await hand.set(/draw on end$/, '100')
  const card = await savedCard(page, cardId(page.url()))
  const [ring, title] = card.pieces as [GroupPiece, TypePiece]
  expect(title.ranges.length).toBeGreaterThan(0)
  expect(ring.outlineSteps.map(({ kind }) => kind)).toEqual(['draw-on', 'line'])
  expect(ring.outlineSteps[0]).toMatchObject({ end: { keys: [{ value: 0 }, { value: 100 }] } })
  expect(hand.actions).toBeLessThanOrEqual(40)
})
