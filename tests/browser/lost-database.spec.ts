import { readFileSync, rmSync } from 'node:fs'
import { startStand } from '../../scripts/stand.mjs'
import type { TypePiece } from '../../core/card/schema'
import { expect, savedCard, shown, test } from './bench-page'

test('the database is lost and comes back, and is killed: one clear word, nothing lost', async ({ browser }) => {
  rmSync('.wax/test-lost', { recursive: true, force: true })
  const stand = await startStand({ folder: '.wax/test-lost' })
  try {
    const page = await browser.newPage({ baseURL: stand.address })
    await page.goto('/card/demo-02-lower-third')
    await shown(page)
    await page.getByRole('button', { name: 'Name type' }).click()
    stand.cluster.stop()
    await page.getByRole('textbox', { name: 'Wording' }).fill('Ines Barrow')
    await expect(page.getByRole('alert')).toContainText('database cannot be reached')
    // The work goes on meanwhile.
    await page.getByRole('textbox', { name: 'Wording' }).fill('Ines Barrow-Lund')
    stand.cluster.start()
    await expect(page.locator('[data-test=save-state]')).toHaveText('saved', { timeout: 40_000 })
    await expect(page.getByRole('alert')).toHaveCount(0)
    const wording = async () => ((await savedCard(page, 'demo-02-lower-third')).pieces[0] as TypePiece).wording
    expect(await wording()).toBe('Ines Barrow-Lund')
    // Killed, it is started again by itself.
    const [killed] = readFileSync('.wax/test-lost/database/data/postmaster.pid', 'utf8').split('\n')
    process.kill(Number(killed), 'SIGKILL')
    await page.getByRole('textbox', { name: 'Wording' }).fill('Ines B. Lund')
    await expect.poll(() => wording().catch(() => 'nothing yet'), { timeout: 40_000 }).toBe('Ines B. Lund')
  } finally {
    await stand.stop()
  }
})
