import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { readCard } from '#core/card/read'
import type { Card } from '#core/card/schema'
import { changeEntry, duplicateEntry, moveEntry, pasteEntries, removeEntry } from '#core/edit/entries'
import { addFinish, addWash } from '#core/edit/finishes'
import { storedAt, writeValue } from '#core/edit/values'
import { WASH_MIXES } from '#core/edit/wash-mixes'
import { FINISHES } from '#core/finishes/table'
import { Engine } from '#core/frame/engine'
import { seamReport } from '#core/judge/seam'
import { coat, emptyCard, solid, withBox } from '../support/engine'

const start = withBox(
  withBox(
    { ...emptyCard(192, 128, 50), background: solid('#1E3A46') },
    { id: 'a', name: 'A', x: 60, width: 50, height: 40 },
    {
      face: [coat('fill', 'fill-a', { paint: solid('#F2A33C') })],
    },
  ),
  { id: 'b', name: 'B', x: 130, width: 50, height: 40 },
  { face: [coat('fill', 'fill-b', { paint: solid('#E9E2D0') })] },
)
const finishesOf = (card: Card, id: string) => card.pieces.find((piece) => piece.id === id)!.finishes
const kindsOf = (card: Card, id: string) => finishesOf(card, id).map(({ kind }) => kind)

describe('finishes of a piece', () => {
  test('whatever is done with them: a card that can be read, ids of their own, other pieces as they were', () => {
    const kind = fc.constantFrom(...FINISHES.map((definition) => definition.kind))
    const step = fc.record({
      what: fc.constantFrom('add', 'copy', 'remove', 'move', 'rename'),
      kind,
      at: fc.nat(6),
      to: fc.nat(6),
    })
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        let card = start
        let expected: string[] = []
        for (const { what, kind, at, to } of steps) {
          const list = finishesOf(card, 'a')
          const chosen = list[at % Math.max(1, list.length)]
          const index = chosen ? list.indexOf(chosen) : -1
          const next = [...expected]
          if (what === 'add') {
            card = addFinish(card, 'a', kind, { at: Math.min(to, list.length) }).card
            next.splice(Math.min(to, list.length), 0, kind)
          } else if (chosen) {
            if (what === 'copy') {
              card = duplicateEntry(card, 'a', chosen.id).card
              next.splice(index, 0, chosen.kind)
            } else if (what === 'remove') {
              card = removeEntry(card, 'a', chosen.id)
              next.splice(index, 1)
            } else if (what === 'move') {
              card = moveEntry(card, 'a', chosen.id, to)
              next.splice(index, 1)
              next.splice(to, 0, chosen.kind)
            } else card = changeEntry(card, 'a', chosen.id, { name: 'Mine' })
          }
          expected = next
        }
        expect(kindsOf(card, 'a')).toEqual(expected)
        const ids = finishesOf(card, 'a').map(({ id }) => id)
        expect(new Set(ids).size).toBe(ids.length)
        expect(card.pieces.find(({ id }) => id === 'b')).toBe(start.pieces.find(({ id }) => id === 'b'))
        expect(readCard(card).faults).toBeNull()
      }),
      { numRuns: 60 },
    )
  })

  test('all of one piece on another: in their order, with their values and ids of their own', () => {
    const made = addFinish(addFinish(start, 'a', 'grain', { values: { amount: 31 } }).card, 'a', 'bloom').card
    const busy = addFinish(made, 'b', 'tint').card
    const pasted = pasteEntries(busy, 'b', 'finish', finishesOf(busy, 'a'))
    expect(kindsOf(pasted, 'b')).toEqual(['bloom', 'grain'])
    expect(finishesOf(pasted, 'b')[1]).toMatchObject({ amount: 31 })
    const ids = [...finishesOf(pasted, 'a'), ...finishesOf(pasted, 'b')].map(({ id }) => id)
    expect(new Set(ids).size).toBe(4)
    // Each is reached by its own address.
    const id = finishesOf(pasted, 'b')[1]!.id
    const written = writeValue(pasted, `b/${id}/amount`, 0, 7)
    expect(storedAt(written, `b/${id}/amount`)).toBe(7)
    expect(storedAt(written, `a/${finishesOf(pasted, 'a')[1]!.id}/amount`)).toBe(31)
  })

  test('a finish that is gone is not moved, copied or removed', () => {
    const { card } = addFinish(start, 'a', 'grain')
    expect(kindsOf(moveEntry(card, 'a', 'gone', 0), 'a')).toEqual(['grain'])
    expect(kindsOf(duplicateEntry(card, 'a', 'gone').card, 'a')).toEqual(['grain'])
    expect(kindsOf(removeEntry(card, 'a', 'gone'), 'a')).toEqual(['grain'])
  })
})

describe('ready-made washes', () => {
  const engine = new Engine()
  const bytes = (card: Card, frame: number) => Buffer.from(engine.render(card, frame).pixels)

  test.each(WASH_MIXES.map((mix) => [mix.name, mix] as const))(
    '%s: a card that can be read, without a seam',
    (_, mix) => {
      for (const from of [0, 20, 47, 49]) {
        const frames = mix.frames(start) ?? start.length
        const { card, id } = addWash(start, mix.frames(start) === null ? 0 : from, frames, {
          name: mix.name,
          finishes: mix.finishes(start),
        })
        expect(readCard(card).faults).toBeNull()
        expect(card.pieces[0]).toMatchObject({ id, kind: 'wash', name: mix.name })
        const jumps = seamReport(card).filter(({ verdict }) => verdict === 'jump')
        expect(jumps).toEqual([])
      }
    },
  )

  test.each(WASH_MIXES.filter(({ name }) => name !== 'Plain').map((mix) => [mix.name, mix] as const))(
    '%s: is seen',
    (_, mix) => {
      const frames = mix.frames(start) ?? start.length
      const { card } = addWash(start, 0, frames, { name: mix.name, finishes: mix.finishes(start) })
      const changed = Array.from({ length: frames }, (_, frame) => !bytes(card, frame).equals(bytes(start, frame)))
      expect(changed).toContain(true)
    },
  )

  test('a flash and a smear grow from nothing and go again; beside their frames the card is what it was', () => {
    for (const name of ['Flash', 'Smear']) {
      const mix = WASH_MIXES.find((one) => one.name === name)!
      const frames = mix.frames(start)!
      const { card } = addWash(start, 20, frames, { name, finishes: mix.finishes(start) })
      const bare = bytes(start, 20)
      for (const frame of [0, 19, 20, 20 + frames - 1, 20 + frames, 49])
        expect(bytes(card, frame).equals(bare)).toBe(true)
      expect(bytes(card, 20 + Math.floor((frames - 1) / 2)).equals(bare)).toBe(false)
    }
  })

  test('at the end of the loop a wash is cut there; over all of it it has no span', () => {
    const plain = { name: 'Plain', finishes: () => [] }
    const spanOf = (from: number, frames: number) => addWash(start, from, frames, plain).card.pieces[0]!.span
    expect(spanOf(45, 20)).toEqual({ in: 45, out: 50 })
    expect(spanOf(-5, 3)).toEqual({ in: 0, out: 3 })
    expect(spanOf(99, 3)).toEqual({ in: 49, out: 50 })
    expect(spanOf(0, 50)).toBeNull()
  })
})
