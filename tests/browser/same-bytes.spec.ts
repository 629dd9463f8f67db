import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Card } from '../../core/card/schema'
import { decodePng } from '../../server/renders/encoders/png'
import { demoCard } from '../support/engine'
import { expect, openCard, test } from './bench-page'
import { item, startRender } from './press-hand'

declare global {
  interface Window {
    waxFrameHash?: (card: Card, frame: number) => Promise<string>
  }
}

const folder = mkdtempSync(join(tmpdir(), 'wax-bytes-'))
test.afterAll(() => rmSync(folder, { recursive: true, force: true }))

// Type, strokes and shadows; textures, sheen and a turning direction; a group, lift and a swept body; washes with bloom, grain and
// steps; bands, maps and other pieces; a sequence as a matte, and a twin of it.
const SEQUENCES: Record<string, string[]> = { '27-slate': ['--sequence', 'demo/sequences/paper-edge.zip'] }
for (const file of ['01-opening', '07-frozen', '08-lift', '17-torn-type', '18-print-shop', '27-slate']) {
  test(`bench, command line and server make the same bytes of ${file}`, async ({ page }) => {
    const card = { ...demoCard(file), name: `Press test · ${file}` }
    const within = (name: string) => join(folder, `${file}-${name}`)
    await openCard(page, card)
    // Two: what is kept from the first must not be seen in the second.
    const frames = [20, 21]
    const bench = await page.evaluate(([c, list]) => Promise.all(list.map((frame) => window.waxFrameHash!(c, frame))), [
      card,
      frames,
    ] as const)

    const path = within('card.json')
    writeFileSync(path, JSON.stringify(card))
    execFileSync(process.execPath, [
      ...['.wax/node/wax.mjs', 'render', path, ...(SEQUENCES[file] ?? [])],
      ...['--frames', '20-21', '--out', within('cli')],
    ])

    await startRender(page, { format: 'PNG sequence', first: 20, last: 21 })
    await expect(item(page)).toHaveAttribute('data-status', 'done', { timeout: 60_000 })
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      item(page)
        .getByRole('link', { name: /Download/ })
        .click(),
    ])
    expect(download.suggestedFilename()).toBe(`press-test-${file}.zip`)
    await download.saveAs(within('server.zip'))
    execFileSync('python3', ['-m', 'zipfile', '-e', within('server.zip'), within('server')])

    const hashes = async (name: string) =>
      Promise.all(
        readdirSync(within(name))
          .sort()
          .map(async (picture) => {
            const { pixels } = await decodePng(readFileSync(join(within(name), picture)))
            return createHash('sha256').update(pixels).digest('hex')
          }),
      )
    expect(new Set(bench).size).toBe(2)
    expect(await hashes('cli')).toEqual(bench)
    expect(await hashes('server')).toEqual(bench)
  })
}
