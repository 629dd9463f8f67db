import type { Card } from '../card/schema'
import { LARGEST_SIDE } from '../card/schema'
import type { Moment, EvaluatedPaint } from '../values/evaluated'
import { lightOf } from '../card/light'
import { checkUnfolded } from '../card/unfolded'
import { paintValue, switchValue } from '../values/evaluated'
import { WaxError } from '../errors'
import type { Plane } from '../kernels/kernels'
import { Kernels } from '../kernels/kernels'
import type { Address } from '../kernels/module'
import type { Bits, PixelForm } from '../kernels/pixel-form'
import { PLAIN_FORM } from '../kernels/pixel-form'
import { hasOutline } from '../pieces/definition'
import { PIECE_KINDS } from '../pieces/table'
import { PictureBook } from '../paint/pictures'
import { SequenceBook } from '../paint/sequences'
import { Tiles } from '../paint/texture'
import { momentOf } from '../time/ring'
import { stepped } from '../values/moment'
import { FontBook } from '../type/font-book'
import type { Frames, Point, Px, Rect, Rgba } from '../units'
import type { BeforeStep } from './before-step'
import { beforeStep } from './before-step'
import { BrushTips } from './brush-tips'
import { Canvas } from './canvas'
import { Contents } from './content'
import { pathFinder } from './along'
import { fitter } from './fitting'
import { giveOut } from './give-out'
import type { GridBox } from './grid-box'
import { worldAround } from './grid-box'
import { neededFor, seenIn } from './needed'
import type { Stratum } from './ground'
import { Ground } from './ground'
import { Outlines } from './outlines'
import type { PieceOutlook } from './outlook'
import { outlookOf } from './outlook'
import { backgroundMoves } from './moving-background'
import { LISTS, strataOf } from './plan'
import { pickPiece } from './pick'
import type { Drawing } from './piece'
import { formOf } from './form'
import { standingOf } from './piece'
import type { LaidPicture, Shelf } from './shelf'
import { pictureShelf, planeShelf } from './shelf'
import { Written } from './written'
import { isLinear, preparePaint } from './prepared-paint'
import { heightRow } from './height-row'
import type { Section } from './section'
import { edgeCard, handlesOf, middleRow, pieceOf } from './section'

const EVERYWHERE = { mask: null, gate: null }

export interface View extends Partial<PixelForm> {
  /** Render pixels per card pixel, up to 1. The default, 1, is the final size. */
  scale?: number
  /** A draft for while a hand moves: borders of strokes without joins of their own, and a pixel soft. */
  draft?: boolean
  /** The part of the frame that is rendered, in render pixels; its place is a multiple of 64. The default is all. */
  region?: GridBox
  /**
   * Render pixels around the part that are computed too, and cut off at the end: for what reads beyond the frame's edge.
   * Rounded up to a multiple of 64.
   */
  beyond?: number
  /** The pixels of an earlier picture that nobody needs any more: used again where the size fits. */
  reuse?: Uint8Array<ArrayBuffer>
}

/** A finished frame: RGBA, rows from the top, little-endian, straight unless another form was asked for. */
export interface FramePicture {
  width: number
  height: number
  bits: Bits
  pixels: Uint8Array<ArrayBuffer>
}

export interface EngineOptions {
  /** Whether what does not change is kept from frame to frame; no byte depends on it. */
  keeps?: boolean
  /** The work that one frame may be, in bytes computed. */
  most?: number
  sequences?: SequenceBook
}

/**
 * Renders frames. Holds fonts and what can be kept between frames; one engine a worker. The same card, frame
 * and view give the same bytes on every host.
 */
export class Engine {
  private readonly kernels = new Kernels()
  private readonly tiles = new Tiles(this.kernels)
  private readonly brushTips = new BrushTips(this.kernels)
  private readonly outlines: Outlines
  /** The pictures of sequences that are at hand. */
  readonly sequences: SequenceBook
  private canvas: Canvas | null = null
  private readonly written = new Written()

  private readonly shelf: Shelf<Plane>
  private readonly finished: Shelf<LaidPicture>
  private readonly contents = new Contents()
  private readonly ground: Ground
  private readonly base: Address
  private readonly most: number

  constructor(
    readonly fonts: FontBook = new FontBook(),
    readonly pictures: PictureBook = new PictureBook(),
    { keeps = true, most = MOST_WORK, sequences = new SequenceBook() }: EngineOptions = {},
  ) {
    this.sequences = sequences
    this.most = most
    this.outlines = new Outlines(fonts, (bytes) => this.kernels.charge(bytes))
    this.shelf = planeShelf(this.kernels, keeps ? PLANES : 0)
    this.finished = pictureShelf(this.kernels, keeps ? PICTURES : 0)
    this.ground = new Ground(this.kernels, this.finished, (text) => this.contents.name(text), keeps)
    this.base = this.kernels.mark()
  }

  /**
   * Throws a WaxError for a missing font or picture, or a view that cannot be, and what is wanted where a picture of a
   * sequence is not here yet: see fetching.ts. Frames beyond the loop come round
   * again.
   */
  render(card: Card, frame: Frames, view: View = {}): FramePicture {
    const { scale = 1, draft = false } = view
    const { bits = PLAIN_FORM.bits, alpha = PLAIN_FORM.alpha, light = PLAIN_FORM.light } = view
    const form = { bits, alpha, light }
    const frameWidth = Math.max(1, Math.round(card.frame.width * scale))
    const frameHeight = Math.max(1, Math.round(card.frame.height * scale))
    if (!(scale > 0) || frameWidth > LARGEST_SIDE || frameHeight > LARGEST_SIDE) {
      throw new WaxError(
        'frame-too-large',
        'frame',
        `A picture of ${frameWidth}×${frameHeight} px cannot be made.`,
        `The most is ${LARGEST_SIDE} px a side.`,
      )
    }
    const { x, y, w: width, h: height } = view.region ?? { x: 0, y: 0, w: frameWidth, h: frameHeight }
    const { kernels } = this
    this.beginFrame()
    const part = { x, y, w: width, h: height }
    const drawing = { ...this.drawing(card, shownMoment(card, frame), scale, draft), part }
    const canvas = this.canvasFor(neededFor(drawing, part, view.beyond ?? 0))
    const start = kernels.mark()
    let done = false
    try {
      const laid = seenIn({ x, y, w: (width + 15) & ~15, h: height }, this.ground.lay(canvas, this.strata(drawing)))
      // What is laid is also given out.
      kernels.begin(Infinity)
      const { pixels, part: changed } = this.written.begin(view.reuse, { width, height, form }, laid, { x, y })
      if (changed) {
        const to = { width, seed: card.seed, origin: { x, y }, ...form }
        giveOut(kernels, canvas, changed, isLinear(card), pixels, to)
      }
      done = true
      return { width, height, bits: form.bits, pixels }
    } finally {
      kernels.release(start)
      // Half a frame is nothing to begin the next one with.
      if (!done) {
        this.dropCanvas()
        if (view.reuse) this.written.forget(view.reuse)
      }
    }
  }

  /** All that is laid, back to front. */
  private strata(drawing: Drawing): Stratum[] {
    const { card } = drawing
    const ground = (now: Drawing) => this.backgroundOf(now)
    return strataOf(drawing, { pieces: card.pieces, ground, shifting: backgroundMoves(card) })
  }

  private backgroundOf(drawing: Drawing): Stratum[] {
    const { background, frame, blending, seed } = drawing.card
    if (!background) return []
    const paint = paintValue(background, drawing.at)
    const name = JSON.stringify(['background', paint, frame, drawing.scale, blending, seed])
    const lay = (canvas: Canvas) => this.background(drawing, canvas, paint)
    return [{ name: () => name, spans: () => ALL, still: !backgroundMoves(drawing.card), lay }]
  }

  /** What was kept for earlier frames may be replaced from now on. */
  private beginFrame(): void {
    this.kernels.begin(this.most)
    this.shelf.beginFrame()
    this.finished.beginFrame()
    this.tiles.beginFrame()
  }

  /**
   * Pixels that were given to another thread, where they were only read, and came back as another array: when they are
   * used again, only what is other then is written.
   */
  cameBack(before: Uint8Array, pixels: Uint8Array): void {
    this.written.moved(before, pixels)
  }

  /** Bytes of the engine's memory for pixels. */
  get memory(): number {
    return this.kernels.bytes
  }

  private drawing(card: Card, at: Moment, scale: number, draft = false): Drawing {
    checkUnfolded(card)
    const { kernels, shelf, finished, contents, brushTips, tiles, outlines, pictures, sequences } = this
    const now = { ...at, fitted: fitter(() => drawing), along: pathFinder(() => drawing) }
    const drawing: Drawing = {
      kernels,
      shelf,
      finished,
      contents,
      brushTips,
      tiles,
      outlines,
      pictures,
      sequences,
      card,
      world: worldAround(card.frame, scale),
      at: now,
      list: {
        holder: null,
        at: now,
        parent: { scale, rotation: 0, x: 0, y: 0 },
        path: 'pieces',
        around: null,
        exposed: null,
      },
      scale,
      light: lightOf(card, at),
      draft,
      lists: LISTS,
      part: null,
      copies: 1,
      shutter: card.steps > 1 ? null : card.shutter,
    }
    return drawing
  }

  /** The canvas lies at the bottom of the kernels' memory, with what the frame before left on it, as long as the size stays. */
  private canvasFor(box: GridBox): Canvas {
    const w = (box.w + 15) & ~15
    const old = this.canvas
    if (old && old.layers.w === w && old.layers.h === box.h) {
      if (old.box.x === box.x && old.box.y === box.y) return old
      if (old.touched) this.kernels.clear(old.window(old.touched))
      this.ground.forget()
      return (this.canvas = new Canvas(this.kernels, old.layers, { ...box, w }))
    }
    this.dropCanvas()
    return (this.canvas = new Canvas(this.kernels, this.kernels.layers(w, box.h), { ...box, w }))
  }

  private dropCanvas(): void {
    this.canvas = null
    this.ground.forget()
    this.kernels.release(this.base)
  }

  /** Where every piece stands at a frame, those in groups too. Pieces without ink have all corners at their place. */
  outlook(card: Card, frame: Frames): PieceOutlook[] {
    this.kernels.begin(this.most)
    return outlookOf(this.drawing(card, shownMoment(card, frame), 1))
  }

  /** What comes into an outline step of a piece at a frame; null where the piece has no outline then. */
  beforeStep(card: Card, id: string, step: string, frame: Frames): BeforeStep | null {
    this.kernels.begin(this.most)
    return beforeStep(this.drawing(card, shownMoment(card, frame), 1), id, step)
  }

  /**
   * The foremost piece that shows at a point of the card: in the card's own list, or in that of a group. Pieces that
   * are off or locked are passed over, and so are their clear pixels. Null where nothing is.
   */
  pick(card: Card, frame: Frames, point: Point, group: string | null = null): string | null {
    return pickPiece(card, this.outlook(card, frame), point, group, shownMoment(card, frame), (only, region) =>
      this.render(only, frame, { region }),
    )
  }

  /**
   * What each coat of a piece lays at each distance from a straight edge. `facing` is where the edge's outward side
   * points; by default to the key light. Throws a WaxError for a piece that is not there.
   */
  section(card: Card, id: string, frame: Frames, facing = lightOf(card, shownMoment(card, frame)).azimuth): Section {
    const piece = pieceOf(card, id)
    const at = shownMoment(card, frame)
    const outlook = this.outlook(card, frame).find((entry) => entry.id === id)
    const reference = outlook?.reference ?? 0
    const look = (only?: string) => {
      const edge = edgeCard({ card, piece, at }, { reference, facing, ...(only === undefined ? {} : { only }) })
      return { ...edge, row: middleRow(this.render(edge.card, frame, { bits: 16 })) }
    }
    const { range, row: whole, card: all } = look()
    const coats = [...piece.coats.face, ...piece.coats.behind].map((coat) => ({
      ...{
        id: coat.id,
        kind: coat.kind,
        colours: switchValue(coat.on, at) ? look(coat.id).row : whole.map(() => NOTHING),
      },
      ...handlesOf(all, coat.id, at),
      ...(coat.kind === 'bevel' ? { height: this.bevelHeights(all, coat.id, frame) } : {}),
    }))
    const distances = Array.from({ length: range * 2 }, (_, i) => i + 0.5 - range)
    return { piece: id, innerDepth: this.innerDepth(card, id, frame), reference, distances, coats, whole }
  }

  /**
   * The largest distance from its edge inside a piece, in px before its scale; 0 for empty pieces and for those whose edge is
   * that of their alpha: groups, pictures, paintings.
   */
  innerDepth(card: Card, id: string, frame: Frames): Px {
    const piece = pieceOf(card, id)
    if (!hasOutline(PIECE_KINDS[piece.kind])) return 0
    const drawing = this.drawing(card, shownMoment(card, frame), 1)
    const still = { ...piece, on: true, opacity: 100, span: null }
    const standing = standingOf(still, { scale: 1, rotation: 0, x: 0, y: 0 }, drawing.at)
    const form = standing && formOf(drawing, standing, id)
    return form ? form.scale.innerDepth() / standing.placement.scale : 0
  }

  /** Heights of one bevel along the middle row of an edge card. */
  private bevelHeights(card: Card, id: string, frame: Frames): number[] {
    const drawing = this.drawing(card, shownMoment(card, frame), 1)
    const standing = standingOf(card.pieces[0]!, { scale: 1, rotation: 0, x: 0, y: 0 }, drawing.at)
    const { width, height } = card.frame
    const box = { x: 0, y: 0, w: width, h: height }
    const mark = this.kernels.mark()
    this.beginFrame()
    const heights =
      standing && heightRow(drawing, standing, new Canvas(this.kernels, this.kernels.layers(0, 0), box), id)
    this.kernels.release(mark)
    return heights ?? new Array<number>(width).fill(0)
  }

  private background(drawing: Drawing, canvas: Canvas, background: EvaluatedPaint): void {
    const { layers, box } = canvas
    canvas.touch(box)
    const { kernels } = this
    const mark = kernels.mark()
    const paint = preparePaint(drawing, background, null, 'background')
    // A few rows at once, so that the planes of places stay small.
    for (let from = 0; from < box.h; from += BACKGROUND_ROWS) {
      const inner = kernels.mark()
      const rows = { x: box.x, y: box.y + from, w: box.w, h: Math.min(BACKGROUND_ROWS, box.h - from) }
      const onto = kernels.window(layers, 0, from, box.w, rows.h)
      if ('solid' in paint) kernels.laySolid('normal', onto, EVERYWHERE, paint.solid, 1)
      else if ('sample' in paint) kernels.layPicture('normal', onto, EVERYWHERE, paint.sample(rows), 1)
      else {
        const places = 'places' in paint ? paint.places(rows) : kernels.plane(rows.w, rows.h, 0)
        kernels.layRamp('normal', onto, EVERYWHERE, places, paint.ramp, 1)
      }
      kernels.release(inner)
    }
    kernels.release(mark)
  }
}

/** The moment that a frame shows: the whole card may hold each picture for some frames. */
const shownMoment = (card: Card, frame: Frames): Moment => stepped(momentOf(card, frame), card.steps)

/** A background goes on beyond the frame. */
const ALL: Rect = { left: -Infinity, top: -Infinity, right: Infinity, bottom: Infinity }

const BACKGROUND_ROWS = 16
const MB = 1024 * 1024
/** About a minute on a slow machine. */
const MOST_WORK = 48 * 1024 * MB
/** Bytes of planes and of finished pictures that are kept between frames. */
const PLANES = 112 * MB
const PICTURES = 128 * MB
const NOTHING = [0, 0, 0, 0] satisfies Rgba
