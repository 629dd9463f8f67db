import { expect, test } from '@jest/globals'
import { judged, MAY_NEED_MORE, needingMore } from '../../scripts/tried-again.mjs'

// A browser test that passed only at its second try fails the run, unless it is listed with a reason.

const spec = (title: string, status: string) => ({ title, tests: [{ status }] })
const report = {
  file: 'a.spec.ts',
  specs: [spec('passes', 'expected'), spec('wavers', 'flaky')],
  suites: [{ file: 'a.spec.ts', specs: [spec('fails', 'unexpected'), spec('wavers deep down', 'flaky')] }],
}

test('those that needed a second try are found, however deep they stand', () => {
  expect(needingMore(report).map(({ title }) => title)).toEqual(['wavers', 'wavers deep down'])
  expect(needingMore({ file: 'b.spec.ts' })).toEqual([])
})

test('each counts as failed unless it is listed for that file, with a reason', () => {
  const again = needingMore(report)
  expect(judged(again, [])).toEqual({ said: ['  a.spec.ts: wavers', '  a.spec.ts: wavers deep down'], failed: 2 })
  const listed = [
    { file: 'a.spec.ts', title: 'wavers', reason: 'the browser itself' },
    { file: 'b.spec.ts', title: 'wavers deep down', reason: 'another file' },
  ]
  expect(judged(again, listed)).toMatchObject({
    said: ['  a.spec.ts: wavers (the browser itself)', expect.anything()],
    failed: 1,
  })
  expect(MAY_NEED_MORE.length).toBeLessThanOrEqual(3)
})
