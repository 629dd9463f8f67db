import { describe, expect, test } from '@jest/globals'
import { readCard } from '#core/card/read'
import { Engine } from '#core/frame/engine'
import { WaxError } from '#core/errors'
import { motionFaults } from '#core/judge/motion-faults'
import { seamReport } from '#core/judge/seam'
import { SHIPPED_FONTS } from '#core/type/families'
import { fontBytes } from '../support/engine'
import { extremeCard } from '../support/extreme-card'
import { plain, supplied } from '../support/sequences'

// Valid cards that no hand would make. How many may be set from outside: a thousand take some minutes.
const CARDS = Number(process.env.WAX_EXTREMES ?? 150)
/** Less than what users have, so that what is too much is found soon. */
const MOST_WORK = 400 * 1024 * 1024
const LARGEST_MEMORY = 3 * 1024 * 1024 * 1024

function newEngine(): Engine {
  const engine = new Engine(undefined, undefined, { most: MOST_WORK })
  for (const { id } of SHIPPED_FONTS) engine.fonts.add(id, fontBytes(id))
  return engine
}

describe('valid cards with values at their ends', () => {
  test(
    'are rendered, or refused with a word that names a piece; the engine goes on, within its memory',
    () => {
      let engine = newEngine()
      const said = { rendered: 0, refused: 0 }
      for (let seed = 1; seed <= CARDS; seed++) {
        const { card, faults } = readCard(extremeCard(seed))
        if (faults) throw new Error(`${seed}: ${JSON.stringify(faults[0])}`)
        try {
          if (process.env.WAX_TELL) console.error(seed)
          const made = () => (engine.outlook(card, 3), engine.render(card, 3))
          const { pixels, width, height } = supplied(engine, (i) => plain(64, 48, [i % 256, 90, 40, 128]), made)
          expect(pixels).toHaveLength(width * height * 4)
          said.rendered++
        } catch (error) {
          if (!(error instanceof WaxError)) throw new Error(`card ${seed}`, { cause: error })
          const { code, place } = error.fault
          expect([seed, code]).toEqual([seed, expect.stringMatching(/^(too-much|out-of-memory)$/)])
          expect([seed, place]).toEqual([seed, expect.stringMatching(/^(pieces\[\d+\]|background)/)])
          said.refused++
        }
        expect(engine.memory).toBeLessThanOrEqual(LARGEST_MEMORY)
        if (engine.memory > 1e9) engine = newEngine()
        // What the bench tells of a card beside its picture.
        seamReport(card)
        motionFaults(card)
      }
      // Most are pictures; some are too much.
      expect(said.rendered).toBeGreaterThan(CARDS * 0.5)
      expect(said.refused).toBeGreaterThan(CARDS * 0.01)
    },
    CARDS * 2500,
  )
})
