import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { STANDSTILL } from '../../core/values/moment'
import { createPiece } from '../../core/card/create'
import type { StoredPaint } from '../../core/values/moving'
import { paintSchema } from '../../core/values/paints'
import type { Card, Coat, PathPiece } from '../../core/card/schema'
import { writeCssGradient } from '../../core/formats/css-gradient'
import { paintValue } from '../../core/values/evaluated'
import { Engine } from '../../core/frame/engine'
import { cosDegrees, sinDegrees } from '../../core/kernels/exact'
import { Kernels } from '../../core/kernels/kernels'
import { coat, emptyCard, solid } from '../support/engine'
import { expect, test } from './bench-page'

// Chromium's canvas, CSS gradients and filters as an independent implementation of what the engine computes.

const SHEET = 220

/** Forms with sharp, blunt and curved corners, and a hole. */
const FORMS = {
  star: 'M 110 22 L 128 84 L 196 84 L 141 122 L 162 190 L 110 148 L 58 190 L 79 122 L 24 84 L 92 84 Z',
  leaf: 'M 40 170 C 40 60 120 40 182 46 C 190 120 150 180 40 170 Z',
  frame: 'M 40 40 L 180 50 L 170 180 L 50 170 Z M 80 80 L 85 140 L 140 145 L 138 85 Z',
  drop: 'M 110 30 Q 190 120 160 165 Q 110 215 60 165 Q 30 120 110 30 Z',
}
const JOINS = { round: 'round', mitre: 'miter', bevel: 'bevel' } as const

/**
 * A stroke drawn by Chromium at 16 times the size and averaged: its direct edges are too coarse to check against, and
 * at 8 times the quarter pixel by which it may miss a curve is still 8 of 255.
 */
async function chromiumStroke(page: Page, form: string, side: string, width: number, join: string, limit: number) {
  const base64 = await page.evaluate(
    ({ form, side, width, join, limit, size }) => {
      const K = 16
      const context = new OffscreenCanvas(size * K, size * K).getContext('2d', { willReadFrequently: true })!
      context.scale(K, K)
      const path = new Path2D(form)
      context.lineJoin = join as CanvasLineJoin
      context.miterLimit = limit
      context.lineWidth = side === 'across' ? width : width * 2
      context.stroke(path)
      if (side !== 'across') {
        context.globalCompositeOperation = side === 'outside' ? 'destination-out' : 'destination-in'
        context.fill(path)
      }
      const { data } = context.getImageData(0, 0, size * K, size * K)
      // 255 in all of them is less than 16 bits hold.
      const sums = new Uint16Array(size * size)
      for (let y = 0; y < size; y++) {
        for (let x = 0; x < size; x++) {
          let sum = 0
          for (let j = 0; j < K; j++)
            for (let i = 0; i < K; i++) sum += data[((y * K + j) * size * K + x * K + i) * 4 + 3]!
          sums[y * size + x] = sum
        }
      }
      // As one text: a list of numbers takes seconds on its way out of the page.
      return btoa(Array.from(new Uint8Array(sums.buffer), (byte) => String.fromCharCode(byte)).join(''))
    },
    { form, side, width, join, limit, size: SHEET },
  )
  const sums = new Uint16Array(Uint8Array.from(Buffer.from(base64, 'base64')).buffer)
  return Array.from(sums, (sum) => sum / 256)
}

function ourStroke(form: string, values: Record<string, unknown>): number[] {
  const card = emptyCard(SHEET, SHEET)
  const piece: PathPiece = {
    ...(createPiece('path', card) as PathPiece),
    ...{
      path: form,
      x: 0,
      y: 0,
      coats: { face: [coat('stroke', 's', { ...values, paint: solid('#FFFFFF') })], behind: [] },
    },
  }
  const { pixels } = new Engine().render({ ...card, pieces: [piece] }, 0, { bits: 16 })
  const values16 = new Uint16Array(pixels.buffer)
  return Array.from({ length: SHEET * SHEET }, (_, i) => (values16[i * 4 + 3]! / 65535) * 255)
}

for (const [name, form] of Object.entries(FORMS)) {
  test(`strokes of a ${name} are those of Chromium’s canvas: mean ≤ 3, largest ≤ 10 of 255`, async ({ page }) => {
    await page.goto('about:blank')
    for (const join of ['round', 'mitre', 'bevel'] as const) {
      for (const [side, width] of [
        ['outside', 7],
        ['outside', 15.5],
        ['inside', 5],
        ['across', 9],
      ] as const) {
        const limit = join === 'mitre' ? 4 : 10
        const theirs = await chromiumStroke(page, form, side, width, JOINS[join], limit)
        const ours = ourStroke(form, { side, width, join, limit })
        const worst = { at: 0, by: 0 }
        let sum = 0
        let edge = 0
        ours.forEach((value, i) => {
          const by = Math.abs(value - theirs[i]!)
          if (by > worst.by) Object.assign(worst, { at: i, by })
          if (theirs[i]! > 0 && theirs[i]! < 255) {
            sum += by
            edge++
          }
        })
        const label = `${name} ${join} ${side} ${width}: ${worst.by.toFixed(1)} at ${worst.at % SHEET},${Math.floor(worst.at / SHEET)}`
        expect(edge, label).toBeGreaterThan(200)
        expect(worst.by, label).toBeLessThanOrEqual(10)
        expect(sum / edge, label).toBeLessThanOrEqual(3)
      }
    }
  })
}

const STOPS = [
  { at: 0, colour: '#B8324A' },
  { at: 38, colour: '#E2683C' },
  { at: 64, colour: '#F6A94C' },
  { at: 100, colour: '#1E6B6A' },
]

test('gradients are those that CSS paints, to 1.5 of 255', async ({ page }) => {
  await page.setViewportSize({ width: 300, height: 200 })
  for (const values of [
    { type: 'linear', angle: 30 },
    { type: 'linear', angle: -100, scale: 60, shift: 15 },
    { type: 'linear', angle: 75, scale: 35, spread: 'repeat' },
    { type: 'radial', form: 'circle', x: 30, y: 60 },
    { type: 'radial', form: 'ellipse', x: 50, y: 40, scale: 70, spread: 'repeat' },
    { type: 'conic', angle: 20, x: 45, y: 55 },
    { type: 'linear', angle: 10, mix: 'oklab' },
    { type: 'linear', angle: 160, mix: 'linear' },
  ]) {
    const paint = paintSchema.parse({ stops: STOPS, hang: 'card', ...values }) as StoredPaint
    const evaluated = paintValue(paint, STANDSTILL)
    if (!('stops' in evaluated)) throw new Error('no gradient')
    await page.setContent(
      `<body style="margin:0;width:300px;height:200px;background:${writeCssGradient(evaluated)}"></body>`,
    )
    const theirs = await sharp(await page.screenshot())
      .ensureAlpha()
      .raw()
      .toBuffer()
    const { pixels } = new Engine().render({ ...emptyCard(300, 200), background: paint }, 0)
    const differences = Array.from(pixels, (value, i) => Math.abs(value - theirs[i]!)).sort((one, other) => other - one)
    // Where a repeated gradient or a turn begins anew, the two may place the jump half a pixel apart.
    const jumps = values.spread === 'repeat' || values.type === 'conic' ? Math.ceil(differences.length * 0.035) : 0
    expect(theirs).toHaveLength(pixels.length)
    expect(differences[jumps], JSON.stringify(values)).toBeLessThanOrEqual(1.5)
  }
})

test('bevel light is that of feDiffuseLighting with feDistantLight on the same height map', async ({ page }) => {
  const size = 96
  // Heights of a ring, a slope and a dome, as alpha of a picture: 8 bits, as the filter takes them.
  const heights = Uint8Array.from({ length: size * size }, (_, i) => {
    const [x, y] = [i % size, Math.floor(i / size)]
    const r = Math.hypot(x - 48, y - 48)
    return Math.round(Math.max(0, Math.min(255, 128 + 90 * Math.cos(r / 7) * Math.exp(-r / 60) + (x - 48) * 0.6)))
  })
  const kernels = new Kernels()
  for (const [azimuth, elevation, surfaceScale] of [
    [120, 45, 10],
    [-30, 60, 6],
    [200, 25, 14],
  ] as const) {
    await page.goto('about:blank')
    const theirs = await page.evaluate(
      async ({ heights, size, azimuth, elevation, surfaceScale }) => {
        const canvas = document.createElement('canvas')
        canvas.width = canvas.height = size
        const image = new ImageData(size, size)
        heights.forEach((value, i) => (image.data[i * 4 + 3] = value))
        canvas.getContext('2d')!.putImageData(image, 0, 0)
        // SVG counts the azimuth clockwise on screen.
        const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}"><filter id="f" x="0" y="0" width="1" height="1" color-interpolation-filters="sRGB"><feDiffuseLighting surfaceScale="${surfaceScale}" diffuseConstant="1" lighting-color="#fff"><feDistantLight azimuth="${-azimuth}" elevation="${elevation}"/></feDiffuseLighting></filter><image filter="url(#f)" href="${canvas.toDataURL()}" width="${size}" height="${size}"/></svg>`
        const picture = new Image()
        picture.src = `data:image/svg+xml;base64,${btoa(svg)}`
        await picture.decode()
        const context = new OffscreenCanvas(size, size).getContext('2d')!
        context.drawImage(picture, 0, 0)
        return [...context.getImageData(0, 0, size, size).data]
      },
      { heights: [...heights], size, azimuth, elevation, surfaceScale },
    )
    const plane = kernels.planeFrom(
      size,
      size,
      Float32Array.from(heights, (v) => (v / 255) * surfaceScale),
    )
    const flat = cosDegrees(elevation)
    const light = { x: cosDegrees(azimuth) * flat, y: -sinDegrees(azimuth) * flat, z: sinDegrees(elevation) }
    const ours = kernels.floats(kernels.lit(plane, light))
    let worst = 0
    // The specification has other kernels on the border itself.
    for (let y = 1; y < size - 1; y++)
      for (let x = 1; x < size - 1; x++)
        worst = Math.max(worst, Math.abs(ours[y * size + x]! * 255 - theirs[(y * size + x) * 4]!))
    expect(worst).toBeLessThanOrEqual(1.5)
  }
})

test('a card in linear light blends as Chromium’s linearRGB filters do', async ({ page }) => {
  await page.goto('about:blank')
  const theirs = await page.evaluate(async () => {
    // Half of white over colours, composed in linear light by a filter.
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="4" height="1"><filter id="f" x="0" y="0" width="1" height="1" color-interpolation-filters="linearRGB"><feFlood flood-color="#fff" flood-opacity="0.5"/><feComposite in2="SourceGraphic" operator="over"/></filter><g filter="url(#f)"><rect width="1" height="1" fill="#000"/><rect x="1" width="1" height="1" fill="#B8324A"/><rect x="2" width="1" height="1" fill="#1E6B6A"/><rect x="3" width="1" height="1" fill="#F6C667"/></g></svg>`
    const picture = new Image()
    picture.src = `data:image/svg+xml;base64,${btoa(svg)}`
    await picture.decode()
    const context = new OffscreenCanvas(4, 1).getContext('2d')!
    context.drawImage(picture, 0, 0)
    return [...context.getImageData(0, 0, 4, 1).data]
  })
  const grounds = ['#000000', '#B8324A', '#1E6B6A', '#F6C667']
  grounds.forEach((ground, k) => {
    const card: Card = { ...emptyCard(16, 16), blending: 'linear', background: solid(ground) }
    const fill: Coat = coat('fill', 'f', { paint: solid('#FFFFFF80') })
    const box = { ...createPiece('box', card), x: 8, y: 8, width: 40, height: 40, coats: { face: [fill], behind: [] } }
    const { pixels } = new Engine().render({ ...card, pieces: [box] as Card['pieces'] }, 0)
    for (let c = 0; c < 3; c++) expect(Math.abs(pixels[c]! - theirs[k * 4 + c]!)).toBeLessThanOrEqual(2)
  })
})
