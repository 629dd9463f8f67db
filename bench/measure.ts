/** One line of the table. `ratio` is the peer's time over ours: above 1 we are faster. */
export interface Row {
  name: string
  ours_ms: number
  peer: string
  peer_ms: number | null
  ratio: number | null
}

/** Median of several runs after two that do not count, in milliseconds. */
export async function median(work: () => unknown, runs = 9): Promise<number> {
  const times: number[] = []
  for (let i = -2; i < runs; i++) {
    const start = performance.now()
    await work()
    if (i >= 0) times.push(performance.now() - start)
  }
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)]!
}

export async function beside(name: string, ours: () => unknown, peer: string, theirs: () => unknown): Promise<Row> {
  const ours_ms = await median(ours)
  const peer_ms = await median(theirs)
  return { name, ours_ms, peer, peer_ms, ratio: peer_ms / ours_ms }
}
