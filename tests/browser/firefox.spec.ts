import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import puppeteer from 'puppeteer-core'
import type { Browser, Page } from 'puppeteer-core'
import type { Card } from '../../core/card/schema'
import { expect, expectSameFrame, test } from './bench-page'

// The first task in another browser, driven over WebDriver BiDi: the same road, the same bytes.

let browser: Browser
test.beforeAll(async () => {
  browser = await puppeteer.launch({
    ...{ browser: 'firefox', headless: true },
    executablePath: process.env.FIREFOX ?? '/usr/bin/firefox-esr',
  })
})
test.afterAll(() => browser.close())

/** The first that fits and is shown. */
async function press(page: Page, selector: string): Promise<void> {
  await page.locator(selector).setTimeout(30_000).click()
}

test('a lower third with my name in Firefox: nothing breaks, and its frames have the same bytes', async () => {
  test.setTimeout(180_000)
  const page = await browser.newPage()
  await page.setViewport({ width: 1280, height: 800 })
  const errors: string[] = []
  page.on('pageerror', (error) => errors.push(String(error)))
  await page.goto(process.env.WAX_ADDRESS!)
  await page.evaluate(() => localStorage.setItem('wax-first-notes', 'true'))
  await press(page, 'header .wax-button')
  await press(page, 'button[aria-label^="Quiet strip"]')
  await page.locator('form[aria-label="Words and colours"] input[placeholder="Odile Marsh"]').fill('Isolde Brook')
  await page.locator('form[aria-label="Words and colours"] input[placeholder^="Boat builder"]').fill('Ferrywoman')
  await press(page, 'form[aria-label="Words and colours"] .foot .wax-button')
  await page.waitForSelector('.bench[data-ready=true]', { timeout: 60_000 })
  await page.waitForFunction(() => document.querySelector('[data-test=save-state]')?.textContent === 'saved')
  const id = new URL(page.url()).pathname.split('/').at(-1)!
  const { document: card } = await page.evaluate(
    async (one) => (await (await fetch(`/api/cards/${one}`)).json()) as { document: Card },
    id,
  )
  expect(JSON.stringify(card)).toContain('Isolde Brook')
  const hash = await page.evaluate((shown, frame) => window.waxFrameHash!(shown, frame), card as never, 100)
  await expectSameFrame(hash, card, 100, mkdtempSync(join(tmpdir(), 'wax-firefox-')))
  // Scroll bars are in our colours here as well.
  expect(
    await page.evaluate(() => getComputedStyle(document.querySelector('.settings .room')!).scrollbarColor),
  ).not.toBe('auto')
  await press(page, 'header .tools .wax-button')
  await press(page, 'form[aria-label="Render"] button[role=radio][title]')
  await page
    .locator('form[aria-label="Render"] .range input:last-of-type, form[aria-label="Render"] ::-p-aria(Last frame)')
    .fill('4')
  await press(page, 'form[aria-label="Render"] .wax-button')
  await page.waitForSelector('article.item[data-status=done]', { timeout: 120_000 })
  expect(errors).toEqual([])
})
