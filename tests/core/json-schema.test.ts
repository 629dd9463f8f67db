import { readFileSync, readdirSync } from 'node:fs'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { Ajv2020 } from 'ajv/dist/2020.js'
import type { ValidateFunction } from 'ajv/dist/2020.js'
import { z } from 'zod'
import { cardSchema } from '#core/card/schema'
import { coatDocs } from '#core/coats/docs'

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

test('docs/coats.md is made from the table of coats (npm run docs)', () => {
  // Prettier aligns tables: what counts is the text of their cells.
  const words = (text: string) =>
    text
      .replace(/-{3,}/g, '---')
      .replace(/\s*\|\s*/g, '|')
      .replace(/\s+/g, ' ')
      .trim()
  expect(words(readFileSync('docs/coats.md', 'utf8'))).toBe(words(coatDocs()))
})
