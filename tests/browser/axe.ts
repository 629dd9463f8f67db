import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect } from './bench-page'

// WCAG 2.2 A and AA by axe-core, in both themes: contrast of 4.5:1 for text is one of its rules.
const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']

/** Waits for what is fading: a sheet that fades in has less contrast than the one that is read. */
const settled = (page: Page) =>
  page.evaluate(async () => {
    const nextPicture = () => new Promise(requestAnimationFrame)
    const passing = () =>
      document.getAnimations().filter(({ effect }) => effect?.getComputedTiming().iterations !== Infinity)
    await nextPicture()
    await nextPicture()
    while (passing().length > 0) await Promise.allSettled(passing().map(({ finished }) => finished))
  })

/** Another window chose a theme. */
const wear = (page: Page, theme: 'paper' | 'evening') =>
  page.evaluate((name) => {
    localStorage.setItem('wax-theme', name)
    window.dispatchEvent(new StorageEvent('storage', { key: 'wax-theme', newValue: name, storageArea: localStorage }))
  }, theme)

/** The sheet that lies on top. */
export const SHEET = '.v-overlay--active .v-overlay__content'

/** All rules by day, in the evening's colours those of colours; `within` looks at a part alone, where the rest was looked at before. */
export async function check(page: Page, { without = [], within }: { without?: string[]; within?: string } = {}) {
  const told: string[] = []
  for (const theme of ['evening', 'paper'] as const) {
    await wear(page, theme)
    await page.locator(`.v-application.v-theme--${theme}`).waitFor()
    await settled(page)
    const all = new AxeBuilder({ page }).exclude('.stop')
    const axe = within ? all.include(within) : all
    const rules = theme === 'paper' ? axe.withTags(RULES).disableRules(without) : axe.withRules(['color-contrast'])
    // A stop of a gradient stands where its colour is, however near the next one: essential (WCAG 2.2, 2.5.8), and
    // its place can be typed as well.
    const { violations } = await rules.analyze()
    const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')
    told.push(
      ...serious.map(({ id, nodes }) => `${theme}, ${id}: ${nodes.map(({ target }) => target.join(' ')).join(', ')}`),
    )
  }
  expect(told).toEqual([])
}
