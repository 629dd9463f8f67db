import { describe, expect, test } from '@jest/globals'
import type { Card, GroupPiece, Piece } from '#core/card/schema'
import { createMask, createPiece, createStep } from '#core/card/create'
import { UNSEEN } from '#core/help/unseen-words'
import { whyUnseen } from '#core/judge/unseen'
import { coat, emptyCard, engineWithFonts, solid, withBox } from '../support/engine'

const engine = engineWithFonts()
const fill = coat('fill', 'f', { paint: solid('#FFFFFF') })
const boxed = (values: object = {}, coats = { face: [fill] }) =>
  withBox(emptyCard(320, 180), { id: 'box', x: 160, y: 90, width: 80, height: 60, ...values }, coats)
const changed = (card: Card, change: object): Card => ({
  ...card,
  pieces: card.pieces.map((piece) => ({ ...piece, ...change }) as Piece),
})
const grouped = (card: Card, values: object): Card => {
  const group = { ...createPiece('group', card), id: 'group', x: 0, y: 0, ...values } as GroupPiece
  return { ...card, pieces: [{ ...group, pieces: card.pieces } as Piece] }
}
const steps = (kind: string, values: object) => ({ outlineSteps: [{ ...createStep(kind, 'step'), ...values }] })
const mask = (values: object) => ({ masks: [{ ...createMask('box', 'mask'), ...values }] })
const before = (card: Card, values: object = {}) =>
  withBox(card, { id: 'cover', x: 160, y: 90, width: 200, height: 160, ...values }, { face: [{ ...fill, id: 'c' }] })

describe('why nothing shows', () => {
  const cases: [string, Card, (typeof UNSEEN)[number]['id'] | null][] = [
    ['all is well', boxed(), null],
    ['switched off', boxed({ on: false }), 'off'],
    ['in a group that is off', grouped(boxed(), { on: false }), 'off'],
    ['another span', boxed({ span: { in: 10, out: 20 } }), 'span'],
    ['clear', boxed({ opacity: 0 }), 'clear'],
    ['in a clear group', grouped(boxed(), { opacity: 0 }), 'clear'],
    ['scaled to nothing', boxed({ scale: 0 }), 'small'],
    ['without width', boxed({ width: 0 }), 'small'],
    ['far away', boxed({ x: 2000 }), 'outside'],
    ['bare', boxed({}, { face: [] }), 'coats'],
    ['its only coat switched off', boxed({}, { face: [{ ...fill, on: false }] }), 'coats'],
    ['its only coat clear', boxed({}, { face: [coat('fill', 'f', { paint: solid('#FFFFFF00') })] }), 'coats'],
    ['moved inward too far', changed(boxed(), steps('grow', { by: -60 })), 'form'],
    ['a mask elsewhere', changed(boxed(), mask({ x: 500, width: 40, height: 40 })), 'mask'],
    ['the mask of its group', grouped(boxed(), mask({ x: 900, y: 90, width: 40, height: 40 })), 'mask'],
    ['a mask that leaves a part', changed(boxed(), mask({ x: 0, width: 40, height: 40 })), null],
    ['covered', before(boxed()), 'behind'],
    ['covered in part', before(boxed(), { x: 260 }), null],
    ['an empty group', grouped(emptyCard(320, 180), {}), 'small'],
  ]
  test.each(cases)('%s', (name, card, reason) => {
    expect(whyUnseen(engine, card, name === 'an empty group' ? 'group' : 'box', 0)).toBe(reason)
  })

  test('pictures, groups and washes are seen without a coat', () => {
    const id = 'picture-0123456789abcdef'
    engine.pictures.add(id, { width: 2, height: 2, pixels: new Uint8Array(16).fill(255) })
    const card = emptyCard(320, 180)
    const picture = { ...createPiece('picture', card), id: 'picture', picture: id, width: 80, height: 40 } as Piece
    expect(whyUnseen(engine, { ...card, pieces: [picture] }, 'picture', 0)).toBeNull()
    expect(whyUnseen(engine, grouped(boxed(), {}), 'group', 0)).toBeNull()
    expect(whyUnseen(engine, { ...card, pieces: [createPiece('wash', card)] }, 'wash-1', 0)).toBeNull()
    expect(whyUnseen(engine, card, 'nobody', 0)).toBeNull()
  })

  test('each reason has its words, and each is found by a case', () => {
    expect(new Set(cases.flatMap(([, , reason]) => reason ?? []))).toEqual(new Set(UNSEEN.map(({ id }) => id)))
  })
})
