import { readFileSync } from 'node:fs'
import { expect, test } from '@jest/globals'
import { readCard } from '#core/card/read'
import type { Card } from '#core/card/schema'
import { cards, renders, versions } from '#server/database/schema'
import { demoCard } from '../support/engine'

const columns = [cards.document, versions.document, renders.document]

test('a card that an older application saved comes out with the values that have come since', () => {
  // Demo files are written by hand and leave out what has a default, as an older application did.
  const old = JSON.parse(readFileSync('demo/cards/01-opening.card.json', 'utf8')) as Card
  expect('anchorX' in old.pieces[0]!).toBe(false)
  for (const column of columns) {
    for (const stored of [old, JSON.stringify(old)]) {
      const card = column.mapFromDriverValue(stored as never) as Card
      expect(card).toEqual(demoCard('01-opening'))
      expect(card.pieces[0]).toMatchObject({ anchorX: 0, locked: false, seal: null })
    }
  }
})

test('one that cannot be read is handed on, so that its fault is named where it is opened', () => {
  const broken = { ...demoCard('02-lower-third'), length: -3 }
  const card = cards.document.mapFromDriverValue(broken as never)
  expect(card).toEqual(broken)
  expect(readCard(card).faults![0]!.place).toBe('length')
})

test('what is written is what is read', () => {
  const card = demoCard('03-badge')
  expect(cards.document.mapFromDriverValue(cards.document.mapToDriverValue(card) as never)).toEqual(card)
})
