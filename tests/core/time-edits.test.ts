import { describe, expect, test } from '@jest/globals'
import { createMask, createPiece } from '#core/card/create'
import { expectCard } from '#core/card/read'
import type { Card, GroupPiece, Mask, PicturePiece, Piece, TwinPiece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import { addClock, freezePiece, repeatPiece, reversePiece } from '#core/edit/clocks'
import { showInside } from '#core/edit/inside'
import { splitPiece } from '#core/edit/spans'
import { duplicatePiece } from '#core/edit/stack'
import { addTwin } from '#core/edit/twins'
import { clockAround, frameIn } from '#core/time/clock'
import { coat, emptyCard, engineWithFonts, solid, withBox } from '../support/engine'

const LENGTH = 24
const PICTURE = 'picture-00112233445566ff'

/** A box that goes from left to right, then stands. */
function card(span: Piece['span'] = null): Card {
  const x = {
    keys: [
      { frame: 0, value: 20 },
      { frame: 18, value: 200 },
    ],
    loop: false,
  }
  return expectCard(
    withBox(emptyCard(240, 60, LENGTH), { id: 'box', name: 'Boat', width: 30, height: 20, x, y: 30, span } as never, {
      face: [coat('fill', 'fill', { paint: solid('#E2683C') })],
    }),
  )
}

const engine = engineWithFonts()
const shown = (own: Card, frame: number) => Buffer.from(engine.render(expectCard(own), frame).pixels)
const expectShows = (own: Card, frame: number, before: Card, then: number) =>
  expect(shown(own, frame).equals(shown(before, then))).toBe(true)

describe('the time of a piece', () => {
  test('is frozen: what is shown at a frame is shown at all', () => {
    const { card: frozen, id } = freezePiece(card(), 'box', 7)
    for (const frame of [0, 7, 23]) expectShows(frozen, frame, card(), 7)
    // Frozen again, somewhere else: the piece that has the clock already keeps it.
    const again = freezePiece(frozen, id, 3)
    expect(again.id).toBe(id)
    expect(allPieces(again.card.pieces)).toHaveLength(2)
    expectShows(again.card, 12, card(), 7)
  })

  test('of what is gone, and of a wash, is left alone', () => {
    const wash = createPiece('wash', card())
    const washed = { ...card(), pieces: [wash, ...card().pieces] }
    for (const id of ['gone', wash.id])
      for (const edit of [freezePiece, repeatPiece]) {
        const { card: after, id: own } = edit(washed, id, 4)
        expect(after).toBe(washed)
        expect(own).toBe(id)
      }
    expect(reversePiece(washed, wash.id).card).toBe(washed)
    expect(splitPiece(washed, 'gone', 4)).toBeNull()
    expect(addClock(washed, wash.id).card).toBe(washed)
  })

  test('is turned round within its span, and back', () => {
    const span = { in: 4, out: 16 }
    const { card: backward, id } = reversePiece(card(span), 'box')
    for (const frame of [4, 9, 15]) expectShows(backward, frame, card(span), 19 - frame)
    expect(shown(backward, 3).every((v) => v === 0)).toBe(true)
    const { card: forward } = reversePiece(backward, id)
    for (const frame of [0, 4, 9, 15, 20]) expectShows(forward, frame, card(span), frame)
  })

  test('is repeated to the end of the loop', () => {
    const { card: repeated } = repeatPiece(card(), 'box', 6)
    for (let frame = 0; frame < LENGTH; frame++) expectShows(repeated, frame, card(), frame % 6)
    const { card: later } = repeatPiece(card({ in: 5, out: 9 }), 'box', 20)
    for (let frame = 5; frame < LENGTH; frame++) expectShows(later, frame, card(), 5 + ((frame - 5) % 4))
    expect(shown(later, 4).every((v) => v === 0)).toBe(true)
    // Where it is not seen yet, or only begins to be, all of its span is.
    for (const frame of [2, 5]) expect(repeatPiece(card({ in: 5, out: 9 }), 'box', frame).card).toEqual(later)
  })

  test('stays what it is with a new clock; a group that moves itself goes into another one', () => {
    const { card: clocked, id } = addClock(card(), 'box')
    for (const frame of [0, 11, 23]) expectShows(clocked, frame, card(), frame)
    expect(clockAround(clocked, 'box')).toBe(id)
    const y = {
      keys: [
        { frame: 0, value: 30 },
        { frame: 10, value: 45 },
      ],
    }
    const moving = { ...clocked, pieces: [{ ...clocked.pieces[0]!, y } as unknown as Piece] }
    expect(addClock(moving, id).id).toBe(id)
    const frozen = freezePiece(moving, id, 8)
    expect(frozen.id).not.toBe(id)
    for (const frame of [0, 8, 20]) expectShows(frozen.card, frame, moving, 8)
  })

  test('runs by hand the other way round when it is turned', () => {
    const group = { ...createPiece('group', card()), id: 'all', x: 0, y: 0, pieces: card().pieces } as GroupPiece
    const clockFrame = {
      keys: [
        { frame: 0, value: 2 },
        { frame: 10, value: 12 },
      ],
      loop: false,
    }
    const keyed = { ...card(), pieces: [{ ...group, clock: 'keyed', clockFrame } as GroupPiece] }
    const turned = reversePiece(keyed, 'all').card
    expect([0, 4, 10].map((frame) => frameIn(turned, 'box', frame))).toEqual([12, 8, 2])
  })

  test('is cut in two at the playhead, each half as it was', () => {
    const done = splitPiece(card(), 'box', 9)!
    for (const frame of [0, 8, 9, 23]) expectShows(done.card, frame, card(), frame)
  })
})

describe('links', () => {
  test('a twin stands a little aside, in front, and shows the piece in step', () => {
    const { card: own, id } = addTwin(card(), 'box', 9)
    const [twin] = own.pieces as [TwinPiece]
    expect(twin).toMatchObject({ id, kind: 'twin', source: 'box', x: 142, y: 62, name: 'Boat, twin' })
    const wash = { ...createPiece('wash', own), id: 'veil' } as Piece
    expect(addTwin({ ...own, pieces: [wash] }, 'veil', 0).card.pieces).toHaveLength(1)
  })

  test('a picture comes in as large as the face that it is shown within', () => {
    const around = { left: 10, top: 20, right: 110, bottom: 60 }
    const { card: own, id } = showInside(
      card(),
      'box',
      { kind: 'picture', name: 'Water', width: 50, height: 40, values: { picture: PICTURE } },
      around,
    )
    const [picture] = own.pieces as [PicturePiece]
    expect(picture).toMatchObject({
      id,
      kind: 'picture',
      picture: PICTURE,
      x: 60,
      y: 40,
      width: 100,
      height: 80,
    })
    expect(picture.masks).toMatchObject([{ kind: 'matte', source: 'box', by: 'face' }])
    expectCard(own)
  })

  test('what is copied together keeps together: mattes, twins and maps too', () => {
    const own = card()
    const disc = { ...createPiece('ellipse', own), id: 'disc' } as Piece
    const held = { ...own.pieces[0]!, masks: [{ ...createMask('matte', 'm'), source: 'disc' } as Mask] } as Piece
    const twin = { ...createPiece('twin', own), id: 'twin', source: 'box' } as Piece
    const group = { ...createPiece('group', own), id: 'all', pieces: [twin, held, disc] } as GroupPiece
    const { card: copied, id } = duplicatePiece({ ...own, pieces: [group] }, 'all')
    const [twin2, held2, disc2] = (copied.pieces.find((piece) => piece.id === id) as GroupPiece).pieces
    expect((twin2 as TwinPiece).source).toBe(held2!.id)
    expect(held2!.masks[0]).toMatchObject({ source: disc2!.id })
    expect(new Set(allPieces(copied.pieces).map((piece) => piece.id)).size).toBe(8)
  })
})
