interface Visitor {
  wanted(): boolean
  enter(): Promise<void>
  leave(): void
}

/**
 * Where work waits that is in no hurry, the first that came first. It waits in the page and not in the engines: what is in a
 * hurry meanwhile is next, and what nobody wants any more when its turn comes is never begun.
 */
export class WaitingRoom {
  private waiting: Visitor[] = []
  private within = 0

  /** `places`: how many pieces of work are under way at once. */
  constructor(private readonly places: number) {}

  /** Null where the work was not wanted any more. */
  take<T>(work: () => Promise<T>, wanted: () => boolean): Promise<T | null> {
    return new Promise<T | null>((resolve, reject) => {
      this.waiting.push({ wanted, enter: () => work().then(resolve, reject), leave: () => resolve(null) })
      this.next()
    })
  }

  private next(): void {
    while (this.within < this.places) {
      const visitor = this.waiting.shift()
      if (!visitor) return
      if (!visitor.wanted()) {
        visitor.leave()
        continue
      }
      this.within++
      void visitor.enter().then(() => {
        this.within--
        this.next()
      })
    }
  }
}
