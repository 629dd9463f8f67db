/** Bytes of bodies that lie in memory at once, of all requests together. */
export const BODY_ROOM = 192 * 1024 * 1024
/** Requests that wait for room; more are sent away. */
const MOST_WAITING = 64
/** Milliseconds that a request waits. */
const PATIENCE = 30_000

interface Waiting {
  bytes: number
  go: (given: boolean) => void
}

/**
 * Room for bodies, given out in the order in which they come: each of them is counted as large as it says, or as large as it may be, from
 * before it is read until its request is answered. Nobody else's upload can take the memory that the server lives on.
 */
export class BodyRoom {
  private taken = 0
  private readonly waiting: Waiting[] = []

  constructor(
    private readonly all = BODY_ROOM,
    private readonly patience = PATIENCE,
  ) {}

  /** Resolves with what gives the room back, once; with null where there is none in time. */
  async take(bytes: number): Promise<(() => void) | null> {
    // What is larger than all of it comes when it is alone.
    const wanted = Math.min(bytes, this.all)
    if (this.waiting.length > 0 || this.taken + wanted > this.all) {
      if (this.waiting.length >= MOST_WAITING || !(await this.line(wanted))) return null
    } else this.taken += wanted
    let isGiven = false
    return () => {
      if (isGiven) return
      isGiven = true
      this.taken -= wanted
      this.next()
    }
  }

  private line(bytes: number): Promise<boolean> {
    return new Promise((go) => {
      const mine: Waiting = { bytes, go }
      const late = setTimeout(() => {
        this.waiting.splice(this.waiting.indexOf(mine), 1)
        go(false)
        this.next()
      }, this.patience)
      mine.go = (given) => {
        clearTimeout(late)
        go(given)
      }
      this.waiting.push(mine)
    })
  }

  private next(): void {
    for (let first = this.waiting[0]; first && this.taken + first.bytes <= this.all; first = this.waiting[0]) {
      this.waiting.shift()
      this.taken += first.bytes
      first.go(true)
    }
  }
}
