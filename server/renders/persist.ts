/** Longest wait between two tries, in milliseconds. */
const LONGEST = 30_000

/**
 * Does something that needs the database or the server, again until it is done: work that is finished must not be lost because
 * one of them is away for a while. Gives up after some minutes, or at once where `isOver` says so.
 */
export async function persist<T>(
  work: () => Promise<T>,
  isOver: (error: unknown) => boolean = () => false,
): Promise<T> {
  for (let wait = 250, tries = 0; ; wait = Math.min(LONGEST, wait * 2), tries++) {
    try {
      return await work()
    } catch (error) {
      if (isOver(error) || tries >= TRIES) throw error
      await new Promise((go) => setTimeout(go, wait))
    }
  }
}

/** About five minutes. */
const TRIES = 16
