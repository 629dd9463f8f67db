import type { Ref } from 'vue'
import { shiftPiece } from '#core/edit/arrange'
import { stretchPiece } from '#core/edit/stretch'
import { writeValue } from '#core/edit/values'
import type { Card, Piece } from '#core/card/schema'
import type { PieceOutlook } from '#core/frame/outlook'
import { place, unplace } from '#core/outline/outline'
import { snapPoint } from '#core/stage/snap'
import type { Point } from '#core/units'
import { useRibbon } from '~/stores/ribbon'
import { useStage } from '~/stores/stage'
import type { Held, StageHand } from './stage-hand'

interface Selected {
  single: Ref<PieceOutlook | null>
  /** Whether it has a width and a height of its own, or a text box. */
  sized: Ref<boolean>
  boxed: Ref<boolean>
  present(piece: Piece, name: 'width' | 'height'): number
  pieceOf(id: string): Piece
  /** One step from the card as it was when the hand took hold. */
  fromHere(label: string): (change: (card: Card) => Card) => void
}

/** What pulling the sides of the selected piece does: gives what follows the hand, for sides of −1, 0 or 1 on each axis. */
export function usePullSides(
  hand: StageHand,
  { single, sized, boxed, present, pieceOf, fromHere }: Selected,
): (sx: number, sy: number) => ((raw: Point, held: Held) => void) | null {
  const ribbon = useRibbon()
  const stage = useStage()

  /** What a pull at a side does: it changes the size of what has one, the box of type that has one, and stretches all else. */
  function puller(sx: number, sy: number) {
    if (sized.value) return sizer(sx, sy)
    return boxed.value && sy === 0 ? boxer(sx) : stretcher(sx, sy)
  }

  /** Begins to stretch; the other side stays, with Alt the anchor. Shift keeps the proportions. */
  function stretcher(sx: number, sy: number): ((raw: Point, held: Held) => void) | null {
    const entry = single.value!
    const { own, placement } = entry
    const spans = { x: own.right - own.left, y: own.bottom - own.top }
    if (spans.x <= 0 || spans.y <= 0) return null
    const put = fromHere('Stretch')
    const anchor = unplace(placement, entry.place)
    const lines = hand.linesFor([entry.id])
    return (raw, held) => {
      const snapped = held.ctrlKey ? null : snapPoint(raw, lines, hand.reach.value, stage.grid)
      const at = unplace(placement, snapped ? { x: raw.x + snapped.by.x, y: raw.y + snapped.by.y } : raw)
      if (snapped) hand.showGuides(snapped.guides)
      const far = (axis: 'x' | 'y', side: number) => {
        const [low, high] = axis === 'x' ? [own.left, own.right] : [own.top, own.bottom]
        const fixed = held.altKey ? anchor[axis] : side > 0 ? low : high
        const edge = side > 0 ? high : low
        const factor = side === 0 || edge === fixed ? 1 : (at[axis] - fixed) / (edge - fixed)
        // It can be pulled through to the other side, and is mirrored there.
        return { fixed, factor: Math.abs(factor) < 0.01 ? 0.01 : factor }
      }
      const [x, y] = [far('x', sx), far('y', sy)]
      if (held.shiftKey && sx !== 0 && sy !== 0) x.factor = y.factor = Math.max(x.factor, y.factor)
      put((card) => stretchPiece(card, entry, { x: x.factor, y: y.factor }, { x: x.fixed, y: y.fixed }, ribbon.frame))
    }
  }

  /** Begins to pull a side of a text box; it grows to the side that its lines are not aligned to, or to both. */
  function boxer(sx: number): ((raw: Point, held: Held) => void) | null {
    const entry = single.value!
    const piece = pieceOf(entry.id)
    if (piece.kind !== 'type') return null
    const put = fromHere('Text box')
    return (raw) => {
      const { x } = unplace(entry.placement, raw)
      const both = piece.align === 'centre' || piece.align === 'justify' ? 2 : 1
      const width = Math.max(1, Math.round(Math.abs(x) * both))
      if (both === 2 || (piece.align === 'left') === sx > 0)
        put((card) => writeValue(card, `${entry.id}/width`, ribbon.frame, width))
    }
  }

  /** Begins to pull sides, −1, 0 or 1 for each axis; gives what follows the hand. Shift keeps the proportions, Alt the middle. */
  function sizer(sx: number, sy: number): ((raw: Point, held: Held) => void) | null {
    const entry = single.value!
    const piece = pieceOf(entry.id)
    const { own, placement } = entry
    const size = { x: present(piece, 'width'), y: present(piece, 'height') }
    const spans = { x: own.right - own.left, y: own.bottom - own.top }
    if (spans.x <= 0 || spans.y <= 0) return null
    const put = fromHere('Size')
    const lines = hand.linesFor([entry.id])
    return (raw, next) => {
      const snapped = next.ctrlKey ? null : snapPoint(raw, lines, hand.reach.value, stage.grid)
      const point = snapped ? { x: raw.x + snapped.by.x, y: raw.y + snapped.by.y } : raw
      if (snapped) hand.showGuides(snapped.guides)
      const at = unplace(placement, point)
      const both = next.altKey ? 2 : 1
      const far = (axis: 'x' | 'y', side: number) => {
        const [low, high] = axis === 'x' ? [own.left, own.right] : [own.top, own.bottom]
        const fixed = next.altKey ? (low + high) / 2 : side > 0 ? low : high
        return { fixed, factor: side === 0 ? 1 : Math.max(0.001, ((at[axis] - fixed) * side * both) / spans[axis]) }
      }
      const [x, y] = [far('x', sx), far('y', sy)]
      if (next.shiftKey && sx !== 0 && sy !== 0) x.factor = y.factor = Math.max(x.factor, y.factor)
      const whole = (value: number) => Math.max(1, Math.round(value))
      const [width, height] = [whole(size.x * x.factor), whole(size.y * y.factor)]
      // The form grows about its own origin; the fixed side must stay where it is.
      const slip = (side: number, axis: { fixed: number }, factor: number) =>
        side === 0 ? 0 : axis.fixed * (1 - factor)
      const shift = { x: slip(sx, x, width / size.x), y: slip(sy, y, height / size.y) }
      const by = place({ ...placement, x: 0, y: 0 }, shift)
      put((card) => {
        let c = card
        if (sx !== 0 || next.shiftKey) c = writeValue(c, `${entry.id}/width`, ribbon.frame, width)
        if (sy !== 0 || next.shiftKey) c = writeValue(c, `${entry.id}/height`, ribbon.frame, height)
        return shiftPiece(c, entry, by, ribbon.frame)
      })
    }
  }

  return puller
}
