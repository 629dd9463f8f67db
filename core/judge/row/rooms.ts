import type { Card, Piece, TypePiece } from '../../card/schema'
import { allPieces, holdersOf } from '../../card/tree'
import type { Engine } from '../../frame/engine'
import type { PieceOutlook } from '../../frame/outlook'
import { alone } from '../../frame/pick'
import { zonesOf } from '../../time/held'
import { holdsStill } from '../../time/hold-still'
import type { Frames, Px, Rect } from '../../units'
import { safeRect, SAFE_AREAS } from '../safe-areas'
import type { WithEngine } from '../with-engine'

// How much room a design gives to each of its words: rows that need more are told. What the design itself breaks is meant.

export interface Room {
  piece: string
  /** Within the frame, and within the title area, as it was designed. */
  inFrame: boolean
  inSafe: boolean
  /** The narrowest bar that its words lie on; null for none. */
  bar: string | null
  /** Share of its ink that its masks and mattes, and those of its groups, take away in the hold. */
  cut: number
}

/** Frames of the hold, [from, to); the whole loop without zones. */
export function holdOf(card: Card): { from: Frames; to: Frames } {
  const zones = zonesOf(card)
  return zones ? { from: zones.hold, to: zones.out } : { from: 0, to: card.length }
}

/** The frames of the hold that differ: one where it stands still. */
export function framesToLookAt(card: Card): Frames[] {
  const { from, to } = holdOf(card)
  return zonesOf(card) && holdsStill(card) ? [from] : Array.from({ length: to - from }, (_, i) => from + i)
}

/** Half a pixel of soft edge is no overflow. */
export const within = (inner: Rect, outer: Rect, by: Px = 0.5): boolean =>
  inner.left >= outer.left - by &&
  inner.right <= outer.right + by &&
  inner.top >= outer.top - by &&
  inner.bottom <= outer.bottom + by

export const titleArea = (card: Card): Rect => safeRect(card.frame, SAFE_AREAS.find(({ id }) => id === 'title')!.share)

export const typesOf = (card: Card): TypePiece[] =>
  allPieces(card.pieces).filter((piece): piece is TypePiece => piece.kind === 'type')

const hasInk = ({ bounds }: PieceOutlook) => bounds.right > bounds.left

/** The rooms of a design, in the first frame of its hold. */
export async function roomsOf(design: Card, withEngine: WithEngine): Promise<Room[]> {
  const { from } = holdOf(design)
  const outlook = await withEngine((engine) => engine.outlook(design, from))
  const rooms: Room[] = []
  for (const piece of typesOf(design)) {
    const entry = outlook.find(({ id }) => id === piece.id)
    if (!entry || !hasInk(entry)) continue
    rooms.push({
      piece: piece.id,
      inFrame: within(entry.bounds, safeRect(design.frame, 1)),
      inSafe: within(entry.bounds, titleArea(design)),
      bar: barBehind(design, piece, entry, outlook),
      cut: await withEngine((engine) => cutShare(engine, design, piece.id, from)),
    })
  }
  return rooms
}

/** Shapes that words can lie on. */
const BARS: ReadonlySet<Piece['kind']> = new Set(['box', 'ellipse', 'polygon', 'path', 'picture'])

/** The narrowest shape behind the words that holds all of their ink. */
function barBehind(card: Card, { id }: TypePiece, { bounds }: PieceOutlook, outlook: readonly PieceOutlook[]) {
  const order = allPieces(card.pieces)
  const behind = new Set(
    order.slice(order.findIndex((piece) => piece.id === id) + 1).flatMap((p) => (BARS.has(p.kind) ? [p.id] : [])),
  )
  const area = ({ left, top, right, bottom }: Rect) => (right - left) * (bottom - top)
  return (
    outlook
      .filter((other) => behind.has(other.id) && within(bounds, other.bounds))
      .sort((a, b) => area(a.bounds) - area(b.bounds))[0]?.id ?? null
  )
}

/** Share of the ink of a piece that masks take away at a frame: 0 where none are. */
export function cutShare(engine: Engine, card: Card, id: string, frame: Frames): number {
  const piece = allPieces(card.pieces).find((one) => one.id === id)!
  const masked = [piece, ...holdersOf(card.pieces, id)].some(({ masks }) => masks.some(({ on }) => on !== false))
  if (!masked) return 0
  const only = alone(card, piece)
  const scale = Math.min(1, 960 / Math.max(card.frame.width, card.frame.height))
  const ink = (one: Card) => {
    const { pixels } = engine.render(one, frame, { scale })
    let sum = 0
    for (let at = 3; at < pixels.length; at += 4) sum += pixels[at]!
    return sum
  }
  const whole = ink({
    ...only,
    pieces: unmasked(only.pieces, new Set([id, ...holdersOf(card.pieces, id).map((one) => one.id)])),
  })
  return whole === 0 ? 0 : Math.max(0, 1 - ink(only) / whole)
}

const unmasked = (pieces: readonly Piece[], ids: ReadonlySet<string>): Piece[] =>
  pieces.map((piece) => {
    if (!ids.has(piece.id)) return piece
    const bare = { ...piece, masks: [] }
    return bare.kind === 'group' ? { ...bare, pieces: unmasked(bare.pieces, ids) } : bare
  })
