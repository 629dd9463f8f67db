// Work on frames several at a time, whose outcome is taken in the order of the frames.

/** How many frames are in work at once, beside the one that is made. */
const AT_ONCE = 3

/** Takes work as long as there is room for it, and hands on what comes of it one after the other. */
export class Lanes<T> {
  private readonly waiting: Promise<void>[] = []
  private last: Promise<void> = Promise.resolve()

  constructor(private readonly take: (outcome: T) => Promise<void>) {}

  /** Resolves when there is room for more. Throws what earlier work threw. */
  async add(work: Promise<T>): Promise<void> {
    const before = this.last
    const taken = work.then(async (outcome) => {
      await before
      await this.take(outcome)
    })
    // Thrown where it is waited for.
    taken.catch(() => {})
    this.last = taken
    this.waiting.push(taken)
    if (this.waiting.length >= AT_ONCE) await this.waiting.shift()
  }

  /** Resolves when all has been handed on. */
  async end(): Promise<void> {
    await Promise.all(this.waiting.splice(0))
  }
}

/** Each of a list through some work, several at a time, given out in their order. */
export async function* inOrder<S, T>(
  source: AsyncIterable<S>,
  work: (one: S) => Promise<T>,
  atOnce = AT_ONCE,
): AsyncGenerator<T> {
  const ahead: Promise<T>[] = []
  for await (const one of source) {
    const outcome = work(one)
    outcome.catch(() => {})
    ahead.push(outcome)
    if (ahead.length >= atOnce) yield await ahead.shift()!
  }
  for (const outcome of ahead) yield await outcome
}
