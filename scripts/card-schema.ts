import { writeFileSync } from 'node:fs'
import { z } from 'zod'
import { cardSchema } from '../core/card/schema'
import { sealFileSchema } from '../core/seals/schema'

// Writes the JSON Schemas of our own files from their Zod schemas: what they may contain when they are written by hand.
const FILES = [
  { file: 'card.schema.json', title: 'Wax Ribbon card, version 1', schema: cardSchema },
  { file: 'seals.schema.json', title: 'Wax Ribbon set of seals, version 1', schema: sealFileSchema },
]

for (const { file, title, schema } of FILES) {
  const made = z.toJSONSchema(schema, { target: 'draft-2020-12', io: 'input', unrepresentable: 'any', reused: 'ref' })
  writeFileSync(`docs/${file}`, `${JSON.stringify({ ...made, $id: file, title }, null, 2)}\n`)
}
