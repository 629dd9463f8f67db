import { seamReport } from '../../seam'
import type { ProofCheck } from '../definition'
import { good } from '../definition'
import { at } from './findings'

// What is only seen when the card runs.

export const MOTION_CHECKS: readonly ProofCheck[] = [
  {
    id: 'flashes',
    label: 'Flashes',
    how: 'General and red flashes within any second, over mid grey',
    source: 'WCAG 2.2, 2.3.1: three at the most',
    judge: ({ flashes: { general, red, from } }) => {
      const most = Math.max(general, red)
      const said = most === 0 ? 'none' : `${most} in a second at most`
      if (most <= 3) return good(said)
      return {
        verdict: 'bad',
        said,
        findings: [
          at(
            null,
            from,
            `${most} ${red > general ? 'red ' : ''}flashes within a second.`,
            'Flash less often, less brightly, or on a smaller part of the picture.',
          ),
        ],
      }
    },
  },
  {
    id: 'seam',
    label: 'Seam',
    how: 'What every moving value does from the last frame to the first, and how much the pictures differ',
    source: 'The loop’s own steps',
    judge: ({ card, ring }) => {
      const jumps = seamReport(card).filter(({ verdict }) => verdict === 'jump')
      const findings = jumps.map(({ address, label, why }) =>
        at(
          address.split('/')[0] ?? null,
          card.length - 1,
          `${label} jumps${why.length > 0 ? `: ${why.join('; ')}` : ''}.`,
          'Close the loop on the ribbon.',
        ),
      )
      const count = findings.length
      if (count > 0) return { verdict: 'bad', said: count === 1 ? '1 value jumps' : `${count} values jump`, findings }
      if (ring?.shows) {
        return {
          verdict: 'look',
          said: 'the picture jumps',
          findings: [
            at(
              null,
              card.length - 1,
              'The step over the seam is larger than any other.',
              'Look at the frames around the seam.',
            ),
          ],
        }
      }
      return good('closed')
    },
  },
]
