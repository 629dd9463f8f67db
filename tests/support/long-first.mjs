import Sequencer from '@jest/test-sequencer'

/** Files that take a quarter of a minute and more, the longest first; where nothing is known yet of how long each takes, Jest goes by their size. */
export const LONG = [
  'core/starting-points',
  'server/damaged',
  'server/queue',
  'server/cli',
  'core/extremes',
  'server/broken-sequences',
  'server/sequences',
  'core/finishes',
  'core/keeping',
  'core/proof',
  'core/steps',
  'core/brushes',
  'core/masks',
  'core/frame',
  'reference/outline',
  'core/mattes',
  'server/told-by-files',
  'core/coats',
  'core/scales',
  'core/json-schema',
  'core/proof-measures',
  'reference/alpha-distance',
  'reference/finishes',
  'reference/faults',
]

/** Long files begin first, so that no core waits for the last of them. */
export default class LongFirst extends Sequencer {
  sort(tests) {
    const rank = ({ path }) => {
      const at = LONG.findIndex((name) => path.endsWith(`/${name}.test.ts`))
      return at < 0 ? LONG.length : at
    }
    return super.sort(tests).sort((a, b) => rank(a) - rank(b))
  }
}
