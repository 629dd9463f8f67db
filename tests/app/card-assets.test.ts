import { beforeEach, describe, expect, test } from '@jest/globals'
import { expectCard } from '#core/card/read'
import type { Card, PicturePiece } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import { loadAssets, pictureOfSequence } from '~/workers/card-assets'
import { coat, emptyCard, fontBytes, withPiece, withType } from '../support/engine'

// What engines in workers get from the server, each thing once.

const PICTURE = 'picture-0123456789abcdef'
const OWN_FONT = 'own-0123456789abcdef'
const SEQUENCE = 'sequence-0123456789abcdef'

type Answer = { status?: number; headers?: Record<string, string>; bytes?: Uint8Array; json?: unknown } | 'silent'
let answers: Record<string, Answer>
let asked: string[]

beforeEach(() => {
  asked = []
  answers = {}
  globalThis.fetch = (async (url: string) => {
    asked.push(url)
    await new Promise((go) => setImmediate(go))
    const answer = answers[url] ?? { status: 404 }
    if (answer === 'silent') throw new TypeError('fetch failed')
    const { status = 200, headers = {}, bytes = new Uint8Array(), json } = answer
    return {
      ...{ ok: status < 300, status, headers: new Headers(headers) },
      arrayBuffer: async () => bytes.slice().buffer,
      json: async () => {
        if (json === undefined) throw new SyntaxError('no JSON')
        return json
      },
    }
  }) as unknown as typeof fetch
})

const dots = Uint8Array.from({ length: 2 * 3 * 4 }, (_, i) => i * 10)
const size = { 'x-width': '2', 'x-height': '3' }

/** Words in a shipped font and in one of somebody's own, beside a picture that a fill has too. */
function card(): Card {
  const textured = coat('fill', 'f', { paint: { type: 'texture', pattern: 'picture', picture: PICTURE } })
  const words = withType(emptyCard(160, 90), { id: 'a', font: 'anton', wording: 'A' }, { face: [textured] })
  const own = withType(words, { id: 'b', font: OWN_FONT, wording: 'B' }, {})
  return expectCard(withPiece<PicturePiece>(own, 'picture', { id: 'c', picture: PICTURE }))
}

describe('fonts and pictures of a card', () => {
  test('are fetched once, however many engines and cards ask at the same time', async () => {
    answers['/fonts/anton.ttf'] = { bytes: fontBytes('anton') }
    answers[`/api/fonts/${OWN_FONT}/file`] = { bytes: fontBytes('anton') }
    answers[`/api/pictures/${PICTURE}/pixels`] = { bytes: dots, headers: size }
    const engine = new Engine()
    await Promise.all([loadAssets(engine, card()), loadAssets(engine, { ...card(), name: 'Other' })])
    expect(asked.sort()).toEqual([`/api/fonts/${OWN_FONT}/file`, `/api/pictures/${PICTURE}/pixels`, '/fonts/anton.ttf'])
    expect([engine.fonts.has('anton'), engine.fonts.has(OWN_FONT), engine.pictures.has(PICTURE)]).toEqual([
      ...[true, true, true],
    ])
    await loadAssets(engine, card())
    expect(asked).toHaveLength(3)
    expect(engine.render(card(), 0).pixels.some((value) => value > 0)).toBe(true)
  })

  test('that are not there are left to the engine to name, and asked for again the next time', async () => {
    answers['/fonts/anton.ttf'] = { bytes: fontBytes('anton') }
    answers[`/api/pictures/${PICTURE}/pixels`] = { bytes: dots, headers: size }
    const engine = new Engine()
    await loadAssets(engine, card())
    expect(() => engine.render(card(), 0)).toThrow(OWN_FONT)
    answers[`/api/fonts/${OWN_FONT}/file`] = { bytes: fontBytes('anton') }
    await loadAssets(engine, card())
    expect(engine.render(card(), 0).width).toBe(160)
  })
})

describe('a picture of a sequence', () => {
  const url = (index: number) => `/api/sequences/${SEQUENCE}/pictures/${index}`

  test('comes as it is, in 8 or 16 bits; two who want it at once ask once, the next one again', async () => {
    answers[url(0)] = { bytes: dots, headers: { ...size, 'x-bits': '8' } }
    const [one, same] = await Promise.all([pictureOfSequence(SEQUENCE, 0), pictureOfSequence(SEQUENCE, 0)])
    expect(one).toEqual({ width: 2, height: 3, pixels: dots })
    expect(same).toBe(one)
    expect(asked).toHaveLength(1)
    await pictureOfSequence(SEQUENCE, 0)
    expect(asked).toHaveLength(2)
    answers[url(1)] = { bytes: new Uint8Array(48).fill(1), headers: { ...size, 'x-bits': '16' } }
    expect(await pictureOfSequence(SEQUENCE, 1)).toEqual({
      ...{ width: 2, height: 3, pixels: new Uint16Array(24).fill(257) },
    })
  })

  test('that is not there is none; what the server says of it is told, and its silence too', async () => {
    expect(await pictureOfSequence(SEQUENCE, 7)).toBeNull()
    const fault = { code: 'broken', place: 'file', message: 'It is broken.', remedy: 'Bring it in again.' }
    answers[url(8)] = { status: 422, json: { data: fault } }
    expect(await pictureOfSequence(SEQUENCE, 8)).toEqual(fault)
    answers[url(9)] = { status: 500 }
    expect(await pictureOfSequence(SEQUENCE, 9)).toBeNull()
    answers[url(10)] = 'silent'
    expect(await pictureOfSequence(SEQUENCE, 10)).toMatchObject({ message: 'The server cannot be reached.' })
  })
})
