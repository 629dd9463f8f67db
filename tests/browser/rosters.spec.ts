import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import type { Card } from '../../core/card/schema'
import type { Roster } from '../../core/rosters/roster'
import { sortRows } from '../../core/rosters/edit'
import { readTable } from '../../core/rosters/table-in'
import { demoCard, emptyCard, withPiece, coat, solid } from '../support/engine'
import { expect, openCard, pixels, savedCard, shown, test } from './bench-page'

// Many names out of one card: fields, the grid, what is found in rows, and their render as one job.

/** A small lower third whose bar does not grow; ten frames, soon rendered. */
const small: Card = (() => {
  const base: Card = { ...emptyCard(320, 180, 10), name: 'Roster test · strip', zones: { hold: 2, out: 8 } }
  const bar = withPiece(base, 'box' as 'type', { x: 100, y: 140, width: 160, height: 30 } as object, {
    face: [coat('fill', 'bar-fill', { paint: solid('#0C2028') })],
  })
  const type = {
    name: 'Name',
    wording: 'Your name',
    font: 'barlow-condensed-bold',
    size: 22,
    align: 'left',
    x: 30,
    y: 140,
  }
  return withPiece(bar, 'type', type as object, { face: [coat('fill', 'name-fill', { paint: solid('#FFF6EE') })] })
})()

const savedRoster = async (page: Page): Promise<Roster> => {
  await expect(page.locator('[data-test=save-state]')).toHaveText('saved')
  const id = new URL(page.url()).pathname.split('/').at(-1)
  const response = await page.request.get(`/api/rosters/${id}`)
  return ((await response.json()) as { document: Roster }).document
}
const cell = (page: Page, row: number, column: string) =>
  page.locator('.tabulator-row').nth(row).locator(`[tabulator-field="${column}"]`)

test('a value becomes a field at its tag, is filled in the form, and the stage shows rows without changing the card', async ({
  page,
}) => {
  const id = await openCard(page, { ...small, name: 'Roster test · fields' })
  await page.getByRole('button', { name: 'Make Name a field' }).click()
  await expect(page.getByText('“Name” is a field now')).toBeVisible()
  await page.getByRole('button', { name: 'Field Name', exact: true }).click()
  await page.getByRole('textbox', { name: 'Name of the field' }).fill('Who')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  expect((await savedCard(page, id)).fields).toEqual([
    { id: 'field-1', label: 'Who', kind: 'wording', at: ['type-1/wording'], variants: [] },
  ])
  await page.getByRole('button', { name: 'Fields', exact: true }).click()
  const form = page.getByRole('region', { name: 'Fields' })
  const before = await pixels(page)
  await form.getByRole('textbox', { name: 'Who' }).fill('Tam Voss')
  await expect.poll(() => pixels(page)).not.toBe(before)
  const own = await pixels(page)
  // A roster for the card has a column for each field.
  await form.getByRole('button', { name: 'New roster' }).click()
  await page.locator('.grid[data-ready=true]').waitFor()
  await expect(page.locator('.tabulator-col .fills')).toHaveText(['Who'])
  // Lines without anything wait for words: none would be a file. What was offered on the bench is left there.
  await expect(page.getByText('5 empty: not rendered')).toBeVisible()
  await expect(page.locator('.tabulator-row').first().getByText('empty', { exact: true })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Render the rows' })).toBeDisabled()
  await expect(page.getByText('“Name” is a field now')).toHaveCount(0)
  await cell(page, 0, 'column-1').dblclick()
  await page.keyboard.type('Ada Reed')
  await page.keyboard.press('Enter')
  await expect(page.getByText('4 empty: not rendered')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Render the rows' })).toBeEnabled()
  expect((await savedRoster(page)).rows[0]!.cells).toEqual({ 'column-1': 'Ada Reed' })
  await page.getByRole('link', { name: 'Show it on the bench' }).click()
  await shown(page)
  await expect(page.getByText('1 of 5; the card stays as it is')).toBeVisible()
  await expect.poll(() => pixels(page)).not.toBe(own)
  await page.getByRole('button', { name: 'Done' }).click()
  await expect.poll(() => pixels(page)).toBe(own)
  const { pieces } = await savedCard(page, id)
  expect(pieces.find((piece) => piece.kind === 'type')).toMatchObject({ wording: 'Tam Voss' })
})

test('names from a CSV: found, fitted, mended in the grid, rendered as one job with report', async ({ page }) => {
  test.slow()
  const fields = [
    { id: 'field-1', label: 'Name', kind: 'wording' as const, at: ['type-1/wording'], variants: [] },
    { id: 'field-2', label: 'Colour', kind: 'colour' as const, at: ['type-1/name-fill/paint/colour'], variants: [] },
  ]
  const id = await openCard(page, { ...small, name: 'Roster test · sixty', fields })
  const names = ['Ada Reed', 'Bartholomew Featherstonehaugh-Quill', 'Tam Voss']
  const rows = [`${names[0]};#F6C667;0`, `${names[1]};;00:00:01:00`, `${names[2]};sunny;`]
  const csv = `Nom;Colour;Start\r\n${rows.join('\r\n')}\r\n`

  await page.goto('/')
  await page.locator('[data-test=roster-file]').setInputFiles({
    ...{ name: 'crews.csv', mimeType: 'text/csv' },
    buffer: Buffer.from(csv, 'utf16le'),
  })
  const sheet = page.getByRole('region', { name: 'Bring a table in' })
  await expect(sheet.getByLabel('Read as')).toHaveValue('utf-16le')
  await expect(sheet.getByLabel('Cells are parted by')).toHaveValue(';')
  await sheet.getByRole('button', { name: 'Take 3 rows' }).click()
  await page.locator('.grid[data-ready=true]').waitFor()
  await page.getByLabel('The card that is filled').selectOption(id)
  await expect(page.getByText('1 with a cell that cannot be read')).toBeVisible()
  // The column has another heading than the field.
  await page.getByLabel('No column is called “Name”').selectOption({ label: 'Nom' })
  await expect(page.locator('.tabulator-col .fills')).toHaveText(['Nom', 'Colour'])

  // What the engine found, and the remedy for all rows.
  const mark = page.locator('.tabulator-row').nth(1).getByText('overflow')
  await expect(mark).toBeVisible()
  await cell(page, 1, 'column-1').click()
  await expect(page.getByText('It reaches beyond the frame.')).toBeVisible()
  await page.getByRole('button', { name: 'Fit to width' }).click()
  await expect(mark).toBeHidden()

  // A cell that cannot be read is told there, and mended.
  await expect(cell(page, 2, 'column-2')).toHaveAttribute('title', /“sunny” is no colour/)
  await cell(page, 2, 'column-2').click()
  await page.keyboard.press('Delete')
  await expect(page.getByText('with a cell that cannot be read')).toBeHidden()
  await page.getByLabel('Undo').click()
  await expect(page.getByText('1 with a cell that cannot be read')).toBeVisible()

  // Pasted from a spreadsheet beyond the last row.
  await cell(page, 2, 'column-1').click()
  await page.evaluate(() => {
    const data = new DataTransfer()
    data.setData('text/plain', 'Tam Voss\t\nNell Tidewater\t#7FC6B8\n')
    document.querySelector('.grid')!.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }))
  })
  await expect(page.locator('.tabulator-row')).toHaveCount(4)
  const saved = await savedRoster(page)
  expect(saved.rows.map(({ cells }) => Object.values(cells))).toEqual([
    ['Ada Reed', '#F6C667'],
    [names[1]],
    ['Tam Voss'],
    ['Nell Tidewater', '#7FC6B8'],
  ])
  expect(saved.rows.map((row) => row.in)).toEqual(['0', '00:00:01:00', '', ''])

  await page.getByRole('button', { name: 'Render the rows' }).click()
  const dialog = page.getByRole('form', { name: 'Render' })
  await dialog.getByRole('radio', { name: /PNG/ }).first().click()
  await expect(dialog.getByText('A file for each of 4 rows')).toBeVisible()
  await dialog.getByRole('button', { name: 'Render 4 rows' }).click()
  const batch = page.locator('.batch').first()
  await expect(batch.getByText('4 of 4 finished and checked')).toBeVisible({ timeout: 120_000 })
  await batch.getByRole('button', { name: 'Rows' }).click()
  await expect(batch.locator('li[data-status=done]')).toHaveCount(4)
  const [archive] = await Promise.all([
    page.waitForEvent('download'),
    batch.getByRole('link', { name: 'Download all' }).click(),
  ])
  const files = unzipSync(new Uint8Array(readFileSync((await archive.path())!)))
  const list = ['ada-reed.zip', 'nell-tidewater.zip', 'tam-voss.zip']
  expect(Object.keys(files)).toEqual(expect.arrayContaining([...list, 'crews-report.csv', 'crews.otio']))
  const report = readTable(files['crews-report.csv']!)
  expect(report.rows.map((cells) => [cells[2], cells[3]])).toEqual(Array(4).fill(['done', '10']))
})

test('rows are looked at when all is known of their card, however late its fonts come', async ({ page }) => {
  await page.route('**/fonts/**', async (route) => {
    await new Promise((go) => setTimeout(go, 400))
    await route.continue()
  })
  await page.goto('/roster/demo-evening')
  await page.locator('.grid[data-ready=true]').waitFor()
  await expect(page.locator('.foot')).toContainText('5 with something found')
  await expect(page.locator('.tabulator-row').nth(4).getByText('legibility')).toBeVisible()
  await expect(page.locator('.tabulator-row').nth(8).getByText('overflow')).toBeVisible()
})

test('the demo roster shows every row small, in several scripts, and goes out as CSV', async ({ page }) => {
  await page.goto('/roster/demo-crews')
  await page.locator('.grid[data-ready=true]').waitFor()
  // As they are seen: the part of the card that they show has the words in it.
  const thumbs = page.locator('.tabulator-row .thumb')
  const look = async (i: number) => (await thumbs.nth(i).screenshot()).toString('base64')
  await expect.poll(async () => new Set([await look(0), await look(1), await look(2), await look(6)]).size).toBe(4)
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ])
  const { headings, rows } = readTable(new Uint8Array(readFileSync((await csv.path())!)))
  expect(headings).toEqual(['Note', 'Name', 'Role', 'Colour', 'Flag', 'Hold'])
  expect(rows).toHaveLength(60)
  expect(rows[6]![1]).toBe('Κλειώ Φαναριώτου')
  expect(demoCard('29-strip-that-grows').fields.map(({ label }) => label)).toEqual(headings.slice(1))

  // Rows are found by their words, and the field keeps all keys that are typed while the grid changes.
  const found = rows.filter((row) => /boat/i.test(row.join(' ')) && /no/i.test(row.join(' '))).length
  await page.getByLabel('Find rows').click()
  await page.keyboard.type('boat no')
  await expect(page.locator('.foot')).toContainText(`${found} shown`)
  await expect(page.getByLabel('Find rows')).toHaveValue('boat no')
  await page.getByLabel('Find rows').fill('')
  // Sorted as one step.
  const before = await savedRoster(page)
  await page.locator('.tabulator-col[tabulator-field=name] .tabulator-header-popup-button').click()
  await page.locator('.tabulator-menu-item').filter({ hasText: 'Sort, last to first' }).click()
  const sorted = await savedRoster(page)
  expect(sorted).toEqual(sortRows(before, 'name', 'falling'))
  await expect(cell(page, 0, 'name')).toHaveText(sorted.rows[0]!.cells.name!)
  await page.getByLabel('Undo').click()
  expect(await savedRoster(page)).toEqual(before)
})
