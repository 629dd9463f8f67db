import { appendFileSync } from 'node:fs'
import { afterEach, expect } from '@jest/globals'

// In the first run of `npm run mutate`: which file has which tests. Later runs open the files whose tests they want (`of-pattern.mjs`).

if (process.env['__STRYKER_ACTIVE_MUTANT__'] === undefined) {
  afterEach(() => {
    const { testPath, currentTestName } = expect.getState()
    appendFileSync('named-tests.txt', `${JSON.stringify([testPath, currentTestName])}\n`)
  })
}
