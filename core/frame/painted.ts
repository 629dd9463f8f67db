import { boundsOf } from '../extent'
import type { Dab } from '../brushes/dabs'
import { dabsOf } from '../brushes/dabs'
import type { BrushStroke } from '../brushes/stroke'
import { strokeBounds } from '../brushes/stroke'
import { isOwnTip } from '../brushes/own-tip'
import { tipOf } from '../brushes/table'
import { determinant } from '../outline/linear'
import type { Placement } from '../outline/outline'
import { place as onGrid } from '../outline/outline'
import { pixelColour } from '../paint/ramp'
import type { Px, Rect } from '../units'
import { readColour } from '../values/colour'
import type { SizedTip } from './brush-tips'
import type { GridBox } from './grid-box'
import { common } from './grid-box'
import type { Drawing } from './piece'
import { isLinear } from './prepared-paint'
import type { LaidPicture } from './shelf'

// The picture of brush strokes. Each stroke is laid on those before it, so that the picture of all but the last ones can be kept:
// the same steps make the same bytes, from whichever picture one goes on.

/** A stroke, and how many of its dabs are there; the last one may be there in part. */
interface ShownStroke {
  stroke: BrushStroke
  dabs: number
}

/** The strokes of which `share` (0–1) of all dabs are there. */
function shownStrokes(strokes: readonly BrushStroke[], share: number): ShownStroke[] {
  if (share >= 1) return strokes.map((stroke) => ({ stroke, dabs: Infinity }))
  let left = share * strokes.reduce((sum, stroke) => sum + dabsOf(stroke).length, 0)
  return strokes.flatMap((stroke) => {
    const dabs = left
    left -= dabsOf(stroke).length
    return dabs > 0 ? [{ stroke, dabs: left >= 0 ? Infinity : dabs }] : []
  })
}

/** What strokes painted, where they stand, in a box: premultiplied, on nothing. */
export function paintedPicture(
  drawing: Drawing,
  strokes: readonly BrushStroke[],
  share: number,
  placement: Placement,
  box: GridBox,
): LaidPicture {
  const { kernels, contents, finished } = drawing
  const shown = shownStrokes(strokes, share)
  const { x, y, w, h } = box
  const linear = isLinear(drawing.card)
  let name = contents.name(`painted ${JSON.stringify(placement)} ${linear} ${x} ${y} ${w} ${h}`)
  const names = shown.map(({ stroke, dabs }) => (name = contents.name(`${name} ${contents.ofStroke(stroke)} ${dabs}`)))
  const last = shown.length - 1
  const whole = names[last] && finished.get(names[last])
  if (whole) return whole
  const picture = { ...kernels.layers(w, h, false), box }
  const mark = kernels.mark()
  let done = last - 1
  while (done >= 0 && !finished.get(names[done]!)) done--
  const before = done >= 0 ? finished.get(names[done]!) : null
  if (before) kernels.copy(before, picture)
  else kernels.clear(picture)
  for (let i = Math.max(0, done + 1); i <= last; i++) {
    // While a stroke is being painted, all before it stays.
    if (i === last && i - 1 > done && finished.comesAgain(names[i - 1]!)) finished.keep(names[i - 1]!, picture)
    layStroke(drawing, shown[i]!, placement, picture)
    kernels.release(mark)
  }
  if (last >= 0 && finished.comesAgain(names[last]!)) finished.keep(names[last]!, picture)
  return picture
}

function layStroke(drawing: Drawing, { stroke, dabs }: ShownStroke, placement: Placement, picture: LaidPicture): void {
  const { kernels, card } = drawing
  const part = common(aligned(placedBounds(strokeBounds(stroke), placement)), picture.box)
  if (part.w <= 0 || part.h <= 0) return
  const cover = kernels.plane(part.w, part.h, 0)
  const scale = placement.scale * (placement.stretch ? Math.sqrt(Math.abs(determinant(placement.stretch))) : 1)
  const mirrored = placement.stretch && determinant(placement.stretch) < 0 ? -1 : 1
  const sized = sizedTips(drawing, stroke)
  const lay = ({ x, y, radius, turn, flow }: Dab, weight: number) => {
    const placed = { ...onGrid(placement, { x, y }), radius: radius * scale, flow: flow * weight }
    if (placed.radius <= 0 || placed.flow <= 0) return
    if (!sized) kernels.addDisc(cover, part, placed, stroke.hardness / 100)
    else {
      const turned = { ...placed, turn: turn * mirrored + placement.rotation }
      kernels.addTip(cover, part, turned, sized(placed.radius))
    }
  }
  dabsOf(stroke).forEach((dab, i) => i < dabs && lay(dab, Math.min(1, dabs - i)))
  const whole = stroke.opacity < 100 ? kernels.placeScaled(cover, 0, stroke.opacity / 100) : cover
  const onto = kernels.window(picture, part.x - picture.box.x, part.y - picture.box.y, part.w, part.h)
  if (stroke.erase) kernels.fade(onto, whole, 1, true)
  else {
    const colour = pixelColour(readColour(stroke.colour)!, isLinear(card))
    kernels.laySolid('normal', onto, { mask: whole, gate: null }, colour, 1)
  }
}

/** The raster of a stroke's tip for dabs of a radius; null for a disc. */
function sizedTips({ brushTips, pictures, list }: Drawing, stroke: BrushStroke): ((radius: Px) => SizedTip) | null {
  if (isOwnTip(stroke.tip)) {
    const picture = pictures.get(stroke.tip, `${list.path}: ${stroke.id}, tip`)
    return (radius) => brushTips.ofPicture(stroke.tip, picture, radius)
  }
  const tip = tipOf(stroke.tip)
  return tip.raster ? (radius) => brushTips.of(tip, radius) : null
}

/** What bounds span where they are placed. */
export function placedBounds({ left, top, right, bottom }: Rect, placement: Placement): Rect {
  return boundsOf([left, right].flatMap((x) => [top, bottom].map((y) => onGrid(placement, { x, y }))))
}

/** Whole pixels around bounds; x and width are multiples of 4, as kernels ask. */
function aligned({ left, top, right, bottom }: Rect): GridBox {
  const down = (v: Px) => Math.floor(v / 4) * 4
  const [x, y] = [down(left), Math.floor(top)]
  return { x, y, w: Math.ceil((right - x) / 4) * 4, h: Math.ceil(bottom) - y }
}
