import type { Page } from '@playwright/test'

// What the tests of the press room do with it.

/** The newest render. */
export const item = (page: Page) => page.locator('article.item').first()

/** Begins a render from the bench. */
export async function startRender(
  page: Page,
  { format, first, last }: { format: string; first?: number; last?: number },
) {
  await page.getByRole('button', { name: 'Render with transparency' }).click()
  const form = page.getByRole('form', { name: 'Render' })
  await form.getByRole('radio', { name: format }).click()
  if (first !== undefined) await form.getByLabel('First frame').fill(String(first))
  if (last !== undefined) await form.getByLabel('Last frame').fill(String(last))
  await form.getByRole('button', { name: 'Start the render' }).click()
  return form
}
