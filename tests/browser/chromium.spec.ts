import sharp from 'sharp'
import type { StoredPaint } from '../../core/values/moving'
import { paintSchema } from '../../core/values/paints'
import { readEasing } from '../../core/values/easing'
import { Engine } from '../../core/frame/engine'
import { Font } from '../../core/type/font'
import { lineWidth } from '../../core/type/layout'
import { SHIPPED_FONTS } from '../../core/type/families'
import { coat, emptyCard, fontBytes, pixelAt, withBox } from '../support/engine'
import { expect, test } from './bench-page'

// Chromium as an independent implementation of the standards that the engine follows.

test('easings are those of Web Animations to 1e-5, at 1,000 points', async ({ page }) => {
  await page.goto('/mark.svg')
  const easings = [
    'ease',
    'ease-in',
    'ease-out',
    'ease-in-out',
    'cubic-bezier(0.16, 1, 0.3, 1)',
    'cubic-bezier(0.7, -0.6, 0.3, 1.6)',
  ]
  easings.push('steps(4, jump-both)', 'steps(3, jump-none)', 'linear(0, 0.3 20%, 0.9 60%, 1)', 'linear(0, 0.5, 0.2, 1)')
  const theirs = await page.evaluate((list) => {
    const element = document.documentElement
    return list.map((easing) => {
      const effect = new KeyframeEffect(element, null, { duration: 1000, easing, fill: 'both' })
      const animation = new Animation(effect)
      animation.pause()
      return Array.from({ length: 1001 }, (_, i) => {
        animation.currentTime = i
        return effect.getComputedTiming().progress!
      })
    })
  }, easings)
  const farthest = easings.map((easing, k) =>
    Math.max(...theirs[k]!.map((progress, i) => Math.abs(readEasing(easing)!(i / 1000) - progress))),
  )
  for (const [k, easing] of easings.entries()) expect(farthest[k], easing).toBeLessThan(1e-5)
})

test('lines are as wide as Chromium sets them, with kerning', async ({ page }) => {
  // Light, and at the address of the fonts.
  await page.goto('/sign-in')
  const words = ['Lantern Regatta', 'AVATAR Tower', 'Oxbow Quay']
  const ids = SHIPPED_FONTS.map(({ id }) => id)
  const theirs = await page.evaluate(
    async ([fonts, lines]) => {
      const context = document.createElement('canvas').getContext('2d')!
      context.fontKerning = 'normal'
      context.textRendering = 'geometricPrecision'
      return Promise.all(
        fonts.map(async (id) => {
          document.fonts.add(await new FontFace(`measure-${id}`, `url(/fonts/${id}.ttf)`).load())
          context.font = `1000px measure-${id}`
          return lines.map((line) => context.measureText(line).width)
        }),
      )
    },
    [ids, words] as const,
  )
  ids.forEach((id, k) => {
    // A variable font stands at the weight of normal text there (CSS Fonts 4, font-weight).
    const font = new Font(fontBytes(id), id).varied({ wght: 400 })
    words.forEach((line, i) =>
      expect(Math.abs(lineWidth(font, line, 0) * 1000 - theirs[k]![i]!), `${id}: ${line}`).toBeLessThan(0.6),
    )
  })
})

test('a shadow looks like box-shadow, loosely: Chromium blurs by boxes', async ({ page }) => {
  await page.setViewportSize({ width: 400, height: 400 })
  await page.setContent(
    '<body style="margin:0;background:#fff"><div style="position:absolute;left:100px;top:120px;width:160px;height:100px;box-shadow:24px 18px 40px 10px #000"></div></body>',
  )
  const shot = await sharp(await page.screenshot())
    .ensureAlpha()
    .raw()
    .toBuffer()
  const theirs = shot.filter((_, i) => i % 4 === 0)
  // Softness 50 with a firmness of 20 % is a spread of 10 and a blur of 40.
  const values = {
    softness: 50,
    firmness: 20,
    distance: 30,
    ownDirection: true,
    direction: (-Math.atan2(18, 24) * 180) / Math.PI,
  }
  const card = withBox(
    emptyCard(400, 400),
    { x: 180, y: 170, width: 160, height: 100 },
    { behind: [coat('shadow', 's', values)] },
  )
  const picture = new Engine().render(card, 0)
  let worst = 0
  for (let y = 0; y < 400; y++) {
    for (let x = 0; x < 400; x++)
      worst = Math.max(worst, Math.abs(255 - theirs[y * 400 + x]! - pixelAt(picture, x, y)[3] * 255))
  }
  expect(worst).toBeLessThan(8)
  expect(worst).toBeGreaterThan(0)
})

test('a gradient is the one that CSS paints, to 1.5 of 255', async ({ page }) => {
  await page.setViewportSize({ width: 300, height: 200 })
  const css = 'linear-gradient(60deg, #b8324a, #e2683c 38%, #f6a94c 64%, #ffe9b8)'
  await page.setContent(`<body style="margin:0;width:300px;height:200px;background:${css}"></body>`)
  const theirs = await sharp(await page.screenshot())
    .ensureAlpha()
    .raw()
    .toBuffer()
  const stops = [
    { at: 0, colour: '#B8324A' },
    { at: 38, colour: '#E2683C' },
    { at: 64, colour: '#F6A94C' },
    { at: 100, colour: '#FFE9B8' },
  ]
  // CSS counts clockwise from upward: 60° is our 30°.
  const background = paintSchema.parse({ type: 'linear', stops, angle: 30, hang: 'card' }) as StoredPaint
  const { pixels } = new Engine().render({ ...emptyCard(300, 200), background }, 0)
  let worst = 0
  pixels.forEach((value, i) => (worst = Math.max(worst, Math.abs(value - theirs[i]!))))
  expect(worst).toBeLessThanOrEqual(1.5)
})
