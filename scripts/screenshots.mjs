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

  await page.goto('/card/demo-01-opening')
  await shown()
  await page.getByRole('slider', { name: 'Frame', exact: true }).focus()
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowRight')
  await page.waitForTimeout(4000)
  await shoot('bench')
  await page.locator('.slab.fill .body').click()
  await page.waitForTimeout(500)
  await shoot('bench-fill')

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
  await page.goto('/card/demo-13-bent-way')
  await shown()
  await page.waitForTimeout(5000)
  await shoot('bench-way')

  await page.goto('/card/demo-05-names')
  await shown()
  await page.locator('.slab .title', { hasText: 'Bevel' }).click()
  await page.waitForTimeout(2500)
  await shoot('bench-bevel')
  await page.goto('/card/demo-08-lift')
  await shown()
  await page.getByRole('button', { name: 'Time plate', exact: false }).first().click()
  await page.locator('button.pour').click()
  await page.waitForTimeout(2500)
  await shoot('bench-group')

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
  for (const format of ['ProRes 4444', 'PNG sequence']) {
    await page.getByRole('button', { name: 'Render with transparency' }).click()
    const form = page.getByRole('form', { name: 'Render' })
    await form.getByRole('radio', { name: format }).click()
    await form.getByLabel('Last frame').fill('39')
    if (format === 'ProRes 4444') await page.waitForTimeout(500).then(() => shoot('render'))
    await form.getByRole('button', { name: 'Start the render' }).click()
    await page.locator('article.item').first().waitFor()
    if (format === 'ProRes 4444') await page.goto('/card/demo-02-lower-third').then(shown)
  }
  await page.waitForFunction(() => document.querySelectorAll('article[data-status=done]').length === 2, null, {
    timeout: 90_000,
  })
  await shoot('press-room')

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
  await page.goto('/card/demo-25-ball-and-neighbours')
  await page.locator('.bench[data-ready=true]').waitFor()
  await page.getByLabel('Fold Wake').click()
  await page.locator('.piece .body', { hasText: 'Left reflection' }).click()
  await page.locator('.ruler').click({ position: { x: 590, y: 10 } })
  await page.waitForTimeout(3000)
  await shoot('bench-twin')
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
