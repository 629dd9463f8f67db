import { check, SHEET } from './axe'
import { expect, shown, test } from './bench-page'

// No serious finding of axe on any page, in both themes.

test('shelf', async ({ page }) => {
  await page.goto('/')
  await page.locator('.seals article').first().waitFor()
  await check(page)
})

test('bench: the card, a piece, a coat with its section, a gradient', async ({ page }) => {
  await page.goto('/card/demo-05-names')
  await shown(page)
  await check(page)
  await page.locator('.slab .body').first().click()
  await page.locator('.section svg').waitFor()
  await check(page)
  await page.locator('.slab.fill .body').click()
  await check(page)
  await page.getByRole('button', { name: 'Stack, front to back' }).click()
  await check(page)
})

test('sheets: pour, pieces, seals, history, render', async ({ page }) => {
  await page.goto('/card/demo-02-lower-third')
  await shown(page)
  for (const name of ['Pour, form or finish', 'Add a piece', 'History', 'Press a seal', 'Render with transparency']) {
    await page.getByRole('button', { name, exact: true }).click()
    await page.locator(SHEET).last().waitFor()
    await check(page, { within: SHEET })
    await page.keyboard.press('Escape')
    await expect(page.locator(SHEET)).toHaveCount(0)
  }
})

test('letter motion: its menu and its values; a way on the stage', async ({ page }) => {
  await page.goto('/card/demo-09-wave')
  await shown(page)
  await page.getByRole('button', { name: 'Values of Ember' }).click()
  // Rows that are scrolled out of the panel lie, as this rule sees it, over the ribbon's buttons.
  await check(page, { without: ['target-size'] })
  await page.getByRole('button', { name: 'Move letters' }).click()
  await page.locator(SHEET).last().waitFor()
  await check(page, { within: SHEET })
  await page.goto('/card/demo-13-bent-way')
  await shown(page)
  await page.locator('.route .bend').first().waitFor()
  await check(page)
})

test('roster: the grid, a row, a table that is brought in, what is rendered', async ({ page }) => {
  await page.goto('/roster/demo-evening')
  await page.locator('.grid[data-ready=true]').waitFor()
  await page.locator('.tabulator-row [tabulator-field=name]').first().click()
  await expect(page.getByText(/Nothing to say|It is looked at/)).toBeVisible()
  await check(page)
  await page.locator('[data-test=table-file]').setInputFiles({
    ...{ name: 'more.csv', mimeType: 'text/csv' },
    buffer: Buffer.from('Name;Role\nAda Reed;Judge\n'),
  })
  await page.getByRole('region', { name: 'Bring a table in' }).getByRole('button', { name: 'Take 1 row' }).waitFor()
  await check(page)
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Render the rows' }).click()
  await page.getByRole('form', { name: 'Render' }).waitFor()
  await check(page)
})

test('press room', async ({ page }) => {
  await page.goto('/renders')
  await page.getByRole('heading', { name: 'Renders' }).waitFor()
  await check(page)
})
