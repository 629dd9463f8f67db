import type { Page } from '@playwright/test'
import { allPieces } from '../../core/card/tree'
import { expect, savedCard, shown, test } from './bench-page'

// The first task by keys alone; at every stop the focus is seen.

/** What has the focus is called, and whether that is to be seen. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const here = document.activeElement as HTMLInputElement | null
    const label = here?.labels?.[0]?.textContent ?? ''
    const name = here?.getAttribute('aria-label') ?? (label.trim() || (here?.textContent ?? '').trim())
    // Some show it on what is around them: a tile on its picture, a text field on its frame.
    const around = [here, here?.firstElementChild, here?.parentElement, here?.closest('.v-input')]
    const seen = around.some((element) => {
      if (!element) return false
      const { outlineStyle, outlineWidth, boxShadow, backgroundColor } = getComputedStyle(element)
      const marked = element.getAttribute('role') === 'separator' && backgroundColor !== 'rgba(0, 0, 0, 0)'
      return (outlineStyle !== 'none' && outlineWidth !== '0px') || boxShadow !== 'none' || marked
    })
    return { name, seen, tag: here?.tagName ?? '' }
  })

/** Goes on with Tab to what is called so. */
async function tabTo(page: Page, name: RegExp, most = 120): Promise<void> {
  const passed: string[] = []
  for (let step = 0; step < most; step++) {
    await page.keyboard.press('Tab')
    const here = await focused(page)
    if (here.tag === 'BODY' || here.tag === 'HTML') continue
    passed.push(here.name)
    expect(here.seen, `the focus on “${here.name}” (${here.tag}) is seen`).toBe(true)
    if (name.test(here.name)) return
  }
  throw new Error(`Tab did not come to ${String(name)}, but to: ${passed.join(' | ')}`)
}

test('a lower third with my name, rendered: by keys alone', async ({ page }) => {
  test.setTimeout(180_000)
  await page.goto('/')
  await page.locator('article').first().waitFor()
  await tabTo(page, /^New card$/)
  await page.keyboard.press('Enter')
  await page.getByRole('region', { name: 'New card' }).waitFor()
  await tabTo(page, /^Quiet strip/)
  await page.keyboard.press('Enter')
  const form = page.getByRole('form', { name: 'Words and colours' })
  await form.waitFor()
  await tabTo(page, /^Name\s*$/)
  await page.keyboard.type('Isolde Brook')
  await tabTo(page, /^Role\s*$/)
  await page.keyboard.type('Ferrywoman')
  await tabTo(page, /^Fog$/)
  await page.keyboard.press('Space')
  await tabTo(page, /^Make the card$/)
  await page.keyboard.press('Enter')
  await shown(page)
  const id = new URL(page.url()).pathname.split('/').at(-1)!
  // One field finds everything; a value that was found has the focus.
  await page.keyboard.press('/')
  await page.getByRole('combobox', { name: 'Find anything' }).waitFor()
  await page.keyboard.type('name · tracking')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Name · tracking' })).toBeFocused()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('30')
  await page.keyboard.press('Enter')
  const card = await savedCard(page, id)
  const type = allPieces(card.pieces).find((piece) => piece.id === 'name')!
  expect(type).toMatchObject({ kind: 'type', wording: 'Isolde Brook', tracking: 30 })
  await page.keyboard.press('Escape')
  await tabTo(page, /^Render with transparency$/)
  await page.keyboard.press('Enter')
  await page.getByRole('form', { name: 'Render' }).waitFor()
  await tabTo(page, /^Last frame/)
  await page.keyboard.press('Control+a')
  await page.keyboard.type('4')
  await tabTo(page, /^Start the render$/)
  await page.keyboard.press('Enter')
  await expect(page.locator('article.item').first()).toHaveAttribute('data-status', 'done', { timeout: 90_000 })
})

test('at 200 % on a screen of 1280 × 800 nothing is lost', async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 400 })
  for (const path of ['/', '/help', '/renders', '/card/demo-02-lower-third']) {
    await page.goto(path)
    if (path.startsWith('/card')) await shown(page)
    else await page.locator('main').waitFor()
    // Every button can be scrolled to: none lies beyond what scrolls.
    const lost = await page.evaluate(() => {
      const clipped: string[] = []
      for (const button of document.querySelectorAll<HTMLElement>('header button, header a, main button')) {
        button.scrollIntoView({ block: 'nearest', inline: 'nearest' })
        const { left, right, top, bottom, width } = button.getBoundingClientRect()
        const outside = right < 1 || bottom < 1 || left > innerWidth - 1 || top > innerHeight - 1
        if (width > 0 && outside) clipped.push(button.getAttribute('aria-label') ?? button.textContent ?? '')
      }
      return clipped
    })
    expect(lost, path).toEqual([])
  }
})
