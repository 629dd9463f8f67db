import type { RenderWork } from '../plan'
import { Lane } from './lane'
import type { RunSource } from './run-source'
import { isSame } from './run-source'

/** Milliseconds between two signs of life. */
const BEAT = 1000
/** Milliseconds without work after which engines let go of their memory. */
const REST = 30_000

/** Takes runs and does them, in so many lanes at once, until it is stopped. */
export class RunWorker {
  private readonly lanes: Lane[]
  private readonly heart: NodeJS.Timeout
  private stopping = false
  private stopped = () => {}
  private readonly ending: Promise<void> = new Promise((go) => (this.stopped = go))

  constructor(
    private readonly source: RunSource,
    lanes: number,
    /** What is said of a worker that cannot reach its source, and when it can again: null. */
    private readonly onTrouble: (trouble: string | null) => void,
  ) {
    this.lanes = Array.from({ length: lanes }, () => new Lane(source))
    this.heart = setInterval(() => void this.beat(), BEAT)
  }

  /** Ends when it is stopped. */
  async work(): Promise<void> {
    await this.beat()
    await Promise.all(this.lanes.map((lane) => this.along(lane)))
  }

  /** Gives back what is in work. */
  async stop(): Promise<void> {
    this.stopping = true
    this.stopped()
    clearInterval(this.heart)
    await Promise.all(this.lanes.map((lane) => lane.drop().catch(() => {})))
  }

  private async along(lane: Lane): Promise<void> {
    let last = Date.now()
    while (!this.stopping) {
      try {
        if (await lane.step(this.known())) {
          last = Date.now()
          continue
        }
        this.onTrouble(null)
        if (Date.now() - last > REST) await lane.rest()
        await Promise.race([this.source.wait(), this.ending])
      } catch (error) {
        if (this.stopping) return
        // Away for a moment: what it has goes on to be its own for some seconds.
        this.onTrouble(error instanceof Error ? error.message : String(error))
        await new Promise((go) => setTimeout(go, BEAT))
      }
    }
  }

  private known(): Map<string, RenderWork> {
    const warm = this.lanes.flatMap(({ known }) => known ?? [])
    return new Map(warm.map(({ render, work }) => [render, work]))
  }

  private async beat(): Promise<void> {
    const ongoing = this.lanes.flatMap((lane) => lane.ongoing ?? [])
    try {
      const lost = await this.source.beat(ongoing.map(({ run, framesDone }) => ({ ...run, framesDone })))
      for (const one of ongoing) if (lost.some((run) => isSame(run, one.run))) one.lost = true
    } catch {
      // Tried again with the next one.
    }
  }
}
