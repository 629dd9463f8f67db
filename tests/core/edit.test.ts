import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { solid } from '../support/engine'
import { createCard } from '#core/card/create'
import {
  addCoat,
  addPiece,
  changeCoat,
  changePiece,
  duplicateCoat,
  duplicatePiece,
  moveCoat,
  movePiece,
  pasteStack,
  removeCoat,
  removePiece,
} from '#core/edit/stack'
import { changeUnit, stopMoving, storedAt, toggleKey, writeValue } from '#core/edit/values'
import { readCard } from '#core/card/read'
import type { Card } from '#core/card/schema'

const empty = createCard('Edits', { width: 800, height: 450, rate: { numerator: 25, denominator: 1 }, length: 100 })

function withTitle(): Card {
  const { card, id } = addPiece(empty, 'type')
  return addCoat(card, id, 'stroke').card
}

const WIDTH = 'type-1/stroke-1/width'

test('new words stand beneath those that stand in the middle already, and in the frame', () => {
  const tall = { ...empty, frame: { ...empty.frame, height: 1080 } }
  const lines = (card: Card) => card.pieces.map(({ x, y }) => [x, y])
  const grown = (count: number) =>
    Array.from({ length: count }).reduce<Card>((card) => addPiece(card, 'type').card, tall)
  const { size } = grown(1).pieces[0] as { size: number }
  expect(lines(grown(2))).toEqual([
    [400, 540 + Math.round(size * 1.2)],
    [400, 540],
  ])
  for (const [, y] of lines(grown(12))) expect((y as number) + size / 2).toBeLessThanOrEqual(1080)
  // Only where there are words: a bar lies behind them.
  expect(lines(addPiece(grown(1), 'box').card)[0]).toEqual([400, 540])
  const moved = changePiece(grown(1), 'type-1', { x: 10 })
  expect(lines(addPiece(moved, 'type').card)[0]).toEqual([400, 540])
  const moving = toggleKey(grown(1), 'type-1/y', 0)
  expect(lines(addPiece(moving, 'type').card)[0]).toEqual([400, 540])
})

test('a stroke poured beneath another of its side begins where that one ends; of another side it does not', () => {
  const poured = ['outside', 'inside', 'outside', 'across'].reduce(
    (card, side) => addCoat(card, 'type-1', 'stroke', { side }).card,
    addPiece(empty, 'type').card,
  )
  const strokes = poured.pieces[0]!.coats.face.filter(({ kind }) => kind === 'stroke')
  expect(strokes.map((coat) => [(coat as { side?: string }).side, (coat as { stacked?: boolean }).stacked])).toEqual([
    ['inside', false],
    ['outside', false],
    ['outside', true],
    ['across', false],
  ])
  // Of the colour of a dark one it would be a part of it: the third is pale, the fourth dark again.
  const rings = addCoat(poured, 'type-1', 'stroke', { side: 'outside' }).card.pieces[0]!.coats.face
  const paints = rings
    .filter((coat) => 'side' in coat && coat.side === 'outside')
    .map((coat) => ('paint' in coat ? coat.paint : null))
  expect(paints).toEqual([solid('#3D0D16'), solid('#F6E9D2'), solid('#3D0D16')])
  // One that is put in front of the other is not beneath it.
  const front = addCoat(poured, 'type-1', 'stroke', { side: 'outside', at: 0 }).card
  expect(front.pieces[0]!.coats.face[0]).toMatchObject({ side: 'outside', stacked: false })
})

describe('values and keys', () => {
  test('what does not move has no value at a moment', () => {
    expect(() => stopMoving(withTitle(), 'type-1/kind', 0)).toThrow('type-1/kind is no parameter that moves')
  })

  test('the first key takes the present value; without its last key the value stands still again', () => {
    const card = withTitle()
    const moving = toggleKey(card, WIDTH, 10)
    expect(storedAt(moving, WIDTH)).toEqual({ keys: [{ frame: 10, value: 8, easing: 'ease-in-out' }] })
    expect(storedAt(toggleKey(moving, WIDTH, 10), WIDTH)).toBe(8)
  })

  test('writing a moving value sets the key at the playhead and leaves the others', () => {
    let card = toggleKey(withTitle(), WIDTH, 10)
    card = writeValue(card, WIDTH, 40, 20)
    card = writeValue(card, WIDTH, 10, 5)
    expect(storedAt(card, WIDTH)).toEqual({
      keys: [
        { frame: 10, value: 5, easing: 'ease-in-out' },
        { frame: 40, value: 20, easing: 'ease-in-out' },
      ],
    })
    expect(storedAt(stopMoving(toggleKey(card, WIDTH, 10), WIDTH, 0), WIDTH)).toBe(20)
  })

  test('a length keeps what it means when its unit changes, still or moving', () => {
    const reference = 160
    const percent = changeUnit(withTitle(), WIDTH, '%', reference)
    expect(storedAt(percent, WIDTH)).toEqual({ unit: '%', value: 5 })
    expect(storedAt(changeUnit(percent, WIDTH, 'px', reference), WIDTH)).toBe(8)
    const moving = writeValue(toggleKey(percent, WIDTH, 0), WIDTH, 50, 10)
    const back = storedAt(changeUnit(moving, WIDTH, 'px', reference), WIDTH) as { keys: { value: number }[] }
    expect(back.keys.map(({ value }) => value)).toEqual([8, 16])
  })
})

describe('the stack', () => {
  test('a poured coat lies where its side belongs', () => {
    const { card, id } = addPiece(empty, 'type')
    const poured = [
      { kind: 'shadow', side: 'outside' },
      { kind: 'shadow', side: 'inside' },
      { kind: 'stroke', side: 'outside' },
    ].reduce((now, { kind, side }) => addCoat(now, id, kind, { side }).card, card)
    const { face, behind } = poured.pieces[0]!.coats
    expect(face.map((coat) => `${coat.kind} ${coat.side ?? ''}`.trim())).toEqual([
      'shadow inside',
      'fill',
      'stroke outside',
    ])
    expect(behind.map(({ kind }) => kind)).toEqual(['shadow'])
  })

  test('a coat crosses the face line and comes back', () => {
    const card = withTitle()
    const across = moveCoat(card, 'type-1', 'stroke-1', 'behind', 0)
    expect(across.pieces[0]!.coats.behind.map(({ id }) => id)).toEqual(['stroke-1'])
    expect(moveCoat(across, 'type-1', 'stroke-1', 'face', 1)).toEqual(card)
    expect(removeCoat(across, 'type-1', 'stroke-1').pieces[0]!.coats.behind).toEqual([])
    expect(removeCoat(across, 'type-1', 'fill-1').pieces[0]!.coats).toMatchObject({ face: [], behind: [{}] })
    expect(moveCoat(card, 'type-1', 'gone', 'behind', 0)).toBe(card)
    expect(moveCoat(card, 'gone', 'stroke-1', 'behind', 0)).toBe(card)
  })

  test('a copied core gets ids of its own', () => {
    const { card } = addPiece(withTitle(), 'box')
    const pasted = pasteStack(card, 'box-1', card.pieces[1]!.coats)
    expect(readCard(pasted).faults).toBeNull()
    expect(pasted.pieces[0]!.coats.face.map(({ kind }) => kind)).toEqual(['fill', 'stroke'])
  })
})

test('any row of edits leaves a valid card, and never changes the one before', () => {
  const number = fc.integer({ min: 0, max: 20 })
  const edits = fc.array(fc.tuple(fc.integer({ min: 0, max: 11 }), number, number), { maxLength: 30 })
  fc.assert(
    fc.property(edits, (row) => {
      let card: Card = withTitle()
      for (const [which, a, b] of row) {
        const before = card
        const frozen = JSON.stringify(before)
        const piece = card.pieces[a % Math.max(1, card.pieces.length)]
        const coats = piece ? [...piece.coats.face, ...piece.coats.behind] : []
        const coat = coats[b % Math.max(1, coats.length)]
        if (which === 0) card = addPiece(card, a % 2 ? 'type' : 'box').card
        else if (!piece) continue
        else if (which === 1) card = removePiece(card, piece.id)
        else if (which === 2) card = duplicatePiece(card, piece.id).card
        else if (which === 3) card = movePiece(card, piece.id, b % card.pieces.length)
        else if (which === 4) card = changePiece(card, piece.id, { name: `Name ${b}` })
        else if (which === 5) card = addCoat(card, piece.id, ['fill', 'stroke', 'shadow'][b % 3]!).card
        else if (which === 6) card = toggleKey(card, `${piece.id}/x`, b)
        else if (which === 7) card = writeValue(card, `${piece.id}/x`, b, a)
        else if (!coat) continue
        else if (which === 8) card = removeCoat(card, piece.id, coat.id)
        else if (which === 9) card = duplicateCoat(card, piece.id, coat.id).card
        else if (which === 10) card = moveCoat(card, piece.id, coat.id, a % 2 ? 'face' : 'behind', b % 3)
        else card = changeCoat(card, piece.id, coat.id, { on: a % 2 === 0 })
        expect(JSON.stringify(before)).toBe(frozen)
      }
      expect(readCard(card).faults).toBeNull()
    }),
    { numRuns: 60 },
  )
})
