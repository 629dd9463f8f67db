import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { addPiece, duplicatePiece, movePiece, removePiece } from '#core/edit/stack'
import { writeValue } from '#core/edit/values'
import { patched, patchFrom } from '#core/card/patch'
import type { Card } from '#core/card/schema'
import { demoCard } from '../support/engine'

/** As a message goes to a worker: nothing is the same object there. */
const sent = <T>(value: T): T => structuredClone(value)

test('a card goes to a worker by what is other in it: after any edits both know the same, and what did not change is one object', () => {
  const edit = fc.record({ kind: fc.nat(4), at: fc.nat(20), to: fc.nat(20) })
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 12 }), (edits) => {
      let here: Card = demoCard('01-opening')
      let there = patched(null, sent(patchFrom(null, here)))
      for (const { kind, at, to } of edits) {
        const before = here
        const piece = here.pieces[at % Math.max(1, here.pieces.length)]
        if (kind === 0 || !piece) here = addPiece(here, 'box').card
        else if (kind === 1) here = duplicatePiece(here, piece.id).card
        else if (kind === 2) here = removePiece(here, piece.id)
        else if (kind === 3) here = movePiece(here, piece.id, to % here.pieces.length)
        else here = writeValue(here, `${piece.id}/opacity`, 0, to)
        const known = there
        there = patched(known, sent(patchFrom(before, here)))
        expect(there).toEqual(here)
        here.pieces.forEach((same, i) => {
          const was = before.pieces.indexOf(same)
          if (was >= 0) expect(there.pieces[i]).toBe(known.pieces[was])
        })
      }
    }),
    { numRuns: 40 },
  )
})
