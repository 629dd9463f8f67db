import type { Card } from '../../core/card/schema'
import { allPieces } from '../../core/card/tree'
import { coat, emptyCard, solid, withBox } from '../support/engine'
import { cardId, expect, openCard, pixels, savedCard, shown, test } from './bench-page'
import { check, SHEET } from './axe'

// What helps those who begin, and how the bench makes room: notes, why nothing shows, help, panels, the stage alone, a second window.

const boxed = (name: string): Card =>
  withBox(
    { ...emptyCard(640, 360, 20), name },
    { id: 'box', name: 'Boat', x: 320, y: 180, width: 200, height: 120 },
    { face: [coat('fill', 'boat-fill', { paint: solid('#E2683C') })] },
  )

test('the first card has three notes; once read they are gone for good', async ({ page, context }) => {
  await openCard(page, boxed('Notes'))
  await expect(page.getByRole('note')).toHaveCount(0)
  const fresh = await context.newPage()
  await fresh.addInitScript(() => {
    if (!sessionStorage.getItem('begun')) localStorage.removeItem('wax-first-notes')
    sessionStorage.setItem('begun', 'yes')
  })
  await fresh.goto(page.url())
  const note = fresh.getByRole('note', { name: 'First steps' })
  await expect(note).toContainText('1 of 3')
  await note.getByRole('button', { name: 'Next' }).click()
  await note.getByRole('button', { name: 'Next' }).click()
  await note.getByRole('button', { name: 'Done' }).click()
  await expect(note).toHaveCount(0)
  await fresh.reload()
  await shown(fresh)
  await expect(fresh.getByRole('note')).toHaveCount(0)
})

test('a piece that is not to be seen says why, where it is, and what helps', async ({ page }) => {
  await openCard(page, boxed('Unseen'))
  const note = page.getByText(/Not to be seen here/)
  await expect(page.getByRole('heading', { name: 'Boat' })).toBeVisible()
  await expect(note).toHaveCount(0)
  const x = page.getByRole('textbox', { name: 'Boat · x', exact: true })
  await x.fill('4000')
  await x.press('Enter')
  await expect(page.getByText(/beyond the edges of the card.*Bring it back/)).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(note).toHaveCount(0)
  const opacity = page.getByRole('textbox', { name: 'Boat · opacity', exact: true })
  await opacity.fill('0')
  await opacity.press('Enter')
  await expect(page.getByText(/Its opacity is 0/)).toBeVisible()
})

test('panels are dragged, folded and remembered; the stage alone; a second window in step', async ({
  page,
  context,
}) => {
  const id = await openCard(page, boxed('Panels'))
  const stage = () => page.locator('.stage').evaluate((element) => element.getBoundingClientRect().width)
  const first = await stage()
  const edge = page.getByRole('separator', { name: 'Settings: width' })
  const at = (await edge.boundingBox())!
  await page.mouse.move(at.x + 3, at.y + 120)
  await page.mouse.down()
  await page.mouse.move(at.x - 77, at.y + 120, { steps: 4 })
  await page.mouse.up()
  expect(first - (await stage())).toBeCloseTo(80, -1)
  // By keys: sixteen pixels at a time, folded by Enter, as it shipped by Home.
  const stack = page.getByRole('separator', { name: 'Stack: width' })
  await stack.focus()
  const before = await stage()
  await page.keyboard.press('ArrowRight')
  expect(before - (await stage())).toBe(16)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('complementary', { name: 'Stack' })).toBeHidden()
  await page.reload()
  await shown(page)
  await expect(page.getByRole('complementary', { name: 'Stack' })).toBeHidden()
  await page.getByRole('separator', { name: 'Stack: width' }).focus()
  await page.keyboard.press('Home')
  await expect(page.getByRole('complementary', { name: 'Stack' })).toBeVisible()
  await page.getByRole('button', { name: 'Whole window' }).click()
  expect(await stage()).toBe(1280)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('complementary', { name: 'Settings' })).toBeVisible()

  const [second] = await Promise.all([
    context.waitForEvent('page'),
    page.getByRole('button', { name: 'Second window' }).click(),
  ])
  await second.getByRole('main', { name: 'The card alone' }).waitFor()
  const seen = () => pixels(second)
  await expect
    .poll(() => second.locator('.screen canvas').evaluate((canvas: HTMLCanvasElement) => canvas.width))
    .toBe(640)
  const one = await seen()
  await page.getByRole('button', { name: 'Boat box' }).click()
  const width = page.getByRole('textbox', { name: 'Boat · width', exact: true })
  await width.fill('400')
  await width.press('Enter')
  await expect.poll(seen).not.toBe(one)
  expect((await savedCard(page, id)).pieces[0]).toMatchObject({ width: 400 })

  // Whichever of the two begins again, they find each other.
  for (const [window, wide] of [
    [second, '300'],
    [page, '500'],
  ] as const) {
    await window.reload()
    await expect.poll(seen).not.toBe('')
    const before = await seen()
    await page.getByRole('button', { name: 'Boat box' }).click()
    await width.fill(wide)
    await width.press('Enter')
    await expect.poll(seen).not.toBe(before)
  }
})

test('one field finds pieces, values, actions, frames and help, and does what was found', async ({ page }) => {
  const id = await openCard(page, boxed('Found'))
  const find = async (words: string) => {
    await page.keyboard.press('/')
    await page.getByRole('combobox', { name: 'Find anything' }).fill(words)
  }
  const options = page.getByRole('listbox', { name: 'Found' }).getByRole('option')
  await find('0:07')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('slider', { name: 'Frame', exact: true })).toHaveAttribute('aria-valuenow', '7')
  await find('boat opac')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Boat · opacity' })).toBeFocused()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Boat box' }).click()
  await find('pour glow')
  await expect(options.first()).toContainText('Pour: glow')
  await page.keyboard.press('Enter')
  expect((await savedCard(page, id)).pieces[0]!.coats.behind.map(({ kind }) => kind)).toEqual(['glow'])
  await find('nothing of the kind')
  await expect(page.getByText(/Nothing here is called/)).toBeVisible()
  await page.keyboard.press('Escape')
})

test('help is found by its words, with pictures by the engine; no serious finding of axe there and in the new card', async ({
  page,
}) => {
  await page.goto('/help#coat-bevel')
  const bevel = page.getByRole('article', { name: 'Bevel' })
  await expect(bevel).toBeInViewport()
  const drawn = (index: number) =>
    bevel
      .locator('canvas')
      .nth(index)
      .evaluate((canvas: HTMLCanvasElement) => (canvas.width !== 300 ? canvas.toDataURL() : ''))
  await expect.poll(() => drawn(1)).not.toBe('')
  expect(await drawn(0)).not.toBe(await drawn(1))
  await page.getByRole('searchbox', { name: 'Find in help' }).fill('nothing show')
  await expect(page.getByRole('article').first()).toContainText('It is switched off')
  await check(page)
  await page.goto('/')
  await page.getByRole('button', { name: 'New card', exact: true }).first().click()
  await page.getByRole('button', { name: /^Closing card: / }).waitFor()
  await check(page, { within: SHEET })
  await page.getByRole('button', { name: /^Closing card: / }).click()
  const form = page.getByRole('form', { name: 'Words and colours' })
  await form.waitFor()
  // A line may stay away: the card has its piece, without words.
  await form
    .getByRole('button', { name: /^Leave out: / })
    .first()
    .click()
  await check(page, { within: SHEET })
  await form.getByRole('button', { name: 'Make the card' }).click()
  await shown(page)
  const said = allPieces((await savedCard(page, cardId(page.url()))).pieces).flatMap((piece) =>
    piece.kind === 'type' ? [piece.wording] : [],
  )
  expect(said.filter((wording) => wording === '')).toHaveLength(1)
  expect(said.length).toBeGreaterThan(1)
})
