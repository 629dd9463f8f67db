import TestRunner from 'jest-runner'

/** Ends with the first file in which a test fails: `npm run mutate` wants to know no more, and Stryker lets Jest go on. */
export default class ToFirstFailure extends TestRunner {
  runTests(tests, watcher, options) {
    this.on('test-file-success', ([, { numFailingTests }]) => {
      if (numFailingTests > 0) watcher.setState({ interrupted: true })
    })
    return super.runTests(tests, watcher, options)
  }
}
