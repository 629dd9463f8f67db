// `npm run bench:drag`: from a moved pointer to the changed picture, in the browser, on every demo card. Prints the
// median and the 95th percentile of pictures while dragging and their mean size, with one engine and with two that share
// each picture; the full picture after rest, and the longest task of the main thread. `--json` for a program.
import { rmSync } from 'node:fs'
import { chromium } from '@playwright/test'
import { buildApp } from './build-app.mjs'
import { startStand } from './stand.mjs'

/** What is dragged: a piece by its middle, a hand of a piece or of one of its outline steps, or a brush. */
const CASES = [
  ...[
    '01-opening',
    '02-lower-third',
    '03-badge',
    '04-neon',
    '05-names',
    '06-soft-relief',
    '07-frozen',
    '08-lift',
    '09-wave',
    '13-bent-way',
  ].map((card) => ({ card })),
  { card: '20-marker-ring', piece: 'Marker', step: 'Draw on', hand: /^End of what is drawn/ },
  { card: '20-marker-ring', piece: 'Marker', step: 'Rough', hand: /^Length of a wave/ },
  { card: '20-marker-ring', piece: 'Marker', hand: /^Right side/ },
  { card: '21-split-title', piece: 'Title in four bands', step: 'Slices', hand: /^How far bands go/ },
  { card: '23-round-badge', piece: 'Dashes', step: 'Dashes', hand: /^Length of a dash/ },
  { card: '23-round-badge', piece: 'Star', step: 'Round', hand: /^Radius of the outer/ },
  { card: '26-ice-and-snow', piece: 'Snow', brush: true },
]
const DRAGS = 3
const MOVES = 90

if (!process.argv.includes('--built')) buildApp()
rmSync('.wax/drag-bench', { recursive: true, force: true })
const stand = await startStand({ folder: '.wax/drag-bench' })
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
})
const json = process.argv.includes('--json')
/** Names on the command line choose among the cards. */
const wanted = process.argv.slice(2).filter((argument) => !argument.startsWith('--'))
/** With one engine, and with two that share each picture. */
const ENGINES = [1, 2]
const rows = []

try {
  for (const one of CASES.filter(({ card }) => wanted.length === 0 || wanted.includes(card)))
    for (const engines of ENGINES) rows.push(await drag(one, engines))
} finally {
  await browser.close()
  await stand.stop()
}
if (json) console.log(JSON.stringify(rows, null, 2))

async function drag({ card: name, piece, step, hand, brush }, engines) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: stand.address })
  await page.addInitScript((count) => {
    globalThis.waxEngines = count
    globalThis.seen = []
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) {
        if (entry.entryType === 'longtask' || entry.name.startsWith('wax:'))
          globalThis.seen.push({ name: entry.name, type: entry.entryType, ms: entry.duration, ...entry.detail })
      }
    }).observe({ entryTypes: ['measure', 'longtask'] })
  }, engines)
  await page.goto(`/card/demo-${name}`)
  await page.locator('.bench[data-ready=true]').waitFor()
  if (piece) await open(page, piece)
  const stage = await page.locator('svg.handles').boundingBox()
  const length = Number(await page.getByRole('slider', { name: 'Frame', exact: true }).getAttribute('aria-valuemax'))
  // The middle of the loop: there most cards are whole.
  await page.getByRole('slider', { name: 'Frame', exact: true }).focus()
  for (let i = 0; i < Math.floor(length / 20); i++) await page.keyboard.press('Shift+ArrowRight')
  // At the seam a piece may be nothing yet.
  await page.locator('.handles polygon').first().waitFor()
  if (step) await page.locator('.thin .body', { hasText: step }).click()
  if (brush) await page.getByRole('button', { name: 'Take the brush' }).click()
  // The loop has been made ready, or as much of it as there was time for: a designer waits for nothing either.
  await page.waitForTimeout(2500)
  await page.evaluate(() => (globalThis.seen.length = 0))
  for (let i = 0; i < DRAGS; i++) {
    const [atX, atY] = name === '02-lower-third' ? [0.2, 0.81] : [0.5, 0.44]
    const [x, y] = hand
      ? await middleOf(page.getByRole('button', { name: hand }))
      : [stage.x + stage.width * atX, stage.y + stage.height * (atY + i * 0.01)]
    await page.mouse.move(x, y)
    await page.mouse.down()
    for (let k = 0; k < MOVES; k++) {
      await page.mouse.move(x + Math.sin(k / 9) * 60, y + Math.cos(k / 7) * 25)
      await page.waitForTimeout(8)
    }
    // Back to where it was: the next drag begins with the same card.
    await page.mouse.move(x, y)
    await page.mouse.up()
    await page.waitForTimeout(700)
  }
  const seen = await page.evaluate(() => globalThis.seen)
  await page.close()
  const sorted = (kind) =>
    seen
      .filter((entry) => entry.name === kind)
      .map(({ ms }) => ms)
      .sort((a, b) => a - b)
  const mean = (values) => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length)
  const at = (values, share) => values[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0
  const [drafts, full, tasks] = [
    sorted('wax:draft'),
    sorted('wax:full'),
    seen.filter(({ type }) => type === 'longtask'),
  ]
  const row = {
    card: name,
    held: brush ? 'a stroke that is painted' : hand ? `${step ?? piece}: ${hand.source.slice(1)}` : 'piece',
    engines,
    drafts: drafts.length,
    mean_share: mean(seen.filter((entry) => entry.name === 'wax:draft').map(({ share }) => share)),
    draft_p50_ms: at(drafts, 0.5),
    draft_p95_ms: at(drafts, 0.95),
    full_worst_ms: at(full, 1),
    longest_task_ms: Math.max(0, ...tasks.map(({ ms }) => ms)),
  }
  const ms = (value) => `${value.toFixed(0)} ms`.padStart(7)
  if (!json) {
    console.log(
      `${name.padEnd(16)} ${row.held.padEnd(34)} ${engines} engine${engines > 1 ? 's' : ' '} draft p50 ${ms(row.draft_p50_ms)}  p95 ${ms(row.draft_p95_ms)} (${row.drafts}, size ${row.mean_share.toFixed(2)})` +
        `  full ${ms(row.full_worst_ms)}  longest task ${ms(row.longest_task_ms)}`,
    )
  }
  return row
}

/** Opens a piece of the stack, and the group that it lies in. */
async function open(page, name) {
  const row = page.locator('.piece .body', { hasText: name })
  for (let i = 0; (await row.count()) === 0 && i < 4; i++) await page.locator('.piece .body').nth(i).click()
  await row.first().click()
}

async function middleOf(hand) {
  await hand.waitFor()
  const { x, y, width, height } = await hand.boundingBox()
  return [x + width / 2, y + height / 2]
}
