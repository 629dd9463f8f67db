import type { Card, Piece, TypePiece } from '../../card/schema'
import { allPieces, fontsNamed, picturesOf, piecesIn } from '../../card/tree'
import { wordingAt } from '../../card/wording'
import type { Fault } from '../../errors'
import { WaxError } from '../../errors'
import type { Engine, FramePicture } from '../../frame/engine'
import type { PieceOutlook } from '../../frame/outlook'
import { alone } from '../../frame/pick'
import { isSeen } from '../../frame/piece'
import { zonesOf } from '../../time/held'
import { momentOf } from '../../time/ring'
import type { Frames } from '../../units'
import { perSecond } from '../../values/rate'
import type { Band } from '../measures/bands'
import { longestBand } from '../measures/bands'
import type { Flashes, FlashPicture } from '../measures/flashes'
import { flashesIn } from '../measures/flashes'
import { LUMINANCES } from '../measures/contrast'
import type { Fringes } from '../measures/fringe'
import { fringesOf } from '../measures/fringe'
import { inkRows, onlyRows } from '../measures/ink-rows'
import type { ThinLine } from '../measures/thin-lines'
import { thinLines } from '../measures/thin-lines'
import { COMPOSITE, compositeLevels } from '../measures/video-levels'
import type { RingDifference } from '../ring-difference'
import { pictureDifference, ringDifference } from '../ring-difference'
import type { RowFlag } from '../row/definition'
import { refusal, refusedRow } from '../row/definition'
import { fitOfRow } from '../row/fit'
import { roomsOf } from '../row/rooms'
import type { Ground } from './grounds'
import { PLAIN_GROUNDS } from './grounds'
import { contrastsOver } from './legibility'

// What the checks of the proof are judged by: the card is rendered once for all of them.

/** A type piece at a moment of the hold. */
export interface LookedType {
  piece: TypePiece
  wording: string
  /** The largest alpha of its letters, 0–1: less than 1 while it comes and goes. */
  strongest: number
  /** Contrast over each of the grounds; null where no letter is seen. */
  contrast: (number | null)[]
  /** Half the width of its widest stem, in card px. */
  depth: number
}

/** A frame that was looked at in full size. */
export interface LookedMoment {
  frame: Frames
  fringes: Fringes
  /** Of red, green and blue, the longest at 8 bits: as rounded, and as dithered. */
  bands: { plain: Band; dithered: Band }
  lines: ThinLine[]
  /** Share of all pixels beyond the limits of composite video, in %. */
  beyondComposite: number
  /** Of the pieces that are there at that frame. */
  outlook: PieceOutlook[]
  types: LookedType[]
}

export interface Looked {
  card: Card
  /** PLAIN_GROUNDS, then what was brought to be looked at against. */
  grounds: readonly Ground[]
  /** What the card needs and has not; nothing else is looked at then. */
  missing: Fault[]
  /** Frames of the hold, [from, to): the whole loop without zones. */
  hold: { from: Frames; to: Frames }
  moments: LookedMoment[]
  flashes: Flashes
  ring: RingDifference | null
  /** Rows in which words have no room, or no letters; none where the card has no rows. */
  rows: LookedRow[]
  /** How many rows were looked at. */
  rowCount: number
}

/** A row of a roster, filled into the card. */
export interface ProofRow {
  id: string
  title: string
  card: Card
  /** Cells that cannot be read: the card stands there as it was designed. */
  faults: readonly Fault[]
}

export interface LookedRow extends Pick<ProofRow, 'id' | 'title'> {
  /** What is wrong with its cells, and whether its words fit: see row/fit.ts. */
  flags: RowFlag[]
}

/** What a card is held against. */
export interface HeldAgainst {
  /** What it is for: footage, a colour. */
  own?: readonly Ground[]
  /** Rows that fill it. */
  rows?: readonly ProofRow[]
}

/** Lets an engine work, with all that it asks for. */
export type WithEngine = <T>(work: (engine: Engine) => T) => Promise<T>

/** Frames of the hold that are looked at in full size. */
const MOMENTS = 4
/** How many rows take as long as the card itself. */
const ROWS_OF_A_CARD = 60
/** Width of the small pictures of all frames, in px: a field of 10 degrees of WCAG is a third of it. */
const SMALL = 192

export interface LookOptions extends HeldAgainst {
  /** Told how far it is, 0–1. */
  onFrame?: (share: number) => void
}

export async function lookAt(
  card: Card,
  withEngine: WithEngine,
  { own = [], rows = [], onFrame = () => {} }: LookOptions = {},
): Promise<Looked> {
  const zones = zonesOf(card)
  const hold = zones ? { from: zones.hold, to: zones.out } : { from: 0, to: card.length }
  const flashes = { general: 0, red: 0, from: 0, luminance: [], changes: [] }
  const grounds = [...PLAIN_GROUNDS, ...own]
  const looked: Looked = {
    ...{ card, grounds, hold, missing: [], moments: [], flashes, ring: null },
    ...{ rows: [], rowCount: rows.length },
  }
  // Rows take their share of the time, as far as it can be known.
  const forCard = 1 / (1 + rows.length / ROWS_OF_A_CARD)
  looked.missing = await withEngine((engine) => missingIn(card, engine))
  if (looked.missing.length > 0) return looked
  try {
    const frames = momentsOf(hold)
    for (const [i, frame] of frames.entries()) {
      looked.moments.push(await momentAt(looked, frame, withEngine))
      onFrame((forCard * (i + 1)) / frames.length / 2)
    }
    Object.assign(looked, await wholeRing(card, withEngine, (share) => onFrame(forCard * (0.5 + share / 2))))
    looked.rows = await rowsOf(card, rows, withEngine, (share) => onFrame(forCard + (1 - forCard) * share))
  } catch (error) {
    if (!(error instanceof WaxError)) throw error
    looked.missing.push(error.fault)
  }
  return looked
}

async function rowsOf(
  design: Card,
  rows: readonly ProofRow[],
  withEngine: WithEngine,
  onShare: (share: number) => void,
): Promise<LookedRow[]> {
  if (rows.length === 0) return []
  const rooms = await roomsOf(design, withEngine)
  const found: LookedRow[] = []
  for (const [i, { id, title, card, faults }] of rows.entries()) {
    const fit = await fitOfRow({ card, rooms }, withEngine).catch((error) => [refusedRow(error)])
    const flags = [...faults.map(refusal), ...fit]
    if (flags.length > 0) found.push({ id, title, flags })
    onShare((i + 1) / rows.length)
  }
  return found
}

/** Evenly within the hold, its first frame among them. */
function momentsOf({ from, to }: { from: Frames; to: Frames }): Frames[] {
  const count = Math.min(MOMENTS, to - from)
  return Array.from({ length: count }, (_, i) => from + Math.floor(((to - from) * i) / count))
}

function missingIn(card: Card, engine: Engine): Fault[] {
  const fault = (what: string, id: string): Fault => ({
    code: `missing-${what}`,
    place: id,
    message: `The ${what} “${id}” is not here.`,
    remedy: `Bring it in, or choose another ${what}.`,
  })
  return [
    ...fontsNamed(card)
      .filter((id) => !engine.fonts.has(id))
      .map((id) => fault('font', id)),
    ...picturesOf(card)
      .filter((id) => !engine.pictures.has(id))
      .map((id) => fault('picture', id)),
  ]
}

async function momentAt({ card, grounds }: Looked, frame: Frames, withEngine: WithEngine): Promise<LookedMoment> {
  const picture = await withEngine((engine) => engine.render(card, frame))
  const exact = await withEngine((engine) => engine.render(card, frame, { bits: 'float' }))
  const all = await withEngine((engine) => engine.outlook(card, frame))
  const seen = seenAt(card, frame)
  const outlook = all.filter(({ id }) => seen.has(id))
  const types: LookedType[] = []
  for (const piece of allPieces(card.pieces)) {
    if (piece.kind === 'type') types.push(await typeAt(card, piece, frame, withEngine, picture, grounds))
  }
  return { frame, outlook, types, ...measuresOf(picture, exact) }
}

type Measures = Pick<LookedMoment, 'fringes' | 'bands' | 'lines' | 'beyondComposite'>

/** Clear rows that are looked at around what is seen: an edge falls off within so many. */
const AROUND = 4

/** Where nothing is seen there is nothing to be measured: a lower third is a fifth of its frame. */
function measuresOf(whole: FramePicture, exactly: FramePicture): Measures {
  const rows = inkRows(whole, AROUND)
  const picture = onlyRows(whole, rows)
  const lower = <T extends { row: number }>(band: T): T => ({ ...band, row: band.row + rows.top })
  const { plain, dithered } = bandsOf(picture, onlyRows(exactly, rows))
  const fringes = fringesOf(picture)
  return {
    fringes: { ...fringes, at: fringes.at && { x: fringes.at.x, y: fringes.at.y + rows.top } },
    bands: { plain: lower(plain), dithered: lower(dithered) },
    lines: thinLines(picture).map((line) => ({ ...line, y: line.y + rows.top })),
    beyondComposite: (pixelsBeyond(picture) / (whole.width * whole.height)) * 100,
  }
}

/** Ids of the pieces that are there at a frame: what is hidden, or lies in what is hidden, may stand anywhere. */
function seenAt(card: Card, frame: Frames): ReadonlySet<string> {
  const at = momentOf(card, frame)
  const seenOf = (pieces: readonly Piece[]): string[] =>
    pieces.flatMap((piece) => (isSeen(piece, at) ? [piece.id, ...seenOf(piecesIn(piece))] : []))
  return new Set(seenOf(card.pieces))
}

async function typeAt(
  card: Card,
  piece: TypePiece,
  frame: Frames,
  withEngine: WithEngine,
  picture: FramePicture,
  grounds: readonly Ground[],
): Promise<LookedType> {
  const letters = await lettersOf(card, piece, frame, withEngine)
  const depth = await withEngine((engine) => engine.innerDepth(card, piece.id, frame))
  return {
    ...{ piece, depth, strongest: strongestOf(letters) / 255, wording: wordingAt(piece, momentOf(card, frame)) },
    contrast: contrastsOver(letters, picture, grounds),
  }
}

/** The largest alpha there is, 0–255. */
function strongestOf({ pixels }: FramePicture): number {
  let strongest = 0
  for (let at = 3; at < pixels.length && strongest < 255; at += 4) if (pixels[at]! > strongest) strongest = pixels[at]!
  return strongest
}

/** The letters of a type piece alone. Its strokes, shadows and bars are what is around them. */
export function lettersOf(card: Card, piece: TypePiece, frame: Frames, withEngine: WithEngine): Promise<FramePicture> {
  const fills = piece.coats.face.filter(({ kind }) => kind === 'fill')
  const own = fills.length > 0 ? fills : piece.coats.face
  const only = alone(card, piece)
  const bare = { ...only, pieces: replaced(only.pieces, { ...piece, coats: { face: own, behind: [] } }) }
  return withEngine((engine) => engine.render(bare, frame))
}

function replaced(pieces: readonly Card['pieces'][number][], by: TypePiece): Card['pieces'] {
  return pieces.map((piece) => {
    if (piece.id === by.id) return { ...by, on: piece.on }
    return piece.kind === 'group' ? { ...piece, pieces: replaced(piece.pieces, by) } : piece
  })
}

function bandsOf({ width, height, pixels }: FramePicture, exact: FramePicture): { plain: Band; dithered: Band } {
  const { buffer, byteOffset, byteLength } = exact.pixels
  const numbers = new Float32Array(buffer, byteOffset, byteLength / 4)
  const rounded = new Uint8Array(numbers.length)
  for (let i = 0; i < rounded.length; i++) rounded[i] = numbers[i]! * 255 + 0.5
  const longest = (of: Uint8Array) => {
    let most: Band = { length: 0, row: 0, from: 0 }
    for (let c = 0; c < 4; c++) {
      // Half of a band of a ramp is half a step of what was rounded; a plateau may have slopes at its ends.
      const ramps = (from: number, to: number) => {
        const quarter = (to - from) >> 2
        return Math.abs(numbers[(from + quarter) * 4 + c]! - numbers[(to - quarter) * 4 + c]!) * 255 > 0.2
      }
      const band = longestBand(of, width, height, { ramps, channels: 4, channel: c })
      if (band.length > most.length) most = band
    }
    return most
  }
  return { plain: longest(rounded), dithered: longest(pixels) }
}

/** Alpha from which a pixel's own colour is what is sent. */
const OWN = 200

/** How many pixels are beyond the limits of composite video. */
function pixelsBeyond({ pixels }: FramePicture): number {
  let beyond = 0
  // Colours come in stretches: what was found of one holds for its neighbour.
  let colour = -1
  let isBeyond = false
  for (let at = 0; at < pixels.length; at += 4) {
    if (pixels[at + 3]! < OWN) continue
    const red = pixels[at]!
    const green = pixels[at + 1]!
    const blue = pixels[at + 2]!
    const now = (red << 16) | (green << 8) | blue
    if (now !== colour) {
      const { low, high } = compositeLevels(red / 255, green / 255, blue / 255)
      colour = now
      isBeyond = low < COMPOSITE.from || high > COMPOSITE.to
    }
    if (isBeyond) beyond++
  }
  return beyond
}

/** All frames, small: flashes over grey, and the steps round the ring. */
async function wholeRing(
  card: Card,
  withEngine: WithEngine,
  onFrame: (share: number) => void,
): Promise<Pick<Looked, 'flashes' | 'ring'>> {
  const scale = Math.min(1, SMALL / card.frame.width)
  const at = (frame: Frames) => withEngine((engine) => engine.render(card, frame, { scale }))
  const first = await at(0)
  const flashes = [flashPicture(first)]
  const steps: number[] = []
  let before = first
  for (let frame = 1; frame <= card.length; frame++) {
    const picture = frame === card.length ? first : await at(frame)
    steps.push(pictureDifference(before, picture).mean)
    if (frame < card.length) flashes.push(flashPicture(picture))
    before = picture
    onFrame(frame / card.length)
  }
  return {
    flashes: flashesIn(flashes, perSecond(card.rate), zonesOf(card) === null),
    ring: card.length > 1 ? ringDifference(steps) : null,
  }
}

const MID_GREY = 128

function flashPicture({ width, height, pixels }: FramePicture): FlashPicture {
  const luminance = new Float32Array(width * height)
  const red = new Float32Array(width * height)
  luminance.fill(LUMINANCES[MID_GREY]!)
  for (let i = 0, at = 0; i < luminance.length; i++, at += 4) {
    const alpha = pixels[at + 3]!
    if (alpha === 0) continue
    const under = MID_GREY * (255 - alpha)
    const r = LUMINANCES[Math.round((pixels[at]! * alpha + under) / 255)]!
    const g = LUMINANCES[Math.round((pixels[at + 1]! * alpha + under) / 255)]!
    const b = LUMINANCES[Math.round((pixels[at + 2]! * alpha + under) / 255)]!
    luminance[i] = 0.2126 * r + 0.7152 * g + 0.0722 * b
    red[i] = r > 0 && r / (r + g + b) >= 0.8 ? Math.max(0, (r - g - b) * 320) : 0
  }
  return { luminance, red }
}
