import { readFileSync, readdirSync } from 'node:fs'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { Ajv2020 } from 'ajv/dist/2020.js'
import type { ValidateFunction } from 'ajv/dist/2020.js'
import { MADE_PAGES, MADE_SCHEMAS } from '../../scripts/made-docs'

const read = (path: string) => JSON.parse(readFileSync(path, 'utf8')) as Record<string, unknown>

describe('docs/card.schema.json', () => {
  let validate: ValidateFunction

  beforeAll(() => {
    validate = new Ajv2020({ strict: false }).compile(read('docs/card.schema.json'))
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
  test('takes the shipped seals and refuses what the reader refuses', () => {
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

describe.each(MADE_SCHEMAS)('docs/$file', ({ file, made }) => {
  test('is whole what the schema in the code makes (npm run docs)', () => {
    expect(read(`docs/${file}`)).toEqual(JSON.parse(JSON.stringify(made())))
  })
})

test.each(MADE_PAGES)('docs/$file is made from its table (npm run docs)', ({ file, made }) => {
  // Prettier aligns tables and writes emphasis its own way: what counts is the text.
  const words = (text: string) =>
    text
      .replace(/-{3,}/g, '---')
      .replace(/\s*\|\s*/g, '|')
      .replace(/(?<!\*)\*(?!\*)/g, '_')
      .replace(/\s+/g, ' ')
      .trim()
  expect(words(readFileSync(`docs/${file}`, 'utf8'))).toBe(words(made()))
})
