import { beforeEach, describe, expect, jest, test } from '@jest/globals'
import type { CardPatch } from '#core/card/patch'
import { patched } from '#core/card/patch'
import type { Card } from '#core/card/schema'
import { threeBoxes } from './stand-in'

// Engines in workers, as the page has them: each knows every card, a lost one is replaced, several share a picture.

interface Region {
  x: number
  y: number
  w: number
  h: number
}
interface Look {
  scale: number
  region?: Region
}

class Picture {
  closed = false
  constructor(readonly region: Region) {}
  close() {
    this.closed = true
  }
}

/** An engine in its worker: what it was told, and what it answers. */
class Engine {
  static all: Engine[] = []
  cards = new Map<string, Card>()
  rendered: { name: string; frame: number; look: Look }[] = []
  ended = false
  private onError = () => {}

  constructor() {
    Engine.all.push(this)
  }

  readonly face = {
    setCard: (name: string, patch: CardPatch) => {
      this.cards.set(name, patched(this.cards.get(name) ?? null, patch))
    },
    forgetCard: (name: string) => {
      this.cards.delete(name)
    },
    render: async (name: string, frame: number, look: Look) => {
      this.rendered.push({ name, frame, look })
      const fault = answers.fault(this)
      if (fault) return { fault }
      if (answers.hangs(this)) await new Promise(() => {})
      const bitmap = new Picture(look.region ?? { x: 0, y: 0, w: 480, h: 270 })
      pictures.push(bitmap)
      return { bitmap, milliseconds: 10, engines: 1 }
    },
  }

  addEventListener(_: 'error', listener: () => void) {
    this.onError = listener
  }
  terminate() {
    this.ended = true
  }
  die() {
    this.onError()
  }
}

let pictures: Picture[] = []
const answers: { fault(engine: Engine): object | null; hangs(engine: Engine): boolean } = {
  fault: () => null,
  hangs: () => false,
}
const laid: { x: number; operation: string }[] = []

// What is said to a worker is done at once by its engine.
jest.unstable_mockModule('comlink', () => ({ wrap: ({ face }: Engine) => face }))
Object.assign(globalThis, {
  Worker: Engine,
  navigator: { hardwareConcurrency: 3 },
  window: { waxEngines: 2, waxEngineLimit: 150 },
  OffscreenCanvas: class {
    constructor(
      readonly width: number,
      readonly height: number,
    ) {}
    getContext = () => ({
      globalCompositeOperation: '',
      drawImage(_: unknown, x: number) {
        laid.push({ x, operation: this.globalCompositeOperation })
      },
    })
    transferToImageBitmap = () => ({ width: this.width, height: this.height })
  },
})
const { forgetCard, freeEngines, onEngine, pictureOf, poolSize, setCard, sharedPictureOf } =
  await import('~/workers/engine-pool')
const { Bands } = await import('~/workers/bands')

/** Those that are at work. */
const engines = () => Engine.all.filter(({ ended }) => !ended)
const soon = () => new Promise((go) => setTimeout(go, 5))
const look = { scale: 1 }

/** Waits for what the engines were told before. */
async function heard() {
  for (let i = 0; i < 6; i++) await soon()
}

beforeEach(() => {
  pictures = []
  laid.length = 0
  answers.fault = () => null
  answers.hangs = () => false
  for (const engine of Engine.all) engine.rendered = []
})

describe('engines', () => {
  test('all know a card, and of a change only what is other', async () => {
    const card = threeBoxes()
    setCard('bench', card)
    const edited = { ...card, name: 'Edited', pieces: card.pieces.slice(1) }
    setCard('bench', edited)
    await heard()
    expect(engines()).toHaveLength(poolSize)
    for (const { cards } of engines()) expect(cards.get('bench')).toEqual(edited)
    forgetCard('bench')
    await heard()
    for (const { cards } of engines()) expect(cards.has('bench')).toBe(false)
  })

  test('share what is asked for: the one that has least to do takes it', async () => {
    setCard('bench', threeBoxes())
    await Promise.all([0, 1, 2, 3].map((frame) => pictureOf('bench', frame, look)))
    expect(engines().map(({ rendered }) => rendered.length)).toEqual([2, 2])
  })

  test('one that hangs is ended: its picture is given up with a word, the next one knows every card', async () => {
    setCard('bench', threeBoxes())
    setCard('other', { ...threeBoxes(), name: 'Other' })
    answers.hangs = ({ rendered }) => rendered.at(-1)!.frame === 0
    const [first] = engines()
    const [lost, kept] = await Promise.all([pictureOf('bench', 0, look), pictureOf('bench', 1, look)])
    expect(lost).toMatchObject({ fault: { code: 'too-slow' } })
    expect(kept).toHaveProperty('bitmap')
    expect(first!.ended).toBe(true)
    await heard()
    expect(engines()).toHaveLength(poolSize)
    expect([...engines().at(-1)!.cards.values()].map(({ name }) => name)).toEqual(['Three boxes', 'Other'])
  })

  test('one that dies is replaced too; what waits behind is done', async () => {
    setCard('bench', threeBoxes())
    await heard()
    const asked = [0, 1, 2].map((frame) => pictureOf('bench', frame, look))
    const first = engines().find(({ rendered }) => rendered[0]?.frame === 0)
    first!.die()
    const [lost, ...others] = await Promise.all(asked)
    expect(lost).toMatchObject({ fault: { code: 'engine-died' } })
    for (const one of others) expect(one).toHaveProperty('bitmap')
  })

  test('an error of the work itself is the caller’s', async () => {
    await expect(
      onEngine(
        () => Promise.reject(new TypeError('mine')),
        () => 'lost',
      ),
    ).rejects.toThrow('mine')
  })
})

describe('a picture that engines share', () => {
  test('is laid together of bands that cover it once, and their pictures are let go', async () => {
    setCard('bench', threeBoxes())
    await heard()
    expect(freeEngines()).toBe(2)
    const shown = await sharedPictureOf('bench', 4, look, new Bands())
    expect(shown).toMatchObject({ bitmap: { width: 480, height: 270 }, engines: 2 })
    const regions = engines().map(({ rendered }) => rendered[0]!.look.region!)
    expect(regions.map(({ y, h }) => [y, h])).toEqual([
      [0, 270],
      [0, 270],
    ])
    const [left, right] = [...regions].sort((a, b) => a.x - b.x)
    expect([left!.x, left!.x + left!.w, right!.x + right!.w]).toEqual([0, right!.x, 480])
    expect(laid.map(({ operation }) => operation)).toEqual(['copy', 'source-over'])
    await heard()
    expect(pictures.map(({ closed }) => closed)).toEqual([true, true])
  })

  test('of which one band is at fault is at fault, and the other band is let go', async () => {
    setCard('bench', threeBoxes())
    await heard()
    const fault = { code: 'too-much', place: 'pieces[0]', message: 'Too much.', remedy: 'Less.' }
    answers.fault = (engine) => (engine === engines()[1] ? fault : null)
    expect(await sharedPictureOf('bench', 4, look, new Bands())).toEqual({ fault })
    await heard()
    expect(pictures.map(({ closed }) => closed)).toEqual([true])
  })

  test('is made by one where only one is free, and by one where nobody knows the card', async () => {
    setCard('bench', threeBoxes())
    await heard()
    const busy = pictureOf('bench', 0, look)
    expect(freeEngines()).toBe(1)
    const shown = await sharedPictureOf('bench', 1, look, new Bands())
    expect(shown).toMatchObject({ engines: 1 })
    await busy
    await sharedPictureOf('unknown', 2, look, new Bands())
    expect(engines().flatMap(({ rendered }) => rendered.map(({ look: { region } }) => region))).toEqual([
      ...[undefined, undefined, undefined],
    ])
  })
})
