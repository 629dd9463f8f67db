/** One line of the table. `ratio` is the peer's time over ours: above 1 we are faster. */
export interface Row {
  name: string
  ours_ms: number
  peer: string
  peer_ms: number | null
  ratio: number | null
}

/** What takes longer than this is run fewer times. */
const ENOUGH_MS = 2000
const LEAST_RUNS = 3

/** Median of several runs after two that do not count, in milliseconds; `before` is not timed. */
export async function median(work: () => unknown, before: () => void = () => {}, runs = 9): Promise<number> {
  const times: number[] = []
  const end = performance.now() + ENOUGH_MS
  for (let i = -2; i < runs; i++) {
    if (times.length >= LEAST_RUNS && performance.now() > end) break
    before()
    const start = performance.now()
    await work()
    if (i >= 0) times.push(performance.now() - start)
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!
}

export async function beside(
  name: string,
  ours: () => unknown,
  peer: string,
  theirs: () => unknown,
  before?: () => void,
): Promise<Row> {
  const ours_ms = await median(ours, before)
  const peer_ms = await median(theirs)
  return { name, ours_ms, peer, peer_ms, ratio: peer_ms / ours_ms }
}
