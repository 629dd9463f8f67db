// Browser tests that passed only when they were tried again: each is mended, or stands in a short list with the reason why it may.

/** Tests that may need a second try, by file and title; the list is kept short. */
export const MAY_NEED_MORE = []

/** Browser tests of a suite, as Playwright reports it, that passed only when they were tried again. */
export function needingMore({ file, specs = [], suites = [] }) {
  const own = specs.filter(({ tests }) => tests.some(({ status }) => status === 'flaky'))
  return [...own.map(({ title }) => ({ file, title })), ...suites.flatMap(needingMore)]
}

/** What is said of those tests, and how many of them count as failed: all that are not listed. */
export function judged(again, listed = MAY_NEED_MORE) {
  const reasonOf = ({ file, title }) => listed.find((one) => one.file === file && one.title === title)?.reason
  const said = again.map((one) => `  ${one.file}: ${one.title}${reasonOf(one) ? ` (${reasonOf(one)})` : ''}`)
  return { said, failed: again.filter((one) => !reasonOf(one)).length }
}
