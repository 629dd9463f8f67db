import sharp from 'sharp'
import type { TypePiece } from '../../core/card/schema'
import { PROOF_CHECKS } from '../../core/judge/proof/checks'
import { demoCard } from '../support/engine'
import { expect, openCard, test } from './bench-page'

test('the proof sheet judges a card, and what is wrong is one click away', async ({ page }) => {
  const card = demoCard('02-lower-third')
  // The second line of the lower third stands at the very edge for the whole loop.
  const role = card.pieces.find((piece): piece is TypePiece => piece.kind === 'type' && piece.name === 'Role')!
  const edge = { ...role, x: 4, opacity: 100, span: null }
  await openCard(page, {
    ...card,
    ...{ name: 'Proof test', frame: { ...card.frame } },
    pieces: card.pieces.map((piece) => (piece.id === role.id ? edge : piece)),
  })
  // What it is looked at against counts: there the second line stands on a light sky.
  const sky = await sharp({ create: { width: 64, height: 36, channels: 3, background: '#F1EDE2' } })
    .png()
    .toBuffer()
  await page.locator('[data-test=backdrop-file]').setInputFiles({ name: 'sky.png', mimeType: 'image/png', buffer: sky })
  await page.getByRole('button', { name: 'Proof' }).click()
  const sheet = page.getByRole('region', { name: 'Proof' })
  await expect(sheet.getByRole('status')).toContainText(/Looking at all frames|will not do/)
  await expect(sheet.locator('li')).toHaveCount(PROOF_CHECKS.length, { timeout: 60_000 })
  await expect(sheet.locator('[data-check=halo]')).toHaveClass('good')
  await expect(sheet.locator('[data-check=contrast]')).toContainText('over your picture')
  const line = sheet.locator('[data-check=safe]')
  await expect(line).toHaveClass('bad')
  await expect(line).toContainText('Role, frame')
  await expect(sheet.getByRole('status')).toContainText('will not do')
  await line.getByRole('button', { name: 'Go there' }).click()
  await expect(sheet).toBeHidden()
  // The piece is selected, and its settings are shown.
  await expect(page.getByRole('textbox', { name: 'Role · x', exact: true })).toHaveValue('4')
})
