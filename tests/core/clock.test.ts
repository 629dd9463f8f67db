import { describe, expect, test } from '@jest/globals'
import { shiftPiece } from '#core/edit/arrange'
import { moveAnchor } from '#core/edit/grouping'
import { storedAt, toggleKey, writeValue } from '#core/edit/values'
import { createPiece } from '#core/card/create'
import type { Moving } from '#core/values/moving'
import type { Card, GroupPiece } from '#core/card/schema'
import { seamReport } from '#core/judge/seam'
import { frameIn, frameOutOf, hasClock, momentIn } from '#core/time/clock'
import { evaluateCard } from '#core/time/evaluate'
import { coat, emptyCard, engineWithFonts, solid, withBox } from '../support/engine'

const LENGTH = 20
/** A group whose contents run so many frames ahead. */
const ahead = (by: number) => ({ runs: 'own' as const, clockStart: -by, clockEnd: 'again' as const })

function card(clock: Partial<GroupPiece> = ahead(5)): Card {
  const way = {
    keys: [
      { frame: 0, value: 10 },
      { frame: 10, value: 70 },
    ],
  }
  const fill = coat('fill', 'fill', { paint: solid('#E2683C') })
  const inner = withBox(
    emptyCard(120, 80, LENGTH),
    {
      id: 'inner',
      width: 24,
      height: 24,
      x: way,
      y: 40,
      opacity: {
        keys: [
          { frame: 0, value: 100 },
          { frame: 8, value: 30 },
        ],
      },
    },
    { face: [fill] },
  )
  const group = {
    ...createPiece('group', inner),
    ...clock,
    id: 'all',
    x: {
      keys: [
        { frame: 0, value: 0 },
        { frame: 12, value: 20 },
      ],
    },
    y: 0,
  }
  return { ...inner, pieces: [{ ...group, pieces: inner.pieces } as GroupPiece] }
}

/** The card as it would be without the group's own motion. */
const held = (own: Card): Card => ({ ...own, pieces: own.pieces.map((piece) => ({ ...piece, x: 5 })) })

describe('a group that gives what it holds a time of its own', () => {
  const engine = engineWithFonts()
  const without = card({})
  const plain = () => Array.from({ length: LENGTH }, (_, frame) => engine.render(held(without), frame).pixels)

  test('shows it then, with motion blur too, and its own place by the time around it', () => {
    const unclocked = plain()
    for (const frame of [0, 4, 11, 17]) {
      const shown = Buffer.from(engine.render(held(card()), frame).pixels)
      expect(shown.equals(unclocked[(frame + 5) % LENGTH]!)).toBe(true)
    }
    expect(momentIn(card(), 'all', 3).frame).toBe(3)
    expect(momentIn(card(), 'inner', 17).frame).toBe(2)
    const blurred = (own: Card) => ({ ...held(own), shutter: { angle: 180, phase: 0 } })
    const late = Buffer.from(engine.render(blurred(card()), 2).pixels)
    expect(late.equals(Buffer.from(engine.render(blurred(without), 7).pixels))).toBe(true)
  })

  test('stands on the stage and is evaluated where it is seen', () => {
    const at = (frame: number, own = card()) =>
      engine.outlook(held(own), frame).find(({ id }) => id === 'inner')!.bounds
    const values = (frame: number, own = card()) =>
      evaluateCard(own, frame).flatMap(({ address, value }) =>
        address === 'inner/x' || address === 'all/x' ? [value] : [],
      )
    const [own, inside] = [values(6)[0], values(6)[1]]
    expect(at(6)).toEqual(at(11, without))
    expect(own).toBe(values(6, without)[0])
    expect(inside).toBe(values(11, without)[1])
  })

  test('takes keys where it runs: what a hand writes is what is seen', () => {
    const frames = (own: Card, address: string) =>
      (storedAt(own, address) as Moving<number>).keys.map(({ frame }) => frame)
    const valueAt = (own: Card, address: string, frame: number) =>
      evaluateCard(own, frame).find((entry) => entry.address === address)!.value
    const written = writeValue(card(), 'inner/x', 2, 33)
    expect(frames(written, 'inner/x')).toEqual([0, 7, 10])
    expect(valueAt(written, 'inner/x', 2)).toBe(33)
    expect(frames(writeValue(card(), 'all/x', 2, 33), 'all/x')).toEqual([0, 2, 12])
    expect(frames(toggleKey(card(), 'inner/opacity', 3), 'inner/opacity')).toEqual([0])
    const outlook = engine.outlook(card(), 2).find(({ id }) => id === 'inner')!
    const shifted = shiftPiece(card(), outlook, { x: 4, y: 0 }, 2)
    expect(valueAt(shifted, 'inner/x', 2)).toBeCloseTo((valueAt(card(), 'inner/x', 2) as number) + 4, 2)
    const turned = moveAnchor(card(), 'inner', { x: 12, y: 0 }, 2)
    expect(engine.outlook(turned, 2).find(({ id }) => id === 'inner')!.bounds.left).toBeCloseTo(outlook.bounds.left, 3)
  })

  test('goes there and back, through groups in groups', () => {
    const outer = { ...createPiece('group', card()), ...ahead(5), id: 'outer', pieces: card().pieces } as GroupPiece
    const nested = { ...card(), pieces: [outer] }
    expect(frameIn(nested, 'inner', 4)).toBe(14)
    for (let frame = 0; frame < LENGTH; frame++) {
      expect(frameOutOf(nested, 'inner', frameIn(nested, 'inner', frame), frame)).toBe(frame)
    }
    expect([hasClock(nested, 'inner'), hasClock(nested, 'outer'), hasClock(nested, null)]).toEqual([true, false, false])
    expect(frameOutOf(nested, 'outer', 7, 0)).toBe(7)
  })

  test('has its seam where the card has it', () => {
    // Held keys: inside, the value leaps at frame 0; seen from the card that is frame 15.
    const leaping = {
      keys: [
        { frame: 0, value: 10 },
        { frame: 19, value: 70 },
      ],
      loop: false,
    }
    const verdict = (own: Card) => {
      const [group] = own.pieces as GroupPiece[]
      const moved = { ...own, pieces: [{ ...group!, pieces: [{ ...group!.pieces[0]!, x: leaping }] }] } as Card
      return seamReport(moved).find(({ address }) => address === 'inner/x')!.verdict
    }
    expect(verdict(card())).not.toBe('jump')
    expect(verdict(without)).toBe('jump')
  })
})
