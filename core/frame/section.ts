import { createPiece } from '../card/create'
import type { Length, StoredValue } from '../values/moving'
import type { CoatScale, SectionMark } from '../coats/definition'
import { coatOf } from '../coats/table'
import type { BoxPiece, Card, Coat, Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import type { Moment } from '../values/evaluated'
import { valueAt, colourValue, lengthValue, numberValue, switchValue } from '../values/evaluated'
import { lightOf } from '../card/light'
import { COMMON_COAT_PARAMETERS } from '../coats/definition'
import { writeColour } from '../values/colour'
import { WaxError } from '../errors'
import { laidCoats } from './laid-coats'
import type { Degrees, Px, Rgba } from '../units'

// The cross-section of a piece: its coats laid on a straight edge and read off across it. The edge is that of a box
// so large that its other edges are out of reach, its outward side to the right.

/** What one coat lays at each distance from the edge. */
export interface SectionCoat {
  id: string
  kind: string
  /** Straight colour at each distance; alpha 0 where the coat lays nothing. Display-encoded sRGB, 0–1. */
  colours: Rgba[]
  /** Bevels only: height in px at each distance. */
  height?: number[]
  /** Where a hand can change the coat. */
  marks: SectionMark[]
  /** Px from the edge at which the falloff curve takes in 0, 1/32, 2/32 … 1; null where the coat has none. */
  falloff: Px[] | null
}

export interface Section {
  piece: string
  /** The largest distance from the edge inside the piece, in px; 0 where it is not known. */
  innerDepth: Px
  /** Px that 100 % of a length stands for. */
  reference: Px
  /** Px from the edge to the middle of each sample, negative inside, before the piece's scale. */
  distances: Px[]
  /** Front first. */
  coats: SectionCoat[]
  /** All coats together over nothing. */
  whole: Rgba[]
}

/** The piece of an id. Throws a WaxError that names those of the card where it has none of this id. */
export function pieceOf(card: Card, id: string): Piece {
  const piece = allPieces(card.pieces).find((other) => other.id === id)
  if (piece) return piece
  const known = allPieces(card.pieces).map((other) => other.id)
  throw new WaxError('no-such-piece', '--piece', `The card has no piece “${id}”.`, `Its pieces: ${known.join(', ')}.`)
}

const ROWS = 16
const FARTHEST = 1000

/** A card on which a piece's coats lie on one straight edge in the middle of its width; to be seen at the same frame. */
export interface EdgeCard {
  card: Card
  /** Px from the edge to either side. */
  range: Px
}

/**
 * `reference`: px that 100 % stands for. `facing`: where the edge's outward side points; lights and directions are
 * turned against it. `only` leaves the other coats in their places, but clear.
 */
export function edgeCard(
  { card, piece, at }: { card: Card; piece: Piece; at: Moment },
  { reference, facing, only }: { reference: Px; facing: Degrees; only?: string },
): EdgeCard {
  const stilled = (coat: Coat) => stillCoat(coat, { at, reference, facing })
  const coats = { face: piece.coats.face.map(stilled), behind: piece.coats.behind.map(stilled) }
  const range = Math.min(FARTHEST, Math.max(16, ...[...coats.face, ...coats.behind].map(lengthsOf)) + 8)
  const clear = (coat: Coat): Coat => (only === undefined || coat.id === only ? coat : { ...coat, opacity: 0 })
  const size = { width: Math.ceil(range) * 2, height: ROWS }
  const span = range * 8
  const bare: Card = { ...card, frame: size, background: null, shutter: null }
  const box: BoxPiece = {
    ...(createPiece('box', bare) as BoxPiece),
    ...{ width: span, height: span, x: size.width / 2 - span / 2, y: ROWS / 2, steps: piece.steps },
    coats: { face: coats.face.map(clear), behind: coats.behind.map(clear) },
  }
  const { azimuth, elevation } = lightOf(card, at)
  const light = { azimuth: azimuth - facing, elevation }
  // The others are there for values that follow theirs.
  const others = card.pieces.map((other) => ({ ...other, on: false }))
  return { card: { ...bare, light, pieces: [box, ...others] }, range: size.width / 2 }
}

/** A coat without motion but that of its paints: lengths in px, directions as seen from the edge. */
function stillCoat(coat: Coat, { at, reference, facing }: { at: Moment; reference: Px; facing: Degrees }): Coat {
  const opacity = numberValue(coat.opacity, at, COMMON_COAT_PARAMETERS.opacity)
  const still: Coat = { ...coat, on: switchValue(coat.on, at), opacity }
  for (const [name, parameter] of Object.entries(coatOf(coat.kind).parameters)) {
    if (parameter.type === 'length') still[name] = inPx(lengthValue(coat[name], at, parameter), reference)
    else if (parameter.type === 'colour') still[name] = writeColour(colourValue(coat[name], at))
    else if (parameter.type === 'number') {
      const value = numberValue(coat[name], at, parameter)
      still[name] = name === 'direction' || name === 'azimuth' ? value - facing : value
    } else if (parameter.type !== 'paint') still[name] = valueAt(parameter, coat[name], at) as StoredValue
  }
  return still
}

const inPx = (length: Length, reference: Px) => (typeof length === 'number' ? length : (length.value / 100) * reference)

/** How far a still coat may reach, by the sum of its lengths. */
function lengthsOf(coat: Coat): number {
  const lengths = Object.entries(coatOf(coat.kind).parameters).filter(([, { type }]) => type === 'length')
  return lengths.reduce((sum, [name]) => sum + Math.abs(coat[name] as number), 0)
}

/** The middle row of a 16-bit picture as straight colours. */
export function middleRow({ width, pixels }: { width: number; pixels: Uint8Array }): Rgba[] {
  const values = new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.byteLength / 2)
  const row = Math.floor(ROWS / 2) * width * 4
  return Array.from({ length: width }, (_, x) => {
    const at = row + x * 4
    return [values[at]! / 65535, values[at + 1]! / 65535, values[at + 2]! / 65535, values[at + 3]! / 65535]
  })
}

const FALLOFF_STEPS = 32

/** The handles of a coat on an edge card, and where its falloff curve stands. */
export function handlesOf(card: Card, coat: string, at: Moment): Pick<SectionCoat, 'marks' | 'falloff'> {
  const [piece] = card.pieces
  const laid = piece && laidCoats(piece, at).find(({ id }) => id === coat)
  if (!laid) return { marks: [], falloff: null }
  const scale: CoatScale = {
    // An edge card has all its lengths in px.
    px: (length) => (typeof length === 'number' ? length : 0),
    light: lightOf(card, at),
    innerDepth: () => Infinity,
    extent: { w: card.frame.width, h: card.frame.height },
  }
  const { definition, values, place } = laid
  const marks = definition.marks?.(values, scale, place) ?? []
  const places = Array.from({ length: FALLOFF_STEPS + 1 }, (_, i) =>
    definition.falloffAt?.(values, scale, i / FALLOFF_STEPS),
  )
  return {
    marks: marks.filter(({ moves }) => Math.abs(moves) > 0.05),
    falloff: places.every((d) => typeof d === 'number') ? (places as Px[]) : null,
  }
}
