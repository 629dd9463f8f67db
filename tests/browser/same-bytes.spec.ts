import { execFile, execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import type { Page } from '@playwright/test'
import type { Card } from '../../core/card/schema'
import { decodePng } from '../../server/renders/encoders/png'
import { demoCard, engineWithFonts } from '../support/engine'
import { expect, test } from './bench-page'

declare global {
  interface Window {
    waxFrameHash?: (card: Card, frame: number) => Promise<string>
  }
}

const folder = mkdtempSync(join(tmpdir(), 'wax-bytes-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

// Type, strokes and shadows; textures, sheen and a turning direction; a group, lift and a swept body; washes with bloom, grain and
// steps; bands, maps and other pieces; a sequence as a matte, and a twin of it.
const CARDS = ['01-opening', '07-frozen', '08-lift', '17-torn-type', '18-print-shop']
/** By command line and server as well, with the files that they use: both run the engine as this test does. */
const WHOLE: Record<string, string[]> = { '08-lift': [], '27-slate': ['--sequence', 'demo/sequences/paper-edge.zip'] }

/** Two: what is kept from the first must not be seen in the second. */
const FRAMES = [20, 21]

async function hashes(pictures: string): Promise<string[]> {
  const names = readdirSync(pictures).sort()
  return Promise.all(
    names.map(async (name) => {
      const { pixels } = await decodePng(readFileSync(join(pictures, name)))
      return createHash('sha256').update(pixels).digest('hex')
    }),
  )
}

/** A render by the server, begun; gives its frames when it is done. */
async function served(page: Page, card: Card, to: string): Promise<() => Promise<string[]>> {
  const post = async (path: string, data: object) =>
    (await (await page.request.post(path, { data })).json()) as { id: string }
  const { id: cardId } = await post('/api/cards', { document: card })
  const options = { format: 'png', from: FRAMES[0], to: FRAMES.at(-1)! + 1 }
  const { id } = await post('/api/renders', { cardId, options })
  const status = async () =>
    ((await (await page.request.get(`/api/renders/${id}`)).json()) as { status: string }).status
  return async () => {
    await expect.poll(status, { timeout: 90_000 }).toBe('done')
    const archive = `${to}.zip`
    writeFileSync(archive, await (await page.request.get(`/api/renders/${id}/files/0`)).body())
    execFileSync('python3', ['-m', 'zipfile', '-e', archive, to])
    return hashes(to)
  }
}

/** The hashes of the frames by the bench's own workers. */
async function byBench(page: Page, card: Card): Promise<string[]> {
  const made = await page.evaluate(([c, list]) => Promise.all(list.map((frame) => window.waxFrameHash!(c, frame))), [
    card,
    FRAMES,
  ] as const)
  expect([card.name, new Set(made).size]).toEqual([card.name, FRAMES.length])
  return made
}

test.beforeEach(async ({ page }) => {
  await page.goto('/sign-in')
  await page.waitForFunction(() => window.waxFrameHash !== undefined)
})

test('the bench makes the bytes that the engine makes here', async ({ page }) => {
  const engine = engineWithFonts()
  for (const file of CARDS) {
    const card = demoCard(file)
    const bench = await byBench(page, card)
    const here = FRAMES.map((frame) => createHash('sha256').update(engine.render(card, frame).pixels).digest('hex'))
    expect([file, here]).toEqual([file, bench])
  }
})

test('bench, command line and server make the same bytes', async ({ page }) => {
  for (const [file, files] of Object.entries(WHOLE)) {
    const card = { ...demoCard(file), name: `Press test · ${file}` }
    const within = (name: string) => join(folder, `${file}-${name}`)
    const server = await served(page, card, within('server'))
    const path = within('card.json')
    writeFileSync(path, JSON.stringify(card))
    const wax = ['.wax/node/wax.mjs', 'render', path, ...files]
    const [bench] = await Promise.all([
      byBench(page, card),
      promisify(execFile)(process.execPath, [...wax, '--frames', FRAMES.join('-'), '--out', within('cli')]),
    ])
    expect([file, await hashes(within('cli'))]).toEqual([file, bench])
    expect([file, await server()]).toEqual([file, bench])
  }
})
