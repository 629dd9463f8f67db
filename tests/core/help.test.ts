import { describe, expect, test } from '@jest/globals'
import { COATS } from '#core/coats/table'
import { readCard } from '#core/card/read'
import type { Card } from '#core/card/schema'
import { FINISHES } from '#core/finishes/table'
import { idleValues } from '#core/find/idle-values'
import { ranked } from '#core/find/ranked'
import { DELIVERIES } from '#core/formats/deliveries/table'
import { KEY_ACTIONS } from '#core/help/key-actions'
import { deliverySample } from '#core/help/delivery-sample'
import { findTopics, HELP_CHAPTERS, HELP_TOPICS } from '#core/help/topics'
import { MASKS } from '#core/masks/table'
import { PIECE_KINDS } from '#core/pieces/table'
import { STEPS } from '#core/steps/table'
import { typedFrame } from '#core/time/typed-frame'
import { STANDARD_EASINGS } from '#core/values/easing'
import { PEAKS } from '#core/values/easing-shapes'
import { PAINT_KINDS, PATTERNS } from '#core/values/paints'
import { MOTORS } from '#core/values/motors/table'
import { coat, emptyCard, engineWithFonts, solid, withType } from '../support/engine'

const engine = engineWithFonts()
const pixelsOf = (card: Card, frame: number) => Buffer.from(engine.render(card, frame, { scale: 0.5 }).pixels.slice())

describe('help', () => {
  test('every kind of every table has its topic, each with an address of its own', () => {
    const ids = HELP_TOPICS.map(({ id }) => id)
    const wanted = [
      ...COATS.map(({ kind }) => `coat-${kind}`),
      ...STEPS.map(({ kind }) => `step-${kind}`),
      ...FINISHES.map(({ kind }) => `finish-${kind}`),
      ...MASKS.map(({ kind }) => `mask-${kind}`),
      ...MOTORS.map(({ kind }) => `motor-${kind}`),
      ...Object.keys(PIECE_KINDS).map((kind) => `piece-${kind}`),
      ...DELIVERIES.map(({ format }) => `delivery-${format}`),
      ...PAINT_KINDS.filter(({ type }) => type !== 'texture').map(({ type }) => `paint-${type}`),
      ...PATTERNS.map(({ value }) => `texture-${value}`),
      ...STANDARD_EASINGS.map((easing) => `easing-${easing}`),
      ...PEAKS.map(({ id }) => `easing-${id}`),
    ]
    expect(wanted.filter((id) => !ids.includes(id))).toEqual([])
    expect(new Set(ids).size).toBe(ids.length)
    expect(HELP_CHAPTERS[0]).toBe('To begin with')
    const keys = HELP_TOPICS.find(({ id }) => id === 'keys')!
    expect(keys.values.map(({ says }) => says)).toEqual(Object.values(KEY_ACTIONS).map(({ does }) => `${does}.`))
  })

  const shown = HELP_TOPICS.flatMap((topic) => {
    const sample = topic.sample()
    return sample ? [[topic.id, sample] as const] : []
  })

  test.each(shown)('%s is shown by a card that differs from the one without it, or moves', (_, sample) => {
    const { before, after, plays } = sample
    expect(readCard(JSON.parse(JSON.stringify(after))).faults).toBeNull()
    const rest = pixelsOf(after, 0)
    if (before) expect(rest.equals(pixelsOf(before, 0))).toBe(false)
    else expect(rest.some((value, i) => i % 4 === 3 && value > 0)).toBe(true)
    const moments = [8, 16, 24].map((frame) => pixelsOf(after, frame))
    expect(moments.some((moment) => !moment.equals(rest))).toBe(plays)
  })

  test('every kind has a picture, but for what is brought in as a file', () => {
    const pictured = new Set(shown.map(([id]) => id))
    const kinds = HELP_TOPICS.map(({ id }) => id).filter((id) =>
      /^(coat|step|finish|mask|motor|letters|piece|paint|texture|easing|delivery)-/.test(id),
    )
    expect(kinds.filter((id) => !pictured.has(id))).toEqual([
      // One colour shows nothing, and what every piece has is told beside each of them.
      ...['paint-solid', 'texture-picture', 'piece-place', 'piece-picture', 'piece-sequence'],
    ])
  })

  describe('deliveries are shown as what they hand over', () => {
    const alphaOf = (card: Card) => engine.render(card, 0).pixels.filter((_, i) => i % 4 === 3)
    const samples = DELIVERIES.map((delivery) => [delivery.format, delivery.alpha, deliverySample(delivery)] as const)
    const half = 128

    test.each(samples)('%s, whose alpha is %s', (_, kept, { before, after, called }) => {
      const [one, other] = [alphaOf(before!), alphaOf(after)]
      expect(called).toHaveLength(2)
      if (kept === 'on or off') {
        // Clear or solid but for the rim of a shape, and solid where the card is more than half so.
        const between = other.filter((alpha) => alpha > 0 && alpha < 255).length
        const wrong = other.filter((alpha, i) => alpha >= half !== one[i]! >= half).length
        const ink = one.filter((alpha) => alpha >= half).length
        expect([between / ink < 0.03, wrong / ink < 0.01]).toEqual([true, true])
      } else if (kept === 'in a second file') {
        // Both are solid; the key is the alpha of the card that is handed over elsewhere.
        expect([one, other].every((plane) => plane.every((alpha) => alpha === 255))).toBe(true)
        const card = alphaOf(deliverySample({ alpha: 'straight' }).before!)
        const key = engine.render(after, 0).pixels.filter((_, i) => i % 4 === 0)
        expect(key.every((grey, i) => Math.abs(grey - card[i]!) <= 1)).toBe(true)
      } else {
        expect(one.some((alpha) => alpha > 0 && alpha < 255)).toBe(true)
        expect(other.every((alpha) => alpha === 255)).toBe(true)
      }
    })
  })

  test('what is called so comes first, then what says so; nonsense finds nothing', () => {
    expect(findTopics('glow')[0]!.id).toBe('coat-glow')
    expect(findTopics('prores')[0]!.id).toMatch(/^delivery-/)
    // A chapter is nearer than a word in passing.
    expect(
      findTopics('nothing show')
        .slice(0, 5)
        .map(({ id }) => id.split('-')[0]),
    ).toEqual(Array(5).fill('unseen'))
    expect(findTopics('qqq')).toEqual([])
    expect(findTopics(' ')).toHaveLength(HELP_TOPICS.length)
  })
})

describe('finding anything', () => {
  const things = ['Title · glow reach', 'Glow', 'Afterglow', 'Title', 'Sun'].map((label) => ({ label, about: 'light' }))
  const names = (text: string) => ranked(things, text).map(({ label }) => label)

  test('the name from its start, a word of it, any part of it, then what is said of it', () => {
    expect(names('glow')).toEqual(['Glow', 'Title · glow reach', 'Afterglow'])
    expect(names('reach title')).toEqual(['Title · glow reach'])
    expect(names('light')).toHaveLength(5)
    expect(names('')).toEqual([])
  })

  test('a value that changes nothing just now is known, with all that lies in it', () => {
    const idleWith = (join: string) =>
      idleValues(
        withType(emptyCard(320, 180, 10), { id: 'type', wording: 'Tide' } as never, {
          behind: [coat('stroke', 's', { join, paint: solid('#808080') })],
        }),
      )
    // A mitre limit is one of mitred corners; a place on a way one of type that has a way.
    const asked = ['type/s/limit', 'type/s/limit/motors/0/amount', 'type/s/width', 'type/start', 'type/wording']
    expect(asked.map(idleWith('round'))).toEqual([true, true, false, true, false])
    expect(asked.map(idleWith('mitre'))).toEqual([false, false, false, true, false])
  })

  test.each([
    ['75', 75],
    ['frame 12', 12],
    ['2.5 s', 62],
    ['3:07', 82],
    ['0:00', 0],
    ['500', null],
    ['soon', null],
    ['1:2:3', null],
  ])('the frame that %s means', (text, frame) => {
    expect(typedFrame(text, { numerator: 25, denominator: 1 }, 150)).toBe(frame)
  })
})
