// `npm run bench:press`: how soon the press room with 500 renders is there, and how smoothly it scrolls. `--json` for a program.
import { rmSync } from 'node:fs'
import { chromium } from '@playwright/test'
import postgres from 'postgres'
import { buildApp } from './build-app.mjs'
import { startStand } from './stand.mjs'

const RENDERS = 500
const RUNS = 5

buildApp()
rmSync('.wax/press-bench', { recursive: true, force: true })
const stand = await startStand({ folder: '.wax/press-bench' })
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: stand.address })

try {
  // One that is real, with its file and its small picture; the others are as it is.
  const options = { format: 'png', from: 40, to: 48, scale: 0.5 }
  const asked = await page.request.post('/api/renders', { data: { cardId: 'demo-02-lower-third', options } })
  const { id } = await asked.json()
  const status = async () => (await (await page.request.get(`/api/renders/${id}`)).json()).status
  while ((await status()) !== 'done') await page.waitForTimeout(200)
  const sql = postgres(stand.cluster.url, { max: 1 })
  await sql`
    insert into renders (id, card_id, name, document, options, status, frames_total, frames_done, attempts, report, files, sidecar,
                         take, revision, small, created_at, finished_at)
    select id || '-' || i, 'card-' || i % 40, name || ' ' || i, document, options, status, frames_total, frames_done, attempts, report,
           files, sidecar, i, revision, small, created_at - i * interval '1 minute', finished_at
    from renders, generate_series(2, ${RENDERS}) as i where id = ${id}`
  await sql.end()

  await page.goto('/')
  const opened = []
  for (let i = 0; i < RUNS; i++) {
    await page.goto('/')
    await page.getByRole('link', { name: 'Press room' }).waitFor()
    const started = Date.now()
    await page.goto('/renders')
    // As many as can be seen, with their pictures; the others come as one scrolls.
    await page.waitForFunction(() => {
      const seen = [...document.querySelectorAll('article.item img')].slice(0, 5)
      return seen.length === 5 && seen.every((image) => image.complete && image.naturalWidth > 0)
    })
    await page.evaluate(() => new Promise((go) => requestAnimationFrame(() => requestAnimationFrame(go))))
    opened.push(Date.now() - started)
  }
  const gaps = await page.evaluate(async () => {
    const room = document.querySelector('.room')
    const times = []
    let last = performance.now()
    for (let i = 0; i < 600; i++) {
      room.scrollTop += 60
      await new Promise((go) => requestAnimationFrame(go))
      times.push(performance.now() - last)
      last = performance.now()
    }
    return times
  })
  const drawn = await page.locator('article.item').count()
  if (drawn <= 40) throw new Error('Nothing came as the list was scrolled.')
  const at = (list, share) => [...list].sort((a, b) => a - b)[Math.floor((list.length - 1) * share)]
  const found = {
    renders: RENDERS,
    openedMs: Math.round(at(opened, 0.5)),
    scrollMedianMs: Number(at(gaps, 0.5).toFixed(1)),
    scroll95Ms: Number(at(gaps, 0.95).toFixed(1)),
  }
  if (process.argv.includes('--json')) console.log(JSON.stringify(found))
  else {
    console.log(`press room with ${RENDERS} renders: there after ${found.openedMs} ms (median of ${RUNS})`)
    console.log(`scrolling: a picture every ${found.scrollMedianMs} ms, 95 % within ${found.scroll95Ms} ms`)
  }
} finally {
  await browser.close()
  await stand.stop()
}
