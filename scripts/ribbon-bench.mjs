// `npm run bench:ribbon`: how smooth the ribbon stays with 2,000 keys on 1,000 lanes of 200 pieces. Prints the median and
// 95th percentile of the time between pictures of the screen, and the longest task of the main thread, while the playhead
// is scrubbed, the ribbon zoomed and scrolled, a key dragged and a net drawn around keys. `--json` for a program.
import { rmSync } from 'node:fs'
import { chromium } from '@playwright/test'
import { buildApp } from './build-app.mjs'
import { startStand } from './stand.mjs'

const [PIECES, LENGTH] = [200, 500]
const LANES = ['x', 'y', 'rotation', 'opacity', 'scale']

const pieces = Array.from({ length: PIECES }, (_, i) => {
  const lanes = LANES.map((name, k) => {
    const frames = [0, 1].map((n) => (i * 7 + k * 31 + n * 211) % LENGTH).sort((a, b) => a - b)
    return [
      name,
      { keys: frames.map((frame, n) => ({ frame, value: 20 + ((i + n * 29 + k) % 60), easing: 'ease-in-out' })) },
    ]
  })
  const fill = { id: `fill-${i}`, kind: 'fill', paint: { type: 'solid', colour: '#E2683C' } }
  const size = { width: 30, height: 20 }
  return {
    id: `box-${i}`,
    kind: 'box',
    name: `Box ${i}`,
    ...size,
    ...Object.fromEntries(lanes),
    coats: { face: [fill] },
  }
})
const document = {
  ...{ format: 'wax-ribbon-card', version: 1, name: 'Many keys', length: LENGTH, pieces },
  frame: { width: 640, height: 360 },
  rate: { numerator: 25, denominator: 1 },
}

buildApp()
rmSync('.wax/ribbon-bench', { recursive: true, force: true })
const stand = await startStand({ folder: '.wax/ribbon-bench' })
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
})
const rows = []
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: stand.address })
  await page.addInitScript(() => {
    globalThis.tasks = []
    globalThis.steps = []
    new PerformanceObserver((list) =>
      globalThis.tasks.push(...list.getEntries().map(({ duration }) => duration)),
    ).observe({
      entryTypes: ['longtask'],
    })
    let last = performance.now()
    const tick = (now) => {
      globalThis.steps.push(now - last)
      last = now
      requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
  })
  const made = await page.request.post('/api/cards', { data: { document } })
  await page.goto(`/card/${(await made.json()).id}`)
  await page.locator('.bench[data-ready=true]').waitFor()
  await page.waitForTimeout(4000)

  const ruler = await page.locator('div.track').boundingBox()
  const at = (share, y) => [ruler.x + 260 + (ruler.width - 300) * share, ruler.y + y]
  await measured('scrub', async () => {
    await page.mouse.move(...at(0.1, 10))
    await page.mouse.down()
    for (let i = 0; i < 90; i++) {
      await page.mouse.move(...at(0.1 + (0.7 * i) / 90, 10))
      await page.waitForTimeout(8)
    }
    await page.mouse.up()
  })
  await measured('scroll', async () => {
    await page.mouse.move(...at(0.5, 120))
    for (let i = 0; i < 60; i++) {
      await page.mouse.wheel(0, i < 30 ? 240 : -240)
      await page.waitForTimeout(16)
    }
  })
  await measured('zoom', async () => {
    await page.keyboard.down('Control')
    for (let i = 0; i < 40; i++) {
      await page.mouse.wheel(0, i < 20 ? -120 : 120)
      await page.waitForTimeout(16)
    }
    await page.keyboard.up('Control')
  })
  await measured('drag a key', async () => {
    const key = await page.locator('[data-lane] .key').first().boundingBox()
    await page.mouse.move(key.x + key.width / 2, key.y + key.height / 2)
    await page.mouse.down()
    for (let i = 0; i < 60; i++) {
      await page.mouse.move(key.x + key.width / 2 + i * 3, key.y + key.height / 2)
      await page.waitForTimeout(8)
    }
    await page.mouse.up()
  })
  await measured('net', async () => {
    await page.mouse.move(...at(0.05, 60))
    await page.mouse.down()
    for (let i = 0; i < 60; i++) {
      await page.mouse.move(...at(0.05 + (0.9 * i) / 60, 60 + i * 2))
      await page.waitForTimeout(8)
    }
    await page.mouse.up()
  })

  async function measured(what, work) {
    await page.evaluate(() => (globalThis.tasks.length = globalThis.steps.length = 0))
    await work()
    const { tasks, steps } = await page.evaluate(() => ({ tasks: globalThis.tasks, steps: globalThis.steps }))
    const sorted = steps.sort((a, b) => a - b)
    const share = (s) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * s))] ?? 0
    rows.push({ what, step_p50_ms: share(0.5), step_p95_ms: share(0.95), longest_task_ms: Math.max(0, ...tasks) })
    await page.waitForTimeout(800)
  }
} finally {
  await browser.close()
  await stand.stop()
}
if (process.argv.includes('--json')) console.log(JSON.stringify(rows, null, 2))
else {
  for (const { what, step_p50_ms: p50, step_p95_ms: p95, longest_task_ms: task } of rows) {
    const ms = (value) => `${value.toFixed(0)} ms`.padStart(7)
    console.log(`${what.padEnd(12)} between pictures p50 ${ms(p50)}  p95 ${ms(p95)}  longest task ${ms(task)}`)
  }
}
