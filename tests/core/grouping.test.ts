import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { readFileSync } from 'node:fs'
import { expectCard } from '#core/card/read'
import { createMask } from '#core/card/create'
import type { Card, GroupPiece, Piece } from '#core/card/schema'
import { groupPieces } from '#core/edit/grouping'
import { FINISHES } from '#core/finishes/table'
import type { FramePicture } from '#core/frame/engine'
import { PIECE_KINDS } from '#core/pieces/table'
import { coat, emptyCard, engineWithFonts, finish, solid, withPiece } from '../support/engine'

// To put pieces into a group changes no picture: whatever they are, whatever works on them, while the shutter is open too.

const engine = engineWithFonts()
const fault = (name: string) => expectCard(JSON.parse(readFileSync(`tests/reference/faults/${name}.card.json`, 'utf8')))

/** The most by which two pictures differ, in 255ths of premultiplied values: what is clear has no colour. */
function difference(a: FramePicture, b: FramePicture): number {
  const [one, two] = [a, b].map(({ pixels }) => new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.length / 2))
  let most = 0
  for (let i = 0; i < one!.length; i += 4) {
    const [p, q] = [one![i + 3]!, two![i + 3]!]
    most = Math.max(most, Math.abs(p - q))
    for (let c = 0; c < 3; c++) most = Math.max(most, Math.abs(one![i + c]! * p - two![i + c]! * q) / 65_535)
  }
  return most / 257
}
const shot = (card: Card, frame: number) => engine.render(card, frame, { bits: 16 })

/** Sums of floats in another order, and one step of dithering. */
const SAME = 0.02

const ungrouped = (card: Card): Card => ({ ...card, pieces: (card.pieces[0] as GroupPiece).pieces })

describe('faults that were seen', () => {
  test.each([
    ['finish-in-group-shutter', [1, 4, 8]],
    ['mask-after-in-group-shutter', [1, 4, 8]],
  ])('%s', (name, frames) => {
    const card = fault(name)
    for (const frame of frames) {
      expect(difference(shot(card, frame), shot(ungrouped(card), frame))).toBeLessThan(SAME)
    }
  })

  test('a mask after the finishes holds its piece at moments at which none of them does anything', () => {
    const off = fault('mask-after-finish-off')
    const before = { ...off, pieces: [{ ...off.pieces[0]!, finishes: [] }] }
    expect(difference(shot(off, 0), shot(before as Card, 0))).toBe(0)
    const keyed = fault('mask-after-exposure-keyed-0')
    const [piece] = keyed.pieces as [Piece]
    for (const frame of [0, 5, 10, 15]) {
      // What is beyond the mask stays clear at every frame.
      const { pixels, width } = shot(keyed, frame)
      const values = new Uint16Array(pixels.buffer, pixels.byteOffset)
      expect([piece.id, frame, values[(90 * width + 45) * 4 + 3]]).toEqual([piece.id, frame, 0])
    }
  })
})

const x = {
  keys: [
    { frame: 0, value: 70 },
    { frame: 10, value: 170 },
  ],
}
const rotation = {
  keys: [
    { frame: 0, value: 0 },
    { frame: 10, value: 50 },
  ],
}
const FORMS: Readonly<Record<string, object>> = {
  type: { wording: 'Quay', size: 60 },
  box: { width: 90, height: 50, radius: 10 },
  ellipse: { width: 80, height: 60 },
  polygon: { width: 80, height: 80 },
  path: { path: 'M-40 -30 C -20 60 20 -60 40 30 L 0 40 Z' },
  group: {
    pieces: [
      {
        ...withPiece(emptyCard(9, 9), 'box', { width: 50, height: 40, x: 0, y: 0, rotation: 20 }).pieces[0]!,
        id: 'in',
      },
    ],
  },
}
const FACE = [coat('fill', 'fill', { paint: solid('#E0602F') }), coat('stroke', 'stroke', { width: 5 })]

/** A piece that moves, worked on, with another one behind it that stands. */
function scene(kind: string, kinds: readonly string[], masked: boolean): Card {
  const finishes = kinds.map((one, i) => finish(one, {}, `finish-${i}`))
  const masks = masked ? [{ ...createMask('ellipse', 'mask'), width: 70, height: 50, stage: 'after' }] : []
  const values = { ...FORMS[kind], x, y: 64, rotation, finishes, masks, id: 'moving' }
  const coats = kind === 'group' ? { face: [] } : { face: FACE }
  const card = withPiece(
    { ...emptyCard(240, 128, 20), background: solid('#203040') },
    'box',
    { width: 60, height: 100, x: 140, y: 60 },
    { face: [coat('fill', 'g', { paint: solid('#80C0B0') })] },
  )
  const front = withPiece(card, kind as 'box', values as never, coats)
  return { ...front, shutter: { angle: 300, phase: -30 } }
}

describe('a group changes nothing', () => {
  const kinds = Object.keys(PIECE_KINDS).filter((kind) => kind in FORMS)
  const finishes = FINISHES.map(({ kind }) => kind)

  test('over all kinds of pieces and finishes', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...kinds),
        fc.subarray(finishes, { maxLength: 2 }),
        fc.boolean(),
        fc.constantFrom(['moving'], ['moving', 'box']),
        fc.constantFrom(2, 7),
        (kind, worked, masked, ids, frame) => {
          const card = scene(kind, worked, masked)
          const named = {
            ...card,
            pieces: card.pieces.map((one, i) => (i === 1 ? { ...one, id: 'box' } : one)),
          } as Card
          const grouped = groupPieces(named, ids).card
          expect(difference(shot(grouped, frame), shot(named, frame))).toBeLessThan(SAME)
        },
      ),
      { numRuns: 40, seed: 7 },
    )
  })

  test('that moves itself moves what it holds as if that moved: finishes work on the mean of it', () => {
    for (const kind of ['box', 'type', 'group']) {
      for (const worked of [['edge'], ['trails'], ['blur', 'exposure'], ['grain']]) {
        const card = scene(kind, worked, true)
        const [front, ...others] = card.pieces as [Piece, ...Piece[]]
        const still = { ...card, pieces: [{ ...front, x: 70, rotation: 0 }, ...others] } as Card
        const { card: grouped, id } = groupPieces(still, ['moving'])
        const way = {
          keys: [
            { frame: 0, value: 120 },
            { frame: 10, value: 220 },
          ],
        }
        const carried = {
          ...grouped,
          pieces: grouped.pieces.map((one) => (one.id === id ? { ...one, x: way } : one)),
        } as Card
        const alone = { ...card, pieces: [{ ...front, rotation: 0 }, ...others] } as Card
        // Trails look back at pieces where their group stands now: that is the group's way, not the piece's.
        if (worked[0] === 'trails') continue
        expect([kind, worked, difference(shot(carried, 4), shot(alone, 4)) < SAME]).toEqual([kind, worked, true])
      }
    }
  })
})
