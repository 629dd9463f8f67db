import { readFileSync, readdirSync } from 'node:fs'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { Ajv2020 } from 'ajv/dist/2020.js'
import type { ValidateFunction } from 'ajv/dist/2020.js'
import { z } from 'zod'
import { cardSchema } from '#core/card/checks'
import { sealFileSchema } from '#core/seals/schema'
import { brushDocs } from '#core/brushes/docs'
import { coatDocs } from '#core/coats/docs'
import { deliveryDocs } from '#core/formats/deliveries/docs'
import { finishDocs } from '#core/finishes/docs'
import { maskDocs } from '#core/masks/docs'
import { pieceDocs } from '#core/pieces/docs'
import { proofDocs } from '#core/judge/proof/docs'
import { stepDocs } from '#core/steps/docs'
import { motorDocs } from '#core/values/motors/docs'
import { letterMotionDocs } from '#core/type/docs'

const read = (path: string) => JSON.parse(readFileSync(path, 'utf8')) as Record<string, unknown>

describe('docs/card.schema.json', () => {
  let validate: ValidateFunction

  beforeAll(() => {
    validate = new Ajv2020({ strict: false }).compile(read('docs/card.schema.json'))
  })

  test('is made from the schema in the code (npm run docs)', () => {
    const made = z.toJSONSchema(cardSchema, {
      target: 'draft-2020-12',
      io: 'input',
      unrepresentable: 'any',
      reused: 'ref',
    })
    expect(read('docs/card.schema.json')).toMatchObject(JSON.parse(JSON.stringify(made)) as object)
  })

  test.each(readdirSync('demo/cards'))('takes %s, by a second validator (ajv)', (file) => {
    expect(validate(read(`demo/cards/${file}`))).toBe(true)
  })

  test('refuses what the reader refuses', () => {
    const card = read(`demo/cards/${readdirSync('demo/cards')[0]}`)
    for (const broken of [
      { ...card, length: 0 },
      { ...card, frame: { width: 20000, height: 2 } },
      { ...card, extra: 1 },
    ]) {
      expect(validate(broken)).toBe(false)
    }
  })
})

describe('docs/seals.schema.json', () => {
  test('is made from the schema in the code, takes the shipped seals and refuses what the reader refuses', () => {
    const made = z.toJSONSchema(sealFileSchema, {
      target: 'draft-2020-12',
      io: 'input',
      unrepresentable: 'any',
      reused: 'ref',
    })
    expect(read('docs/seals.schema.json')).toMatchObject(JSON.parse(JSON.stringify(made)) as object)
    const validate = new Ajv2020({ strict: false }).compile(read('docs/seals.schema.json'))
    const shipped = read('demo/seals/lantern-regatta.seals.json')
    expect(validate(shipped)).toBe(true)
    for (const broken of [
      { ...shipped, seals: [] },
      { ...shipped, version: 3 },
      { ...shipped, seals: [{ name: 'x', variants: [] }] },
    ]) {
      expect(validate(broken)).toBe(false)
    }
  })
})

test.each([
  ['docs/brushes.md', brushDocs],
  ['docs/coats.md', coatDocs],
  ['docs/deliveries.md', deliveryDocs],
  ['docs/finishes.md', finishDocs],
  ['docs/masks.md', maskDocs],
  ['docs/outline-steps.md', stepDocs],
  ['docs/pieces.md', pieceDocs],
  ['docs/motors.md', motorDocs],
  ['docs/proof.md', proofDocs],
  ['docs/letter-motion.md', letterMotionDocs],
])('%s is made from its table (npm run docs)', (file, made) => {
  // Prettier aligns tables and writes emphasis its own way: what counts is the text.
  const words = (text: string) =>
    text
      .replace(/-{3,}/g, '---')
      .replace(/\s*\|\s*/g, '|')
      .replace(/(?<!\*)\*(?!\*)/g, '_')
      .replace(/\s+/g, ' ')
      .trim()
  expect(words(readFileSync(file, 'utf8'))).toBe(words(made()))
})
