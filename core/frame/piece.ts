import { PLACE_PARAMETERS } from '../pieces/place'
import type { Card, Piece } from '../card/schema'
import type { Moment } from '../values/moment'
import { stepped } from '../values/moment'
import type { EvaluatedPaint } from '../values/evaluated'
import { valuesAt, switchValue } from '../values/evaluated'
import type { CoatScale, Insets, Layer, Light } from '../coats/definition'
import { even } from '../coats/definition'
import type { Placement } from '../outline/outline'
import { isStopped } from '../time/clock'
import { stretchBy } from '../outline/linear'
import { within } from '../outline/outline'
import { blurReach } from '../kernels/gauss'
import type { BlendMode } from '../kernels/blend-modes'
import { pixelColour } from '../paint/ramp'
import type { SequenceBook } from '../paint/sequences'
import type { Tint } from '../type/letter-motion'
import { tintedPaint } from '../type/letter-motion'
import type { Point, Px, Rect } from '../units'
import type { Plane } from '../kernels/kernels'
import type { BrushTips } from './brush-tips'
import { Canvas } from './canvas'
import type { PreparedLayer, PreparedPainting, PreparedPiece } from './compose'
import { compose } from './compose'
import type { Contents } from './content'
import { EdgeField } from './edge-field'
import type { DrawnForm } from './form'
import { drawnForms } from './form'
import type { GridBox } from './grid-box'
import { boxesFor, joined } from './grid-box'
import { fittedOf } from './fitted'
import { isolated, planIsolated } from './isolated'
import type { LaidCoat } from './laid-coats'
import { fieldReach, laidCoats, lookOf, measured, reachOf, seedOf } from './laid-coats'
import type { OpenList } from './open-list'
import { OutlineTools } from './outline-tools'
import type { Outlines } from './outlines'
import type { Shutter } from './shutter'
import type { PlannedPiece } from './still-runs'
import type { LaidPicture, Shelf } from './shelf'
import type { Hook, Palette, PreparedPaint } from './prepared-paint'
import { isLinear, preparePaint } from './prepared-paint'
import type { ToolSetting, RecipeTools } from './recipe-tools'

/** What drawing needs from the engine. */
export interface Drawing extends Palette {
  outlines: Outlines
  shelf: Shelf<Plane>
  /** Finished pictures that are kept. */
  finished: Shelf<LaidPicture>
  contents: Contents
  brushTips: BrushTips
  sequences: SequenceBook
  card: Card
  /** All that the frame can show, on the render grid. */
  world: GridBox
  at: Moment
  /** The list that is being drawn. */
  list: OpenList
  light: Light
  /** See View.draft. */
  draft: boolean
  /** What groups ask of the lists that they hold. */
  lists: Lists
  /** The part of the frame that is asked for; null while a picture at another frame is made, which is needed whole. */
  part: GridBox | null
  /** How many pictures at other frames are made at once for this one: those of trails in trails multiply. */
  copies: number
  /** Open while a piece is exposed; null for none, and for what a group holds, which is exposed with it. */
  shutter: Shutter | null
}

/** The pieces of the list that is open in a drawing, front first. */
export interface Lists {
  /** One piece, as it will be laid. */
  plan(drawing: Drawing, piece: Piece, place: string): PlannedPiece
  lay(drawing: Drawing, pieces: readonly Piece[], canvas: Canvas): void
  /** What they can touch. */
  touched(drawing: Drawing, pieces: readonly Piece[]): Rect | null
  /** How far beyond a canvas they must be computed, because washes among them look there. */
  looks(drawing: Drawing, pieces: readonly Piece[]): Px
}

/** How a piece stands on the render grid at a moment. */
export interface Standing {
  piece: Piece
  /** When it is: its picture may be held for some frames. */
  at: Moment
  /** From the piece's own space to the render grid. */
  placement: Placement
  /** Where its anchor stands on the render grid. */
  anchor: Point
  opacity: number
  blend: BlendMode
}

/** Whether a piece is on at a moment that lies in its span and at which its clock runs. */
export const isSeen = (piece: Piece, at: Moment) =>
  switchValue(piece.on, at) &&
  (!piece.span || (at.frame >= piece.span.in && at.frame < piece.span.out)) &&
  !isStopped(piece, at)

/** Null for a piece that is off, not seen at this frame, clear, or scaled to nothing. */
export function standingOf(piece: Piece, parent: Placement, now: Moment): Standing | null {
  if (!isSeen(piece, now)) return null
  const at = stepped(now, piece.steps)
  const values = { ...valuesAt(PLACE_PARAMETERS, piece, at), ...fittedOf(piece, at) }
  const { x, y, anchorX, anchorY, rotation, scale, stretchX, stretchY, skew, opacity, blend } = values
  if (opacity <= 0 || scale <= 0 || stretchX === 0 || stretchY === 0) return null
  const stretch = stretchBy(stretchX / 100, stretchY / 100, skew)
  const anchor = within(parent, { x, y, rotation, scale: scale / 100, ...(stretch ? { stretch } : {}) })
  const placement = within(anchor, { x: -anchorX, y: -anchorY, rotation: 0, scale: 1 })
  return { piece, at, placement, anchor: { x: anchor.x, y: anchor.y }, opacity: opacity / 100, blend }
}

/** Where a piece can touch the render grid; null for nothing. */
export function touchedBy(drawing: Drawing, standing: Standing, place: string): Rect | null {
  const coats = laidCoats(standing.piece, standing.at)
  return drawnForms(drawing, standing, place)
    .map(({ form, blur }) => spread(form.bounds, widened(reachOf(coats, form.scale), blurReach(blur))))
    .reduce<Rect | null>(joined, null)
}

export const spread = (bounds: Rect, reach: Insets): Rect => ({
  left: bounds.left - reach.left,
  top: bounds.top - reach.top,
  right: bounds.right + reach.right,
  bottom: bounds.bottom + reach.bottom,
})

const widened = ({ left, top, right, bottom }: Insets, by: Px): Insets => ({
  ...{ left: left + by, top: top + by, right: right + by, bottom: bottom + by },
})

/** Bytes that the planes of letters may take which lie in memory at once. */
const TOGETHER = 512 * 1024 * 1024
/** Planes that a coat takes about. */
const PLANES_OF_COAT = 4

/** Lays one piece that has an outline on the canvas; blurred letters lie over the sharp ones. */
export function drawFormed(drawing: Drawing, standing: Standing, canvas: Canvas, place: string): void {
  const forms = drawnForms(drawing, standing, place)
  const sharp = forms.filter(({ blur }) => blur === 0)
  for (const letters of inLots(drawing, sharp, canvas)) layForms(drawing, letters, canvas)
  for (const form of forms) if (form.blur > 0) layBlurred(drawing, form, canvas)
}

/** Forms that are laid together, coat after coat: all of them where there is room. */
function inLots(drawing: Drawing, forms: readonly DrawnForm[], canvas: Canvas): DrawnForm[][] {
  const lots: DrawnForm[][] = []
  let room = 0
  for (const drawn of forms) {
    const { standing, form } = drawn
    const coats = laidCoats(standing.piece, standing.at)
    const look = Math.max(0, ...coats.map((coat) => lookOf(coat, form.scale)))
    const box = boxesFor(form.bounds, reachOf(coats, form.scale), look, canvas.box, drawing.world)?.box ?? NOWHERE
    const bytes = box.w * box.h * 4 * PLANES_OF_COAT * coats.length
    if (room < bytes || lots.length === 0) {
      lots.push([])
      room = TOGETHER
    }
    lots.at(-1)!.push(drawn)
    room -= bytes
  }
  return lots
}

function layForms(drawing: Drawing, forms: readonly DrawnForm[], canvas: Canvas): void {
  const { kernels } = drawing
  const mark = kernels.mark()
  const prepared = forms.flatMap((form) => preparedForm(drawing, form, canvas) ?? [])
  if (prepared.length > 0) compose(kernels, canvas, prepared)
  kernels.release(mark)
}

/** Draws a letter on a canvas of its own, blurs that, and lays it. */
function layBlurred(drawing: Drawing, { blur, standing, ...rest }: DrawnForm, canvas: Canvas): void {
  const { kernels } = drawing
  const around = blurReach(blur)
  const reach = reachOf(laidCoats(standing.piece, standing.at), rest.form.scale)
  // Letters move: their pictures are never the same again.
  const plan = planIsolated(null, rest.form.bounds, widened(reach, around), around, canvas, drawing.world)
  if (!plan) return
  const { box, visible } = plan
  const mark = kernels.mark()
  const sharp = isolated(drawing, plan, (inner) =>
    layForms(drawing, [{ ...rest, standing: { ...standing, blend: 'normal' }, blur: 0 }], inner),
  )
  const soft = kernels.blurredLayers(sharp, blur)
  canvas.touch(visible)
  kernels.blend(standing.blend, new Canvas(kernels, soft, box).window(visible), canvas.window(visible), 1)
  kernels.release(mark)
}

function preparedForm(
  drawing: Drawing,
  { standing, form, tints, share, cut }: DrawnForm,
  canvas: Canvas,
): PreparedPiece | null {
  const { kernels, shelf } = drawing
  const coats = laidCoats(standing.piece, standing.at)
  const setting = settingOf(drawing, standing, form)
  const reach = measured(coats, form.scale)
  // Coats blur what they made from distances: the field goes as far beyond the canvas as any of them looks.
  const margin = Math.max(0, ...coats.map((coat) => lookOf(coat, form.scale)))
  const fieldBox =
    reach > 0 ? boxesFor(form.bounds, fieldReach(coats, form.scale), margin, canvas.box, drawing.world)?.box : null
  const field = new EdgeField(
    kernels,
    shelf,
    form,
    fieldBox ?? NOWHERE,
    reach,
    coats.some(({ definition }) => definition.showsEdges),
  )
  const tools = (box: GridBox, seed: () => number) => new OutlineTools(setting, box, seed, form, field)
  const { scale, bounds, hook } = form
  return prepareCoats({ drawing, standing, canvas, coats, scale, bounds, hook, tools, tints, share, cut })
}

export function settingOf(
  { kernels, shelf, draft }: Drawing,
  { placement }: Standing,
  { key, reference, scale }: { key: string; reference: Px; scale: CoatScale },
): ToolSetting {
  const { light, innerDepth, extent } = scale
  return { kernels, shelf, draft, key, scale: placement.scale, reference, light, innerDepth, extent }
}

interface CoatWork {
  drawing: Drawing
  standing: Standing
  canvas: Canvas
  coats: readonly LaidCoat[]
  scale: CoatScale
  bounds: Rect
  hook: Hook
  tools(box: GridBox, seed: () => number): RecipeTools
  /** Colours that paints take on. */
  tints?: readonly Tint[]
  /** See PreparedPiece. */
  share?: number
  cut?: boolean
  /** What lies under the face's own coats: the contents of a group. Covers the ink's box. */
  contents?: (ink: GridBox) => PreparedLayer
}

const NOWHERE: GridBox = { x: 0, y: 0, w: 0, h: 0 }

/** Computes all coats of a form and lays them. */
export function drawCoats(work: CoatWork): void {
  const prepared = prepareCoats(work)
  if (prepared) compose(work.drawing.kernels, work.canvas, [prepared])
}

/** All coats of a form, each computed in the box that it can touch; null where there is nothing to lay. */
function prepareCoats(work: CoatWork): PreparedPiece | null {
  const { drawing, standing, canvas, coats, scale, bounds, tints = [], share = 1, cut = false } = work
  const toolSets = new Map<string, RecipeTools>()
  const ink = boxesFor(bounds, even(1), 0, canvas.box, drawing.world)?.visible ?? NOWHERE
  const inked = ink.w > 0 && ink.h > 0
  let seed = 0
  const toolsIn = (box: GridBox) => {
    const name = `${box.x} ${box.y} ${box.w} ${box.h}`
    const found = toolSets.get(name) ?? work.tools(box, () => seed)
    toolSets.set(name, found)
    return found
  }

  // Coats with the same box share their planes.
  let rank = 0
  const prepare = (coat: LaidCoat): PreparedLayer[] => {
    // Counted for coats that lie beyond the canvas too: letters compare.
    rank++
    const reach = coat.definition.reach(coat.values, scale, coat.place)
    const boxes = boxesFor(bounds, reach, lookOf(coat, scale), canvas.box, drawing.world)
    if (!boxes) return []
    const tools = toolsIn(boxes.box)
    seed = seedOf(drawing.card, coat)
    const tinted = tints.filter(({ on }) => on === 'all' || coat.definition.kind === 'fill')
    return coat.definition.layers(coat.values, tools, coat.place).flatMap((layer, k): PreparedLayer[] => {
      const box = layer.where === 'inside' ? ink : boxes.visible
      if (box.w <= 0 || box.h <= 0) return []
      canvas.touch(box)
      const painting = (part: Omit<Layer, 'where' | 'over'>, whole: number, blend: BlendMode): PreparedPainting => ({
        mask: part.mask && tools.plane(tools.cropped(part.mask, box)),
        along: part.along && part.paint.type === 'edge' ? tools.plane(tools.cropped(part.along, box)) : null,
        paint: keptPlaces(
          drawing,
          box,
          preparePaint(drawing, tintedPaint(part.paint, tinted), work.hook, coat.address),
        ),
        opacity: whole * (part.opacity ?? 1),
        blend: part.blend ?? blend,
      })
      return [
        {
          ...painting(layer, coat.opacity, coat.blend),
          group: coat.group,
          rank: rank + k / 1000,
          where: layer.where,
          box,
          over: [
            ...(layer.over ?? []).map((part) => painting(part, 1, 'normal')),
            ...(isPicture(layer.paint) ? tinted.map((tint) => laidTint(drawing.card, tint)) : []),
          ],
        },
      ]
    })
  }
  const behind = coats.filter(({ group }) => group === 'behind').flatMap(prepare)
  const face = coats.filter(({ group }) => group === 'face').flatMap(prepare)
  const contents = work.contents && inked ? [work.contents(ink)] : []
  if (contents.length > 0) canvas.touch(ink)
  const layers = [...behind, ...contents, ...face]
  if (layers.length === 0) return null
  const inkTools = toolsIn(ink)
  const coverage = inked ? inkTools.plane(inkTools.coverage()) : drawing.kernels.plane(0, 0)
  return { layers, coverage, ink, blend: standing.blend, opacity: standing.opacity, share, cut }
}

/** Places that take long to make, and are asked for again in the same box, are made once for all of its rows. */
function keptPlaces({ shelf }: Drawing, box: GridBox, paint: PreparedPaint): PreparedPaint {
  if (!('places' in paint) || paint.name === undefined) return paint
  const key = `${paint.name} ${box.x} ${box.y} ${box.w} ${box.h}`
  if (!shelf.comesAgain(key)) return paint
  const { at, w } = shelf.of(key, () => paint.places(box))
  return { ramp: paint.ramp, places: ({ y, h }) => ({ at: at + (y - box.y) * w * 4, w, h }) }
}

const isPicture = (paint: EvaluatedPaint) => paint.type === 'texture' && paint.pattern === 'picture'

/** A tint over a picture, whose own colours are not known one by one. */
const laidTint = (card: Card, { colour, share }: Tint): PreparedPainting => ({
  ...{ mask: null, along: null, opacity: share, blend: 'normal' },
  paint: { solid: pixelColour(colour, isLinear(card)) },
})
