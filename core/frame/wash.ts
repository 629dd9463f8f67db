import type { Piece } from '../card/schema'
import type { FinishScale } from '../finishes/definition'
import { PLACE_PARAMETERS } from '../pieces/place'
import { numberValue } from '../values/evaluated'
import type { Moment } from '../values/moment'
import type { Px, Rect } from '../units'
import { Canvas } from './canvas'
import { washScale } from './finish-scale'
import type { Elsewhere } from './finish-bench'
import { finishBench } from './finish-bench'
import { inPlace, workFinishes } from './finishing'
import type { GridBox } from './grid-box'
import { common } from './grid-box'
import type { LaidFinish } from './laid-finishes'
import { finishedBounds, looksOf } from './laid-finishes'
import { heldCover } from './masks'
import { BOX_GRID } from '../kernels/gauss'
import type { Drawing } from './piece'

/** Card px around the frame that are computed for washes at the most. */
const MOST_BEYOND = 192

/**
 * Treats what a canvas holds by the finishes of a wash. Opacity mixes what came out with what came in; other blend modes lay it
 * on what came in; masks say where it works. `elsewhere` gives other moments of what lies behind, and other pieces, in a box. `seen` is the part of the canvas
 * that is looked at afterwards.
 */
export function layWash(
  drawing: Drawing,
  piece: Piece,
  finishes: readonly LaidFinish[],
  at: Moment,
  canvas: Canvas,
  elsewhere: (finish: LaidFinish, box: GridBox) => Elsewhere,
  place: string,
  seen: GridBox = canvas.box,
): void {
  const { kernels } = drawing
  const scale = washScale(drawing)
  const opacity = numberValue(piece.opacity, at, PLACE_PARAMETERS.opacity) / 100
  const box = treated(finishes, scale, canvas)
  if (!box || opacity <= 0) return
  const mark = kernels.mark()
  const window = canvas.window(box)
  const src = { ...window, box }
  const benchOf = (finish: LaidFinish) =>
    finishBench(drawing, scale, finish, { frame: at.frame, hook: null }, elsewhere(finish, box))
  // What later finishes look at, on whole groups of pixels.
  const neededFor = (later: readonly LaidFinish[]) => {
    const looks = looksOf(later, scale)
    if (!Number.isFinite(looks)) return box
    const by = Math.ceil(looks / 16) * 16
    const around = { x: seen.x - by, y: seen.y - by, w: (seen.w + 2 * by + 15) & ~15, h: seen.h + 2 * by }
    return common(around, box)
  }
  canvas.touch(box)
  const part = neededFor([])
  const held = heldCover(drawing, { piece, at, placement: null, percent: scale.px }, 'after', part, place)
  if (inPlace(finishes) && opacity === 1 && piece.blend === 'normal' && !held) {
    workFinishes(kernels, finishes, benchOf, src, src, neededFor)
  } else {
    const made = { ...kernels.layers(box.w, box.h, false), box }
    workFinishes(kernels, finishes, benchOf, src, made, neededFor)
    const [from, onto] = [new Canvas(kernels, made, box).window(part), canvas.window(part)]
    if (piece.blend !== 'normal') {
      if (held) kernels.layPicture(piece.blend, onto, { mask: held, gate: null }, from, opacity)
      else kernels.blend(piece.blend, from, onto, opacity)
    } else {
      if (opacity < 1) kernels.mixRows(onto, from, opacity)
      if (held) kernels.mix(held, from, onto)
      else kernels.copy(from, onto)
    }
  }
  kernels.release(mark)
}

/** The part of a canvas that finishes can change: what is there, as far as they spread it, on the blur's grid. */
function treated(finishes: readonly LaidFinish[], scale: FinishScale, { inked, box }: Canvas): GridBox | null {
  if (finishes.length === 0) return null
  const everywhere = finishes.some(({ definition: { moments } }) => moments !== undefined)
  if (everywhere) return box
  const there: Rect | null = inked && {
    ...{ left: inked.x, top: inked.y, right: inked.x + inked.w, bottom: inked.y + inked.h },
  }
  const bounds = finishedBounds(finishes, scale, there, () => null)
  if (!bounds) return null
  const down = (value: number) => Math.floor(value / BOX_GRID) * BOX_GRID
  const [x, y] = [down(bounds.left), down(bounds.top)]
  const whole = { x, y, w: (Math.ceil(bounds.right - x) + 15) & ~15, h: Math.ceil(bounds.bottom) - y }
  const part = common(whole, box)
  return part.w > 0 && part.h > 0 ? part : null
}

/** The frame and as much around it as washes look at; in render pixels, on the grid of parts. */
export function washWorld({ card, scale }: Drawing, looks: Px, cell: number): GridBox {
  const beyond = Math.ceil(Math.min(looks, MOST_BEYOND * scale) / cell) * cell
  const [width, height] = [Math.round(card.frame.width * scale), Math.round(card.frame.height * scale)]
  return {
    x: -beyond,
    y: -beyond,
    w: (Math.max(1, width) + 2 * beyond + 15) & ~15,
    h: Math.max(1, height) + 2 * beyond,
  }
}
