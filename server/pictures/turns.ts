let last: Promise<unknown> = Promise.resolve()

/**
 * Does one piece of work at a time over all requests of the process, in the order in which they came: a picture of a few
 * kilobytes may take a gigabyte while it is decoded.
 */
export function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const mine = last.then(work)
  last = mine.catch(() => {})
  return mine
}
