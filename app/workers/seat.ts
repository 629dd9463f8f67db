import type { Fault } from '#core/errors'
import { WaxError } from '#core/errors'

/** A worker at work, and how it is ended. */
export interface Occupant<Face> {
  face: Face
  end(): void
}

interface Task<Face> {
  work(face: Face): Promise<unknown>
  resolve(value: unknown): void
  reject(reason: unknown): void
}

/**
 * A seat for a worker. A worker that died, or that is busy with one task for longer than the limit, is ended and another
 * takes its seat: the task that it hung on is refused, those that waited behind it are done by the new one.
 */
export class Seat<Face> {
  private occupant: Occupant<Face>
  private pending: Task<Face>[] = []
  private cancel: (() => void) | null = null

  constructor(
    private readonly begin: (seat: Seat<Face>) => Occupant<Face>,
    private readonly limit: number,
    /** Runs work after some milliseconds; gives a way to call it off. */
    private readonly later: (ms: number, work: () => void) => () => void,
  ) {
    this.occupant = begin(this)
  }

  get face(): Face {
    return this.occupant.face
  }

  /** Tasks that are not done. */
  get waiting(): number {
    return this.pending.length
  }

  /** Rejects with a WaxError where the worker was lost over this work. */
  run<T>(work: (face: Face) => Promise<T>): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      const task: Task<Face> = { work, resolve: resolve as Task<Face>['resolve'], reject }
      this.pending.push(task)
      this.hand(task)
      if (this.pending.length === 1) this.watch()
    })
  }

  /** Ends the worker: it died, or hangs. */
  replace(fault: Fault): void {
    const [guilty, ...others] = this.pending
    this.occupant.end()
    this.occupant = this.begin(this)
    this.pending = others
    for (const task of others) this.hand(task)
    this.watch()
    guilty?.reject(new WaxError(fault.code, fault.place, fault.message, fault.remedy))
  }

  private hand(task: Task<Face>): void {
    const { face } = this.occupant
    // Late words of a worker that was ended count no more.
    const done = (end: () => void) => {
      if (face !== this.occupant.face || !this.pending.includes(task)) return
      this.pending = this.pending.filter((other) => other !== task)
      this.watch()
      end()
    }
    task.work(face).then(
      (value) => done(() => task.resolve(value)),
      (reason) => done(() => task.reject(reason)),
    )
  }

  /** The limit runs anew for each task: workers do one after the other. */
  private watch(): void {
    this.cancel?.()
    this.cancel = this.pending.length > 0 ? this.later(this.limit, () => this.replace(TOO_SLOW)) : null
  }
}

const TOO_SLOW: Fault = {
  code: 'too-slow',
  place: 'engine',
  message: 'This picture takes too long and was given up.',
  remedy: 'Undo the last step, or make blurs, strokes, words or paths of this card smaller.',
}
