// `npm run shots`: one current picture of each main view, from the demo data, into docs/screenshots.
import { rmSync } from 'node:fs'
import { chromium } from '@playwright/test'
import { buildApp } from './build-app.mjs'
import { startStand } from './stand.mjs'

const FOLDER = 'docs/screenshots'

if (!process.argv.includes('--built')) buildApp()
rmSync('.wax/shots', { recursive: true, force: true })
const stand = await startStand({ folder: '.wax/shots' })
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: stand.address })
// The notes of the first card lie over the stage.
await page.addInitScript(() => localStorage.setItem('wax-first-notes', 'true'))
const shoot = (name) => page.screenshot({ path: `${FOLDER}/${name}.png` })
const shown = () => page.locator('.bench[data-ready=true]').waitFor()

try {
  await page.goto('/')
  await page.locator('article canvas').nth(1).waitFor()
  // Those that can be seen: the others are made when one comes near them.
  await page.waitForFunction(
    () =>
      [...document.querySelectorAll('article canvas')]
        .filter((canvas) => canvas.getBoundingClientRect().top < window.innerHeight)
        .every((canvas) => canvas.width !== 300),
    null,
    { timeout: 90_000 },
  )
  await page.waitForTimeout(4000)
  await shoot('shelf')

  await page.getByRole('button', { name: 'New card', exact: true }).first().click()
  await page.getByRole('button', { name: /^Ticket/ }).waitFor()
  await page.waitForTimeout(6000)
  await shoot('new-card')
  await page.goto('/help?find=relief')
  await page.getByRole('article', { name: 'Bevel' }).scrollIntoViewIfNeeded()
  await page.waitForTimeout(4000)
  await page
    .getByRole('article', { name: 'Bevel' })
    .getByText(/values/)
    .click()
  await shoot('help')

  await page.goto('/card/demo-01-opening')
  await shown()
  await page.getByRole('slider', { name: 'Frame', exact: true }).focus()
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.waitForTimeout(4000)
  await shoot('bench')

  await page.goto('/card/demo-10-badge-settles')
  await shown()
  await page.getByRole('button', { name: 'Curves' }).click()
  await page.getByRole('slider', { name: 'Frame', exact: true }).focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.locator('[data-lane="badge/rotation"] .name > button').first().click()
  await page.waitForTimeout(5000)
  await shoot('ribbon-curves')
  await page.getByRole('button', { name: 'Loop closes' }).click()
  await page.getByText('The seam does not show').waitFor({ timeout: 240_000 })
  await shoot('seam')

  await page.goto('/card/demo-09-wave')
  await shown()
  await page.getByRole('button', { name: 'Values of Ember' }).click()
  await page.getByRole('slider', { name: 'Frame', exact: true }).focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.mouse.move(600, 700)
  await page.waitForTimeout(5000)
  await shoot('bench-letters')
  await page.goto('/card/demo-16-old-projector')
  await shown()
  await page.getByRole('slider', { name: 'Frame', exact: true }).focus()
  for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.locator('.piece .body', { hasText: 'Lamp' }).click()
  await page.locator('.thin .body', { hasText: 'Flare' }).click()
  await page.waitForTimeout(6000)
  await shoot('bench-wash')
  await page.goto('/card/demo-20-marker-ring')
  await shown()
  await page.getByRole('slider', { name: 'Frame', exact: true }).focus()
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.locator('.piece .body', { hasText: 'Marker' }).click()
  await page.waitForTimeout(5000)
  await shoot('bench-outline')

  await page.goto('/card/demo-05-names')
  await shown()
  await page.locator('.slab .title', { hasText: 'Bevel' }).click()
  await page.waitForTimeout(2500)
  await shoot('bench-bevel')
  await page.goto('/roster/demo-evening')
  await page.locator('.grid[data-ready=true]').waitFor()
  await page.locator('.tabulator-row').nth(8).getByText('overflow').waitFor({ timeout: 60_000 })
  await page.locator('.tabulator-row').nth(8).locator('[tabulator-field="name"]').click()
  await page.waitForTimeout(2500)
  await shoot('roster')

  await page.goto('/card/demo-05-names')
  await shown()
  await page.locator('.piece .body').first().click()
  await page.getByRole('button', { name: 'Press a seal' }).click()
  await page.waitForTimeout(6000)
  await shoot('seals')

  await page.goto('/card/demo-03-badge')
  await shown()
  await page.waitForTimeout(1500)
  await page.keyboard.press('Control+a')
  await page.getByRole('button', { name: 'Evening colours' }).click()
  await page.mouse.move(600, 700)
  await page.waitForTimeout(2500)
  await shoot('bench-several-evening')
  await page.getByRole('button', { name: 'Day colours' }).click()

  await page.goto('/card/demo-02-lower-third')
  await shown()
  await page.getByRole('button', { name: 'Render with transparency' }).click()
  await page.getByRole('form', { name: 'Render' }).getByRole('radio', { name: 'ProRes 4444' }).click()
  await page.waitForTimeout(500)
  await shoot('render')
  const render = async (card, options) => {
    const asked = await page.request.post('/api/renders', { data: { cardId: `demo-${card}`, options } })
    return (await asked.json()).id
  }
  const finished = [
    await render('02-lower-third', { format: 'prores4444', from: 0, to: 100, scale: 0.5 }),
    await render('09-wave', { format: 'webm', from: 0, to: 50, scale: 0.5 }),
    await render('10-badge-settles', { format: 'fillkey', from: 0, to: 40, scale: 0.5 }),
  ]
  await page.goto('/renders')
  await page.waitForFunction(() => document.querySelectorAll('article[data-status=done]').length === 3, null, {
    timeout: 180_000,
  })
  await render('01-opening', { format: 'png', from: 0, to: 150 })
  await page.getByText(/frames a second/).waitFor({ timeout: 60_000 })
  await page.waitForTimeout(2500)
  await shoot('press-room')
  await page.locator('article.item').first().getByRole('button', { name: 'Cancel' }).click()

  await page.goto(`/renders/${finished[0]}`)
  await page.locator('canvas[data-shown]').waitFor()
  await page.getByRole('radio', { name: 'Split' }).click()
  await page.locator('canvas[data-shown^=split]').waitFor()
  const box = await page.locator('canvas').boundingBox()
  await page.mouse.click(box.x + box.width * 0.3, box.y + box.height * 0.5)
  await page.waitForTimeout(2500)
  await shoot('edit')

  await page.goto('/card/demo-01-opening')
  await shown()
  await page.getByRole('slider', { name: 'Frame', exact: true }).focus()
  for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.locator('.piece .body').first().click()
  await page.locator('button.pour').click()
  await page.getByLabel(/^Find a coat/).fill('ellipse mask')
  await page.keyboard.press('Enter')
  await page.getByLabel('Title · ellipse mask feather', { exact: true }).last().fill('90')
  await page.keyboard.press('Enter')
  await page.waitForTimeout(3000)
  await shoot('bench-mask')
  await page.goto('/card/demo-26-ice-and-snow')
  await page.locator('.bench[data-ready=true]').waitFor()
  await page.locator('.piece .body', { hasText: 'Snow' }).click()
  await page.getByRole('button', { name: 'Take the brush' }).click()
  await page.getByRole('radio', { name: 'Snow' }).click()
  await page.mouse.move(700, 200)
  await page.waitForTimeout(3000)
  await shoot('bench-painting')
  await page.keyboard.press('Escape')
  await page.goto('/card/demo-28-from-elsewhere')
  await page.locator('.bench[data-ready=true]').waitFor()
  await page.locator('.piece .body', { hasText: 'Twisting word' }).click()
  await page.locator('.ruler').click({ position: { x: 330, y: 10 } })
  await page.getByRole('button', { name: 'Best cut…' }).click()
  await page.getByText(/It repeats itself after/).waitFor()
  await page.waitForTimeout(3000)
  await shoot('bench-sequence')
} finally {
  await browser.close()
  await stand.stop()
}
