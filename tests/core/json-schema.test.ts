import { readFileSync, readdirSync } from 'node:fs'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { Ajv2020 } from 'ajv/dist/2020.js'
import type { ValidateFunction } from 'ajv/dist/2020.js'
import { z } from 'zod'
import { cardSchema } from '#core/card/schema'

const read = (path: string) => JSON.parse(readFileSync(path, 'utf8')) as Record<string, unknown>

describe('docs/card.schema.json', () => {
  let validate: ValidateFunction

  beforeAll(() => {
    validate = new Ajv2020({ strict: false }).compile(read('docs/card.schema.json'))
  })

  test('is made from the schema in the code (npm run schema)', () => {
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
