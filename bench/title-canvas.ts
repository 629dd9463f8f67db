import { readFileSync } from 'node:fs'
import type { SKRSContext2D } from '@napi-rs/canvas'
import { createCanvas, Path2D } from '@napi-rs/canvas'
import { flatten } from '../core/outline/contour'
import { Font } from '../core/type/font'
import { glyphPath } from '../core/type/glyph-path'
import { setType } from '../core/type/layout'

// The look of the reference title as one would put it together on a canvas: shadows, strokes and clips of Skia, in 8 bits.
// Its bevel is faked (common practice, no published source) by a light and a dark copy of the letters' counterform, blurred and
// moved apart: as shadows, whose masks Skia keeps small, or as whole pictures through a blur filter.

const [W, H] = [1920, 1080]
const SIZE = 200
/** Farther than any shadow: what is only wanted for its shadow is drawn there. */
const AWAY = 4000

const BEVEL = [
  { colour: 'rgba(255, 255, 255, 0.75)', dx: 4, dy: 6 },
  { colour: 'rgba(0, 0, 0, 0.55)', dx: -4, dy: -6 },
]

const font = new Font(new Uint8Array(readFileSync('public/fonts/archivo-black.ttf')), 'archivo-black')

/** Words as a path around (x, y). */
function pathOf(wording: string, x: number, y: number): Path2D {
  const path = new Path2D()
  for (const letter of setType(font, { wording, tracking: 0, leading: 100, align: 'centre' })) {
    for (const { points } of flatten(glyphPath(font, letter.id), 0.01 / SIZE)) {
      for (let i = 0; i < points.length; i += 2) {
        const [px, py] = [x + (letter.x + points[i]!) * SIZE, y + (letter.y + points[i + 1]!) * SIZE]
        if (i === 0) path.moveTo(px, py)
        else path.lineTo(px, py)
      }
      path.closePath()
    }
  }
  return path
}

export interface CanvasTitle {
  /** Draws a title and asks for its pixels. */
  draw(wording: string, x: number, hue: string): Uint8ClampedArray
}

export function canvasTitle(bevel: 'shadows' | 'filters'): CanvasTitle {
  const canvas = createCanvas(W, H)
  const copy = createCanvas(W, H)
  const context = canvas.getContext('2d')
  return {
    draw(wording, x, hue) {
      const path = pathOf(wording, x, H / 2)
      context.clearRect(0, 0, W, H)
      // Behind: the glow and the shadow.
      cast(context, path, { colour: '#FFB340', blur: 40, dx: 0, dy: 0 })
      cast(context, path, { colour: '#000', blur: 24, dx: 7, dy: 12 })
      // Strokes outward, the wider one below.
      context.lineJoin = 'round'
      for (const [width, colour] of [
        [20, '#FFF640'],
        [12, hue],
      ] as const) {
        context.lineWidth = width
        context.strokeStyle = colour
        context.stroke(path)
      }
      const gradient = context.createLinearGradient(x - 800, 0, x + 800, 0)
      gradient.addColorStop(0, hue)
      gradient.addColorStop(1, '#FFE940')
      context.fillStyle = gradient
      context.fill(path)
      // Within: the shadow, then light and shade of the bevel.
      context.save()
      context.clip(path)
      const counter = new Path2D()
      counter.rect(0, 0, W, H)
      counter.addPath(path)
      cast(context, counter, { colour: '#5A1040', blur: 10, dx: 2, dy: 4 }, 'evenodd')
      for (const { colour, dx, dy } of BEVEL) {
        if (bevel === 'shadows') cast(context, counter, { colour, blur: 12, dx, dy }, 'evenodd')
        else {
          const pencil = copy.getContext('2d')
          pencil.clearRect(0, 0, W, H)
          pencil.fillStyle = colour
          pencil.fill(counter, 'evenodd')
          context.filter = 'blur(6px)'
          context.drawImage(copy, dx, dy)
          context.filter = 'none'
        }
      }
      context.restore()
      return context.getImageData(0, 0, W, H).data
    },
  }
}

/** The shadow of a path alone. */
function cast(
  context: SKRSContext2D,
  path: Path2D,
  { colour, blur, dx, dy }: { colour: string; blur: number; dx: number; dy: number },
  rule: 'nonzero' | 'evenodd' = 'nonzero',
): void {
  context.save()
  context.shadowColor = colour
  context.shadowBlur = blur
  context.shadowOffsetX = dx + AWAY
  context.shadowOffsetY = dy
  context.fillStyle = '#000'
  context.translate(-AWAY, 0)
  context.fill(path, rule)
  context.restore()
}
