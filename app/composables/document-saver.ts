import type { Fault } from '#core/errors'
import { ApiError, faultOf } from './api'

export type SaveState = 'saved' | 'waiting' | 'saving' | 'failed' | 'conflict'

/** One save. Its id makes it known again when its answer was lost and it is sent a second time. */
export interface SaveRequest<T> {
  save: string
  document: T
  /** The revision that it was made from. */
  revision: number
  /** Saves over a newer revision, which the server keeps as a version. */
  takeOver?: true
}

/** What a saver needs from outside. */
export interface SaveRoad<T> {
  /** Gives the revision that the save has become; throws an ApiError. */
  send(id: string, request: SaveRequest<T>): Promise<{ revision: number }>
  newId(): string
  /** Runs work after some milliseconds; gives a way to call it off. */
  later(ms: number, work: () => void): () => void
}

/** An edit is saved this long after it, whatever comes meanwhile. */
const SAVE_AFTER = 500
const FIRST_RETRY = 1000
const LONGEST_RETRY = 15_000

/**
 * Saves one document, one save at a time. An answer that got lost leaves open whether the save arrived: the same save is sent
 * again until that is known, and only then what came after it. Goes on by itself when another one is shown.
 */
export class DocumentSaver<T> {
  state: SaveState = 'saved'
  fault: Fault | null = null
  private saved: T
  private wanted: T
  /** Sent, and maybe not arrived. */
  private doubtful: SaveRequest<T> | null = null
  private attempt: Promise<void> | null = null
  private cancelTimer: (() => void) | null = null
  private retry = FIRST_RETRY
  private mayTakeOver = false
  private ended = false

  constructor(
    readonly id: string,
    /** The revision that the server has of it, as far as is known here. */
    public revision: number,
    document: T,
    private readonly road: SaveRoad<T>,
    /** Told after every change of state; `arrived` where a save has become a revision. */
    private readonly onChange: (saver: DocumentSaver<T>, arrived: boolean) => void = () => {},
  ) {
    this.saved = document
    this.wanted = document
  }

  get document(): T {
    return this.wanted
  }

  get hasUnsaved(): boolean {
    return !this.ended && (this.wanted !== this.saved || this.doubtful !== null)
  }

  /** True while it is open which revision the server has. */
  get isOpen(): boolean {
    return this.attempt !== null || this.doubtful !== null
  }

  /** What the hand sees from now on. */
  change(document: T): void {
    this.wanted = document
    if (this.state === 'conflict' || this.attempt) return
    this.tell(this.hasUnsaved ? 'waiting' : 'saved')
    if (this.hasUnsaved) this.schedule(SAVE_AFTER)
  }

  /** Saves what is there now. True when all has arrived; false where it could not: the state says why. */
  async flush(): Promise<boolean> {
    while (this.hasUnsaved && this.state !== 'conflict') {
      await this.run()
      if (this.state === 'failed') return false
    }
    return !this.hasUnsaved
  }

  /** After a conflict: saves what is here over the newer one. */
  async takeOver(): Promise<boolean> {
    await this.attempt
    this.mayTakeOver = true
    this.tell('waiting')
    await this.run()
    return this.flush()
  }

  /** What is not saved is given up; nothing is sent any more. */
  end(): void {
    this.ended = true
    this.cancelTimer?.()
  }

  private schedule(after: number): void {
    // The first edit sets the time: a drag without a rest is saved on its way.
    if (this.cancelTimer || this.attempt || this.ended) return
    this.cancelTimer = this.road.later(after, () => {
      this.cancelTimer = null
      void this.run()
    })
  }

  private run(): Promise<void> {
    this.cancelTimer?.()
    this.cancelTimer = null
    this.attempt ??= this.send().finally(() => {
      this.attempt = null
      // What was changed meanwhile, or could not be sent, has its turn.
      if (this.state === 'waiting') this.schedule(SAVE_AFTER)
      else if (this.state === 'failed' && this.doubtful) {
        this.schedule(this.retry)
        this.retry = Math.min(LONGEST_RETRY, this.retry * 1.6)
      }
    })
    return this.attempt
  }

  private async send(): Promise<void> {
    if (this.ended) return
    if (!this.hasUnsaved && !this.mayTakeOver) {
      this.tell('saved', null)
      return
    }
    const request = this.doubtful ?? this.request()
    this.doubtful = request
    this.tell('saving')
    try {
      const { revision } = await this.road.send(this.id, request)
      this.revision = revision
      this.saved = request.document
      this.retry = FIRST_RETRY
      this.finish()
      this.tell(this.wanted === this.saved ? 'saved' : 'waiting', null, true)
    } catch (error) {
      const status = error instanceof ApiError ? error.status : 0
      // Refused: it has not arrived, and would be refused again. Too late and too many say nothing of this save (RFC 9110 §15.5.9, RFC 6585 §4).
      const refused = status >= 400 && status < 500 && status !== 408 && status !== 429
      if (refused) this.finish()
      this.tell(status === 409 ? 'conflict' : 'failed', faultOf(error))
    }
  }

  private request(): SaveRequest<T> {
    const { wanted: document, revision } = this
    return { save: this.road.newId(), document, revision, ...(this.mayTakeOver ? { takeOver: true } : {}) }
  }

  private finish(): void {
    this.doubtful = null
    this.mayTakeOver = false
  }

  private tell(state: SaveState, fault: Fault | null = this.fault, arrived = false): void {
    this.state = state
    this.fault = fault
    this.onChange(this, arrived)
  }
}
