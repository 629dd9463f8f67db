import { extentOf } from '../extent'
import { onRing } from '../values/moment'
import { reversedEasing } from '../values/easing-shapes'
import type { Frames } from '../units'
import { listParameters, listPieceParameters } from '../card/addresses'
import type { Key, Moving } from '../values/moving'
import { isMoving } from '../values/moving'
import type { Card, Piece } from '../card/schema'
import { allPieces, piecesIn } from '../card/tree'
import type { ValueName } from './several'
import { addressOn, nameOf } from './several'
import { setStored, storedAt, withoutKeys } from './values'

// Edits of many keys at once, across lanes.

/** A key by its place. */
export interface KeyPlace {
  address: string
  frame: Frames
}

type AnyKey = Key<never>

/**
 * The card with the chosen keys changed, lane by lane, of each lane at least one; keys that end on the same frame as
 * another replace it.
 */
function changeKeys(
  card: Card,
  chosen: readonly KeyPlace[],
  change: (keys: readonly AnyKey[], moving: Moving<never>) => readonly AnyKey[],
): { card: Card; keys: KeyPlace[] } {
  const places: KeyPlace[] = []
  const next = lanesOf(chosen).reduce((before, { address, frames }) => {
    const moving = storedAt(before, address) as Moving<never>
    if (!isMoving(moving)) return before
    const mine = moving.keys.filter(({ frame }) => frames.has(frame))
    if (mine.length === 0) return before
    const changed = change(mine, moving)
    const taken = new Set(changed.map(({ frame }) => frame))
    const others = moving.keys.filter((key) => !frames.has(key.frame) && !taken.has(key.frame))
    places.push(...changed.map(({ frame }) => ({ address, frame })))
    return setStored(before, address, { ...moving, keys: sorted([...others, ...changed]) })
  }, card)
  return { card: next, keys: places }
}

/** The chosen keys lane by lane. */
function lanesOf(chosen: readonly KeyPlace[]): { address: string; frames: ReadonlySet<Frames> }[] {
  const lanes = new Map<string, Set<Frames>>()
  for (const { address, frame } of chosen) lanes.set(address, (lanes.get(address) ?? new Set()).add(frame))
  return [...lanes].map(([address, frames]) => ({ address, frames }))
}

const sorted = (keys: readonly AnyKey[]) => [...keys].sort((a, b) => a.frame - b.frame)

/** Moves keys in time together; none leaves the loop. Gives where they stand then. */
export function moveKeys(card: Card, chosen: readonly KeyPlace[], by: Frames) {
  const [first, last] = extentOf(chosen.map(({ frame }) => frame))
  const most = Math.max(card.length - 1, last) - last
  const shift = Math.min(Math.max(by, -first), most)
  return changeKeys(card, chosen, (keys) => keys.map((key) => ({ ...key, frame: key.frame + shift })))
}

/** Spreads (factor over 1) or squeezes keys about a frame; keys of one lane stay apart and within the loop. */
export function spreadKeys(card: Card, chosen: readonly KeyPlace[], about: Frames, factor: number) {
  return changeKeys(card, chosen, (keys) => {
    const wanted = keys.map(({ frame }) => Math.round(about + (frame - about) * factor))
    const last = Math.max(card.length - 1, extentOf(keys.map(({ frame }) => frame))[1])
    // Apart from the start on, then from the end back, so that all have room.
    const apart = wanted.reduce<number[]>((done, frame) => [...done, Math.max(frame, (done.at(-1) ?? -1) + 1)], [])
    for (let i = apart.length - 1, limit = last; i >= 0; i--, limit = apart[i + 1]! - 1) {
      apart[i] = Math.max(i, Math.min(apart[i]!, limit))
    }
    return keys.map((key, i) => ({ ...key, frame: apart[i]! }))
  })
}

/** Runs the chosen keys backward between the first and the last of them; the easings turn round with them. */
export function reverseKeys(card: Card, chosen: readonly KeyPlace[]) {
  const [first, last] = extentOf(chosen.map(({ frame }) => frame))
  const mirror = first + last
  return changeKeys(card, chosen, (keys) => {
    const turned = keys.map((key, i) => {
      const before = keys[i - 1]?.easing
      const { value, bend } = key
      const turnedBend = bend ? { bend: { in: bend.out, out: bend.in } } : {}
      return {
        frame: mirror - key.frame,
        value,
        ...turnedBend,
        ...(before ? { easing: reversedEasing(before) } : {}),
      } as AnyKey
    })
    // What follows the last key keeps its easing.
    const after = keys.at(-1)?.easing
    const [first, ...rest] = turned as [AnyKey, ...AnyKey[]]
    return [after ? { ...first, easing: after } : first, ...rest].reverse()
  })
}

/** Takes keys away; see `withoutKeys` for a lane's last one. */
export const removeKeys = (card: Card, chosen: readonly KeyPlace[]): Card =>
  lanesOf(chosen).reduce((next, { address, frames }) => withoutKeys(next, address, frames), card)

/** Eases the ways that start at the chosen keys. */
export const easeKeys = (card: Card, chosen: readonly KeyPlace[], easing: string): Card =>
  changeKeys(card, chosen, (keys) => keys.map((key) => ({ ...key, easing }))).card

/** Keys that were copied: by lane, counted from the first of them. They outlive what they were copied from. */
export interface KeyClip {
  lanes: {
    /** The piece that it came from, and what it is there; for the card's own values the whole address. */
    piece: string | null
    name: ValueName
    unit?: '%'
    keys: AnyKey[]
  }[]
}

export function copyKeys(card: Card, chosen: readonly KeyPlace[]): KeyClip {
  const [first] = extentOf(chosen.map(({ frame }) => frame))
  return {
    lanes: lanesOf(chosen).map(({ address, frames }) => {
      const moving = storedAt(card, address) as Moving<never> & { unit?: '%' }
      const name = nameOf(card, address)
      return {
        piece: name ? address.split('/')[0]! : null,
        name: name ?? { part: null, rest: address },
        keys: moving.keys.filter(({ frame }) => frames.has(frame)).map((key) => ({ ...key, frame: key.frame - first })),
        ...(moving.unit ? { unit: moving.unit } : {}),
      }
    }),
  }
}

/**
 * Puts copied keys at a frame: on the same values of these pieces, or of the piece that they came from where none is
 * named. Frames beyond the loop come round; keys in another unit take the lane's place. Gives the keys that were put.
 */
export function pasteKeys(
  card: Card,
  { lanes }: KeyClip,
  ids: readonly string[],
  at: Frames,
): { card: Card; keys: KeyPlace[] } {
  const placed: KeyPlace[] = []
  const own = new Set(listParameters(card).map(({ address }) => address))
  const next = lanes.reduce((before, { piece, name, keys, unit }) => {
    const wanted = ids.length > 0 ? ids : [piece]
    const targets =
      piece === null
        ? [name.rest].filter((address) => own.has(address))
        : allPieces(before.pieces).flatMap((one) => (wanted.includes(one.id) ? (addressOn(one, name) ?? []) : []))
    return targets.reduce((done, target) => {
      const put = keys.map((key) => ({ ...key, frame: onRing(key.frame + at, done.length) }))
      const taken = new Set(put.map(({ frame }) => frame))
      const stored: unknown = storedAt(done, target)
      const lane = isMoving(stored) && (stored as { unit?: '%' }).unit === unit ? stored : null
      const others = lane ? (lane.keys as AnyKey[]).filter(({ frame }) => !taken.has(frame)) : []
      placed.push(...put.map(({ frame }) => ({ address: target, frame })))
      return setStored(done, target, { ...(lane ?? (unit ? { unit } : {})), keys: sorted([...others, ...put]) })
    }, before)
  }, card)
  return { card: next, keys: placed }
}

/** All moving values of a piece, its coats and, in a group, of what it holds: shifted in time. On the ring keys come round. */
export function shiftMotion(card: Card, id: string, by: Frames): Card {
  const root = allPieces(card.pieces).find((piece) => piece.id === id)
  if (!root || by === 0) return card
  // What runs by a clock of its own starts later with it.
  const hasClock = (piece: Piece) => 'clock' in piece && piece.clock !== 'around'
  const within = (piece: Piece): Piece[] => [piece, ...(hasClock(piece) ? [] : piecesIn(piece).flatMap(within))]
  const pieces = within(root)
  const lanes = pieces.flatMap(listPieceParameters).filter(({ value }) => isMoving(value))
  const shifted = lanes.reduce((before, { address, value }) => {
    const moving = value as Moving<never>
    return setStored(before, address, { ...moving, keys: shiftedKeys(moving, by, card.length) })
  }, card)
  return pieces.reduce((before, piece) => {
    if (!('clock' in piece) || piece.clock !== 'own' || isMoving(piece.clockStart)) return before
    return setStored(before, `${piece.id}/clockStart`, piece.clockStart + by)
  }, shifted)
}

/** Keys later (or earlier); on the ring they come round, on an open line none stands before frame 0. */
export function shiftedKeys(moving: Moving<never>, by: Frames, length: Frames): AnyKey[] {
  const first = moving.keys[0]!.frame
  const shift = moving.loop === false ? Math.max(by, -first) : by
  const place = (frame: Frames) =>
    moving.loop === false || frame >= length ? frame + shift : onRing(frame + shift, length)
  const frames = new Map(moving.keys.map((key) => [place(key.frame), key]))
  return sorted([...frames].map(([frame, key]) => ({ ...key, frame })))
}
