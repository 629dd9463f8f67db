import { createMask, createPiece } from '../../core/card/create'
import { expectCard } from '../../core/card/read'
import type { Mask, Piece } from '../../core/card/schema'
import { Engine } from '../../core/frame/engine'
import { decodePng } from '../../server/renders/encoders/png'
import { coat, emptyCard, solid, withBox } from '../support/engine'
import { expect, test } from './bench-page'

// Chromium's clip-path, mask and mask-composite as a second implementation of masks.

const SIDE = 256
/** Chromium covers edges roughly: it paints so many times as large, and means are taken. */
const K = 4
const PATH = 'M -80 60 L 0 -90 L 90 70 C 40 20 -20 110 -80 60 Z'

const ellipse = (values: object = {}) => ({ kind: 'ellipse', x: 110, y: 120, width: 150, height: 110, ...values })
const box = (values: object = {}) => ({ kind: 'box', x: 160, y: 150, width: 120, height: 90, radius: 20, ...values })

interface Shape {
  kind: string
  x: number
  y: number
  width?: number
  height?: number
  radius?: number
  rotation?: number
  feather?: number
  opacity?: number
  mode?: string
}

/** The same shape as a picture of its alpha. */
function svgOf({ kind, x, y, width = 0, height = 0, radius = 0, rotation = 0, feather = 0, opacity = 100 }: Shape) {
  const form =
    kind === 'ellipse'
      ? `<ellipse rx="${width / 2}" ry="${height / 2}"/>`
      : kind === 'box'
        ? `<rect x="${-width / 2}" y="${-height / 2}" width="${width}" height="${height}" rx="${radius}"/>`
        : `<path d="${PATH}"/>`
  const filter = `<filter id="f" x="-100%" y="-100%" width="300%" height="300%"><feGaussianBlur stdDeviation="${feather / 2}"/></filter>`
  const blurred = feather > 0 ? ' filter="url(#f)"' : ''
  const placed = `transform="translate(${x} ${y}) rotate(${-rotation})"`
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE * K}" height="${SIDE * K}" viewBox="0 0 ${SIDE} ${SIDE}">${filter}<g opacity="${opacity / 100}"><g${blurred}><g ${placed}>${form}</g></g></g></svg>`
}

/** How white a black page is where an element of white shows through its masks. */
async function chromium(page: import('@playwright/test').Page, css: string): Promise<number[]> {
  await page.setContent(
    `<body style="margin:0;background:#000"><div style="width:${SIDE * K}px;height:${SIDE * K}px;background:#fff;${css}"></div></body>`,
  )
  // Pictures of masks are decoded on their own time: two pictures that are alike are done.
  let before: Uint8Array = new Uint8Array(0)
  for (;;) {
    const png = await page.screenshot({ clip: { x: 0, y: 0, width: SIDE * K, height: SIDE * K } })
    if (png.equals(before)) return means([...(await decodePng(png)).pixels].filter((_, i) => i % 4 === 0))
    before = png
  }
}

/** Of K × K pixels each. */
function means(values: readonly number[]): number[] {
  const out = new Array<number>(SIDE * SIDE).fill(0)
  values.forEach((v, i) => {
    const [x, y] = [Math.floor((i % (SIDE * K)) / K), Math.floor(i / (SIDE * K) / K)]
    out[y * SIDE + x]! += v / (K * K)
  })
  return out
}

function ours(masks: Shape[]): number[] {
  const all = { x: 128, y: 128, width: 2000, height: 2000, masks: masks.map(maskOf) }
  const card = withBox({ ...emptyCard(SIDE, SIDE), background: solid('#000000') }, all, {
    face: [coat('fill', 'f', { paint: solid('#FFFFFF') })],
  })
  return [...new Engine().render(expectCard(card), 0).pixels].filter((_, i) => i % 4 === 0)
}

const maskOf = ({ kind, ...values }: Shape, i: number): Mask =>
  ({ ...createMask(kind, `mask-${i}`), space: 'card', ...values }) as Mask

/** In 255ths: the largest difference, and the mean of all. */
function compare(mine: number[], theirs: number[], [most, mean]: readonly [number, number] = [16, 0.1]) {
  const off = mine.map((v, i) => Math.abs(v - theirs[i]!))
  expect(Math.max(...off)).toBeLessThanOrEqual(most)
  expect(off.reduce((sum, v) => sum + v, 0) / off.length).toBeLessThan(mean)
}

const mask = (shapes: Shape[], composite: string) =>
  `mask-image:${shapes.map((shape) => `url('data:image/svg+xml,${encodeURIComponent(svgOf(shape))}')`).join(',')};mask-composite:${composite}`

test('a path holds what clip-path shows', async ({ page }) => {
  await page.setViewportSize({ width: SIDE * K, height: SIDE * K })
  // The element moves with its clip: only what lies right of and below its own corner is painted.
  const placed = `transform-origin:0 0;transform:translate(${128 * K}px,${128 * K}px) scale(${K})`
  const theirs = await chromium(page, `clip-path:path('${PATH}');${placed};position:absolute;left:0;top:0`)
  const mine = ours([{ kind: 'path', x: 128, y: 128, path: PATH } as Shape])
  const quarter = (values: number[]) => values.filter((_, i) => i % SIDE >= 128 && i >= 128 * SIDE)
  compare(quarter(mine), quarter(theirs))
})

test('shapes with feather, turn and opacity are those of mask-image', async ({ page }) => {
  await page.setViewportSize({ width: SIDE * K, height: SIDE * K })
  const shapes: Shape[] = [
    ellipse(),
    ellipse({ feather: 24, opacity: 70 }),
    box({ rotation: 25 }),
    box({ rotation: -40, feather: 16 }),
  ]
  for (const shape of shapes) {
    // Chromium blurs by three boxes, within 3 % of a Gaussian (Filter Effects 1 §9.5).
    compare(ours([shape]), await chromium(page, mask([shape], 'add')), shape.feather ? [6, 0.8] : undefined)
  }
})

test('add, take and keep are add, subtract and intersect of mask-composite', async ({ page }) => {
  await page.setViewportSize({ width: SIDE * K, height: SIDE * K })
  const [low, high] = [ellipse({ opacity: 80 }), box({ opacity: 60 })]
  for (const [mode, composite, layers] of [
    ['add', 'add', [high, low]],
    // What is subtracted from stands in front there.
    ['take', 'subtract', [low, high]],
    ['keep', 'intersect', [high, low]],
  ] as const) {
    compare(ours([{ ...high, mode }, low]), await chromium(page, mask([...layers], composite)))
  }
})

test('a matte by lightness is mask-mode luminance, by alpha mask-mode alpha', async ({ page }) => {
  await page.setViewportSize({ width: SIDE * K, height: SIDE * K })
  const colours = ['#F6C667', '#1E6B6A', '#B8324ACC']
  const disc = (colour: string, i: number) => ({ x: 60 + i * 68, y: 90 + i * 40, width: 110, height: 90, colour })
  const discs = colours.map(disc)
  const forms = discs.map(({ x, y, width, height, colour }) => {
    const opacity = colour.length > 7 ? parseInt(colour.slice(7), 16) / 255 : 1
    return `<ellipse cx="${x}" cy="${y}" rx="${width / 2}" ry="${height / 2}" fill="${colour.slice(0, 7)}" fill-opacity="${opacity}"/>`
  })
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIDE * K}" height="${SIDE * K}" viewBox="0 0 ${SIDE} ${SIDE}">${forms.join('')}</svg>`
  const image = `mask-image:url('data:image/svg+xml,${encodeURIComponent(svg)}')`
  for (const by of ['lightness', 'alpha'] as const) {
    const bare = { ...emptyCard(SIDE, SIDE), background: solid('#000000') }
    const pieces = discs.map(({ colour, ...values }, i) => ({
      ...{ ...createPiece('ellipse', bare), ...values, id: `disc-${i}` },
      coats: { face: [coat('fill', `fill-${i}`, { paint: solid(colour) })], behind: [] },
    }))
    const group = {
      ...createPiece('group', bare),
      id: 'discs',
      x: 0,
      y: 0,
      on: false,
      pieces: pieces.reverse(),
    } as unknown as Piece
    const held = { ...createMask('matte', 'm'), source: 'discs', by } as Mask
    const all = { x: 128, y: 128, width: 2000, height: 2000, masks: [held] }
    const card = withBox({ ...bare, pieces: [group] }, all, { face: [coat('fill', 'f', { paint: solid('#FFFFFF') })] })
    const mine = [...new Engine().render(expectCard(card), 0).pixels].filter((_, i) => i % 4 === 0)
    compare(mine, await chromium(page, `${image};mask-mode:${by === 'alpha' ? 'alpha' : 'luminance'}`), [16, 0.6])
  }
})
