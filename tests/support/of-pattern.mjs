import Sequencer from '@jest/test-sequencer'
import { existsSync, readFileSync } from 'node:fs'

/** Jest opens every file to look for tests by a pattern of their names; for `npm run mutate` that would be nearly all of its time. */
export default class OfPattern extends Sequencer {
  constructor(options) {
    super(options)
    this.pattern = options.globalConfig.testNamePattern
  }

  sort(tests) {
    // The quickest first: what they find, the slow ones need not look for.
    const sorted = super.sort(tests).reverse()
    if (!this.pattern || !existsSync('named-tests.txt')) return sorted
    const wanted = new RegExp(this.pattern)
    const files = new Set(
      readFileSync('named-tests.txt', 'utf8')
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line))
        .flatMap(([file, name]) => (wanted.test(name) ? [file] : [])),
    )
    return sorted.filter(({ path }) => files.has(path))
  }
}
