// `npm run bench:shelf`: how soon the shelf with 300 cards is there, how smoothly it scrolls, what it fetches, and how soon the first
// picture of a card is seen after the click on its tile. `--json` for a program.
import { rmSync } from 'node:fs'
import { chromium } from '@playwright/test'
import postgres from 'postgres'
import { buildApp } from './build-app.mjs'
import { startStand } from './stand.mjs'

const CARDS = 300
const RUNS = 5
const CLICKED = ['Lantern Regatta · opening', 'Lower third · boat builder', 'Neon boats · dark and light']

if (!process.argv.includes('--built')) buildApp()
rmSync('.wax/shelf-bench', { recursive: true, force: true })
const stand = await startStand({ folder: '.wax/shelf-bench' })
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
})

/** A browser that has seen nothing yet, or one that keeps what it fetched. */
const fresh = () =>
  browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: stand.address }).then((own) => own.newPage())

const at = (list, share) => [...list].sort((a, b) => a - b)[Math.floor((list.length - 1) * share)]

/** Milliseconds until the tiles of the first screen are there, and until each shows its picture. */
async function opens(page) {
  const started = Date.now()
  await page.goto('/', { waitUntil: 'commit' })
  const seen = () => page.evaluate(() => new Promise((go) => requestAnimationFrame(() => requestAnimationFrame(go))))
  await page.waitForFunction(() => document.querySelectorAll('article.tile').length >= 16)
  await seen()
  const tiles = Date.now() - started
  await page.waitForFunction(() => {
    const inView = [...document.querySelectorAll('article.tile canvas')].filter(
      (canvas) => canvas.getBoundingClientRect().top < innerHeight,
    )
    return inView.length > 0 && inView.every((canvas) => canvas.width !== 300)
  })
  await seen()
  return { tiles, pictures: Date.now() - started }
}

/** Milliseconds from the click on a tile, to which a hand goes first, until the picture of its card is seen. */
async function firstPicture(page, name) {
  await page.evaluate(() => addEventListener('click', () => (window.clickedAt = performance.now()), true))
  const link = page.getByRole('link', { name: `Open ${name}`, exact: true })
  await link.scrollIntoViewIfNeeded()
  await link.hover()
  await link.click()
  return page.evaluate(
    () =>
      new Promise((go) => {
        const look = () => {
          const canvas = document.querySelector('.bench canvas.picture')
          if (!canvas || canvas.width === 300) return requestAnimationFrame(look)
          requestAnimationFrame(() => go(Math.round(performance.now() - window.clickedAt)))
        }
        look()
      }),
  )
}

try {
  const sql = postgres(stand.cluster.url, { max: 1 })
  const [{ count }] = await sql`select count(*)::int from cards where deleted_at is null`
  // Each of the demo cards again and again.
  await sql`
    insert into cards (id, name, document, updated_at)
    select id || '-' || i, name || ' ' || i, document, updated_at - i * interval '1 minute'
    from cards, generate_series(2, 20) as i
    where deleted_at is null order by i, id limit ${CARDS - count}`
  await sql.end()

  const cold = []
  for (let i = 0; i < RUNS; i++) {
    const page = await fresh()
    cold.push(await opens(page))
    await page.context().close()
  }
  // Counted by itself: asking for the size of each answer costs the page time.
  const counted = await fresh()
  const sizes = []
  counted
    .context()
    .on('requestfinished', (request) =>
      sizes.push(request.sizes().then(({ responseBodySize }) => ({ url: request.url(), bytes: responseBodySize }))),
    )
  await opens(counted)
  const fetched = await Promise.all(sizes)
  await counted.context().close()

  const page = await fresh()
  await opens(page)
  const warm = []
  for (let i = 0; i < RUNS; i++) warm.push(await opens(page))

  await page.waitForFunction((wanted) => document.querySelectorAll('article.tile').length >= wanted, CARDS)
  const gaps = await page.evaluate(async () => {
    const room = [document.scrollingElement, ...document.querySelectorAll('*')].find(
      (element) =>
        element.scrollHeight > element.clientHeight + 500 && getComputedStyle(element).overflowY !== 'visible',
    )
    const times = []
    let last = performance.now()
    for (let i = 0; i < 300; i++) {
      room.scrollTop += 40
      await new Promise((go) => requestAnimationFrame(go))
      times.push(performance.now() - last)
      last = performance.now()
    }
    if (room.scrollTop < 6000) throw new Error('Nothing scrolled.')
    return times
  })

  const clicked = Object.fromEntries(CLICKED.map((name) => [name, { firstVisit: [], again: [], rested: [] }]))
  for (const name of CLICKED) {
    for (let i = 0; i < RUNS; i++) {
      const own = await fresh()
      for (const [when, times] of Object.entries(clicked[name])) {
        await opens(own)
        if (when === 'rested') {
          await own.waitForFunction((wanted) => document.querySelectorAll('article.tile').length >= wanted, CARDS)
          await own.waitForLoadState('networkidle')
        }
        times.push(await firstPicture(own, name))
      }
      await own.context().close()
    }
  }

  const median = (list, key) =>
    Math.round(
      at(
        list.map((one) => one[key]),
        0.5,
      ),
    )
  const kilobytes = (wanted) =>
    Math.round(fetched.reduce((sum, { url, bytes }) => sum + (wanted.test(url) ? bytes : 0), 0) / 1024)
  const found = {
    cards: CARDS,
    first: { tilesMs: median(cold, 'tiles'), picturesMs: median(cold, 'pictures') },
    again: { tilesMs: median(warm, 'tiles'), picturesMs: median(warm, 'pictures') },
    scrollMedianMs: Number(at(gaps, 0.5).toFixed(1)),
    scroll95Ms: Number(at(gaps, 0.95).toFixed(1)),
    fetchedKb: {
      script: kilobytes(/\.m?js(\?|$)/),
      wasm: kilobytes(/\.wasm/),
      fonts: kilobytes(/\.(woff2|ttf|otf)|\/api\/fonts\//),
      all: kilobytes(/./),
    },
    firstPictureMs: Object.fromEntries(
      Object.entries(clicked).map(([name, times]) => [
        name,
        Object.fromEntries(Object.entries(times).map(([when, list]) => [when, at(list, 0.5)])),
      ]),
    ),
  }
  if (process.argv.includes('--json')) console.log(JSON.stringify(found))
  else {
    const { first, again, fetchedKb } = found
    console.log(`shelf with ${CARDS} cards, medians of ${RUNS}`)
    console.log(`  nothing kept yet: tiles after ${first.tilesMs} ms, their pictures after ${first.picturesMs} ms`)
    console.log(`  opened again: tiles after ${again.tilesMs} ms, their pictures after ${again.picturesMs} ms`)
    console.log(`  scrolling: a picture every ${found.scrollMedianMs} ms, 95 % within ${found.scroll95Ms} ms`)
    console.log(
      `  fetched: ${fetchedKb.script} KB of script, ${fetchedKb.wasm} KB of kernels, ${fetchedKb.fonts} KB of fonts, ${fetchedKb.all} KB in all`,
    )
    console.log('first picture of a card after the click')
    for (const [name, { firstVisit, again, rested }] of Object.entries(found.firstPictureMs))
      console.log(
        `  ${name}: ${rested} ms on a shelf at rest, ${again} ms as soon as the first screen has its pictures, ${firstVisit} ms so in a browser that had seen nothing before`,
      )
  }
} finally {
  await browser.close()
  await stand.stop()
}
