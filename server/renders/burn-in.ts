import { createCard, createCoat, createPiece } from '../../core/card/create'
import type { Card, TypePiece } from '../../core/card/schema'
import type { FramePicture } from '../../core/frame/engine'
import { Engine } from '../../core/frame/engine'
import { shippedFonts } from '../fonts/shipped'

// Words in the picture of a review copy: the card's name and the timecode of each frame, drawn once by the engine and then laid
// letter by letter.

export interface BurnIn {
  /** Writes into the solid RGBA picture. */
  write(pixels: Uint8Array, timecode: string): void
}

const FONT = 'barlow-condensed-medium'
const SIGNS = '0123456789:;-'
/** Height of capitals against the height of the picture. */
const SIZE = 1 / 26

/** Coverage of drawn words, 0–255. */
interface Stencil {
  width: number
  height: number
  alpha: Uint8Array
}

export async function burnIn(title: string, width: number, height: number): Promise<BurnIn> {
  const engine = new Engine()
  const font = await shippedFonts(FONT)
  if (font) engine.fonts.add(FONT, font)
  const size = Math.max(9, Math.round(height * SIZE))
  const line = Math.round(size * 1.5)
  // All digits take the same room, so that nothing wobbles while they count.
  const cell = Math.round(size * 0.52)
  const draw = (wording: string, room: number, align: 'left' | 'centre') =>
    stencil(engine.render(lineOf(wording, size, room, line, align), 0))
  const signs = new Map([...SIGNS].map((sign) => [sign, draw(sign, cell, 'centre')]))
  const margin = Math.round(height * 0.03)
  const name = draw(title, Math.max(1, Math.floor(width - 3 * margin - 12 * cell)), 'left')
  // Above: most of what is looked at stands at the foot.
  const top = margin
  return {
    write: (pixels, timecode) => {
      const to = { pixels, width, height }
      const room = timecode.length * cell
      plate(to, { x: margin - cell / 2, y: top, w: inked(name) + cell, h: line })
      lay(to, name, margin, top)
      plate(to, { x: width - margin - room - cell / 2, y: top, w: room + cell, h: line })
      for (const [i, sign] of [...timecode].entries()) {
        const drawn = signs.get(sign)
        if (drawn) lay(to, drawn, width - margin - room + i * cell, top)
      }
    },
  }
}

function lineOf(wording: string, size: number, width: number, height: number, align: 'left' | 'centre'): Card {
  const card = createCard('Words', { width, height, rate: { numerator: 25, denominator: 1 }, length: 1 })
  const x = align === 'left' ? 0 : width / 2
  const piece: TypePiece = {
    ...(createPiece('type', card) as TypePiece),
    ...{ wording, font: FONT, size, align, x, y: Math.round(height * 0.55), anchorX: 0, anchorY: 0 },
    coats: { face: [{ ...createCoat('fill', 'fill'), paint: { type: 'solid', colour: '#FFFFFF' } }], behind: [] },
  } as TypePiece
  return { ...card, pieces: [piece] }
}

function stencil({ width, height, pixels }: FramePicture): Stencil {
  return { width, height, alpha: Uint8Array.from({ length: width * height }, (_, i) => pixels[i * 4 + 3]!) }
}

/** How far to the right anything is drawn. */
function inked({ width, height, alpha }: Stencil): number {
  for (let x = width - 1; x >= 0; x--) {
    for (let y = 0; y < height; y++) if (alpha[y * width + x]! > 0) return x + 1
  }
  return 0
}

interface Target {
  pixels: Uint8Array
  width: number
  height: number
}

/** Darkens what lies behind the words, so that they are read on any picture. */
function plate(
  { pixels, width, height }: Target,
  { x, y, w, h }: { x: number; y: number; w: number; h: number },
): void {
  const [left, right] = [Math.max(0, Math.round(x)), Math.min(width, Math.round(x + w))]
  for (let row = Math.max(0, y); row < Math.min(height, y + h); row++) {
    for (let at = (row * width + left) * 4; at < (row * width + right) * 4; at++)
      if ((at & 3) < 3) pixels[at] = pixels[at]! >> 2
  }
}

function lay({ pixels, width, height }: Target, { alpha, ...size }: Stencil, x: number, y: number): void {
  for (let row = 0; row < size.height; row++) {
    for (let column = 0; column < size.width; column++) {
      const cover = alpha[row * size.width + column]!
      const [toX, toY] = [x + column, y + row]
      if (cover === 0 || toX < 0 || toX >= width || toY < 0 || toY >= height) continue
      const at = (toY * width + toX) * 4
      for (let c = at; c < at + 3; c++) pixels[c] = pixels[c]! + ((((255 - pixels[c]!) * cover + 127) / 255) | 0)
    }
  }
}
