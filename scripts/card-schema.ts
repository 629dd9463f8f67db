import { writeFileSync } from 'node:fs'
import { z } from 'zod'
import { cardSchema } from '../core/card/checks'
import { CARD_VERSION } from '../core/card/schema'
import { ROSTER_VERSION, rosterSchema } from '../core/rosters/roster'
import { SEALS_VERSION, sealFileSchema } from '../core/seals/schema'

// Writes the JSON Schemas of our own files from their Zod schemas: what they may contain when they are written by hand.
const FILES = [
  { file: 'card.schema.json', title: `Wax Ribbon card, version ${CARD_VERSION}`, schema: cardSchema },
  { file: 'seals.schema.json', title: `Wax Ribbon set of seals, version ${SEALS_VERSION}`, schema: sealFileSchema },
  { file: 'roster.schema.json', title: `Wax Ribbon roster, version ${ROSTER_VERSION}`, schema: rosterSchema },
]

for (const { file, title, schema } of FILES) {
  const made = z.toJSONSchema(schema, { target: 'draft-2020-12', io: 'input', unrepresentable: 'any', reused: 'ref' })
  writeFileSync(`docs/${file}`, `${JSON.stringify({ ...made, $id: file, title }, null, 2)}\n`)
}
