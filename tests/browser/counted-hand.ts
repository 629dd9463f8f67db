import type { Locator, Page } from '@playwright/test'
import { expect, shown } from './bench-page'

/**
 * A hand whose actions are counted, as somebody would who watches a newcomer: a press, a choice, a field that is filled in, a
 * key or a drag is one action each.
 */
export class CountedHand {
  actions = 0

  constructor(readonly page: Page) {}

  async press(what: Locator, options?: Parameters<Locator['click']>[0]): Promise<void> {
    this.actions++
    await what.click(options)
  }

  async write(where: Locator, text: string): Promise<void> {
    this.actions++
    await where.fill(text)
  }

  /** Writes a value into a field of the settings and takes it over. */
  async set(name: RegExp | string, value: string): Promise<void> {
    this.actions++
    const field = this.page.getByRole('textbox', { name })
    await field.fill(value)
    await field.press('Enter')
  }

  async bring(where: Locator, file: string): Promise<void> {
    this.actions++
    await where.setInputFiles(file)
  }

  async key(keys: string): Promise<void> {
    this.actions++
    await this.page.keyboard.press(keys)
  }

  button(name: string | RegExp): Locator {
    return this.page.getByRole('button', { name, exact: true })
  }

  /** From the shelf to the bench with an empty card. */
  async beginEmpty(): Promise<void> {
    await this.page.goto('/')
    for (const name of ['New card', 'Empty card', 'Make the card']) await this.press(this.button(name).first())
    await shown(this.page)
  }

  /** From the bench to a finished file of a format, up to a frame. */
  async render(format: string, last: number, within: number): Promise<void> {
    await this.press(this.button('Render with transparency'))
    const form = this.page.getByRole('form', { name: 'Render' })
    const choice = form.getByRole('radio', { name: format })
    if ((await choice.getAttribute('aria-checked')) !== 'true') await this.press(choice)
    await this.write(form.getByLabel('Last frame'), String(last))
    await this.press(form.getByRole('button', { name: 'Start the render' }))
    const item = this.page.locator('article.item').first()
    await expect(item).toHaveAttribute('data-status', 'done', { timeout: within })
  }
}
