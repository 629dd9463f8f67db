import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Locator, Page } from '@playwright/test'
import { test as base, expect } from '@playwright/test'
import type { Card } from '../../core/card/schema'
import type { Stand } from '../../scripts/stand.mjs'
import { startStand } from '../../scripts/stand.mjs'
import { decodePng } from '../../server/renders/encoders/png'

export { expect }

/**
 * Tests start at the application's own address, with a database, a server and a render worker for each of the processes that run
 * them, so that these do not meet; an error in the page fails them.
 */
export const test = base.extend<{ errors: string[] }, { stand: Stand }>({
  stand: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use, { workerIndex }) => {
      const folder = `.wax/test-${workerIndex}`
      rmSync(folder, { recursive: true, force: true })
      // A name that browsers look for on this machine (RFC 6761 §6.3), and that is not its own.
      process.env.NUXT_ALLOWED_HOSTS = 'press.localhost'
      const stand = await startStand({ folder })
      process.env.WAX_FOLDER = folder
      process.env.WAX_ADDRESS = stand.address
      process.env.WAX_WORKER_PID = String(stand.workerId())
      await use(stand)
      await stand.stop()
      rmSync(folder, { recursive: true, force: true })
    },
    { scope: 'worker', auto: true, timeout: 120_000 },
  ],
  baseURL: async ({ stand }, use) => use(stand.address),
  errors: [
    async ({ page }, use) => {
      // The notes of the first card lie over the stage; their own test shows them.
      await page.addInitScript(() => {
        if (location.protocol.startsWith('http')) localStorage.setItem('wax-first-notes', 'true')
      })
      const errors: string[] = []
      page.on('pageerror', (error) => errors.push(error.stack ?? error.message))
      await use(errors)
      expect(errors).toEqual([])
    },
    { auto: true },
  ],
})

/** Makes a card on the server and opens it on the bench. */
export async function openCard(page: Page, card: Card): Promise<string> {
  const response = await page.request.post('/api/cards', { data: { document: card } })
  const { id } = (await response.json()) as { id: string }
  await page.goto(`/card/${id}`)
  await shown(page)
  return id
}

/** Waits for the first picture. */
export async function shown(page: Page): Promise<void> {
  await page.locator('.bench[data-ready=true]').waitFor()
}

export const picture = (page: Page): Locator => page.locator('.screen canvas').first()

/** A short text that changes when the stage's pixels do. */
export async function pixels(page: Page): Promise<string> {
  const url = await picture(page).evaluate((canvas) => (canvas as HTMLCanvasElement).toDataURL())
  return createHash('sha256').update(url).digest('hex').slice(0, 16)
}

/** The id of the card whose bench is at an address. */
export const cardId = (url: string) => new URL(url).pathname.split('/').at(-1)!

/** The card as the server has it, once everything is saved. */
export async function savedCard(page: Page, id: string): Promise<Card> {
  await expect(page.locator('[data-test=save-state]')).toHaveText('saved')
  const response = await page.request.get(`/api/cards/${id}`)
  return ((await response.json()) as { document: Card }).document
}

/** Renders a frame by the command line into an empty folder, with files that the card uses: the browser makes the same bytes. */
export async function expectSameBytes(page: Page, card: Card, folder: string, ...files: string[]): Promise<void> {
  const hash = await page.evaluate((shown) => window.waxFrameHash!(shown, 3), card)
  await expectSameFrame(hash, card, 3, folder, ...files)
}

/** Holds the hash of a frame, as a browser made it, against what the command line makes. */
export async function expectSameFrame(hash: string, card: Card, frame: number, folder: string, ...files: string[]) {
  const file = join(folder, 'shown.card.json')
  const out = join(folder, 'out')
  writeFileSync(file, JSON.stringify(card))
  const frames = ['--frames', `${frame}-${frame}`]
  execFileSync(process.execPath, ['.wax/node/wax.mjs', 'render', file, ...files, ...frames, '--out', out])
  const [png] = readdirSync(out)
  const { pixels: bytes } = await decodePng(readFileSync(join(out, png!)))
  expect(createHash('sha256').update(bytes).digest('hex')).toBe(hash)
}
