import { writeFileSync } from 'node:fs'
import { z } from 'zod'
import { cardSchema } from '../core/card/schema'

// Writes docs/card.schema.json from the Zod schema: what a card file may contain when it is written by hand.
const schema = z.toJSONSchema(cardSchema, {
  target: 'draft-2020-12',
  io: 'input',
  unrepresentable: 'any',
  reused: 'ref',
})
const head = { $id: 'card.schema.json', title: 'Wax Ribbon card, version 1' }
writeFileSync('docs/card.schema.json', `${JSON.stringify({ ...schema, ...head }, null, 2)}\n`)
