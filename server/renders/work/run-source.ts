import type { Fault } from '../../../core/errors'
import type { RenderWork } from '../plan'
import type { RunTry } from '../queue/work-list'
import type { Assets } from './assets'

/** A run that is taken. What its frames are made from comes along where the worker does not know it yet. */
export interface TakenRun extends RunTry {
  work: RenderWork | null
}

/** Where a worker gets its runs from and what it gives for them: the database itself, or the server. */
export interface RunSource {
  assets: Assets
  /** The next run; null where there is none. `warm`: the render of the lane's engine. `known`: those whose cards are here. */
  take(warm: string | null, known: readonly string[]): Promise<TakenRun | null>
  /** Resolves when there may be work, at the latest after a second or two. */
  wait(): Promise<void>
  /** Says that the worker lives, and how far its runs are; gives those that are not its any more. */
  beat(runs: readonly (RunTry & { framesDone: number })[]): Promise<RunTry[]>
  /** Where the segment of a run is to be written. */
  place(run: RunTry): Promise<string>
  /** Hands in a segment that is whole; false where the run is another's by now. */
  finish(run: RunTry, path: string): Promise<boolean>
  fail(run: RunTry, fault: Fault, isFinal: boolean): Promise<void>
  giveBack(run: RunTry): Promise<void>
}

export const isSame = (a: RunTry, b: RunTry): boolean =>
  a.render === b.render && a.index === b.index && a.attempt === b.attempt
