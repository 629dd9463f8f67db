/** One line of the table. `ratio` is the peer's time over ours: above 1 we are faster. */
export interface Row {
  name: string
  ours_ms: number
  peer: string
  peer_ms: number | null
  ratio: number | null
}

/** Median of several runs after two that do not count, in milliseconds; `before` is not timed. */
export async function median(work: () => unknown, before: () => void = () => {}, runs = 9): Promise<number> {
  const times: number[] = []
  for (let i = -2; i < runs; i++) {
    before()
    const start = performance.now()
    await work()
    if (i >= 0) times.push(performance.now() - start)
  }
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)]!
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
