import { shallowRef } from 'vue'

/** A step that can be undone: what it is called, and what was before it (or, undone, after it). */
export interface HistoryStep<T> {
  label: string
  before: T
}

/** Edits with the same mark within this time are one step: a value dragged is one undo. */
const ONE_GESTURE = 900

/** What the history works on: what is there now, and a way to put something else in its place. */
export interface HistoryOf<T> {
  now(): T | null
  put(next: T): void
  /** Whether a hand is in the middle of something: it goes on with the same step however long it rests. */
  isHeld?(): boolean
}

/** Named steps of one document, undone and done again. */
export function useHistory<T>({ now, put, isHeld }: HistoryOf<T>) {
  const past = shallowRef<HistoryStep<T>[]>([])
  const future = shallowRef<HistoryStep<T>[]>([])
  let gesture = { mark: '', at: 0 }

  /** Changes the document as one named step. Edits with the same mark in quick succession are one step. */
  function edit(label: string, change: (document: T) => T, mark = '') {
    const before = now()
    if (before === null) return
    const after = change(before)
    if (after === before) return
    const at = Date.now()
    const goesOn =
      mark !== '' && gesture.mark === mark && (isHeld?.() || at - gesture.at < ONE_GESTURE) && past.value.length > 0
    if (!goesOn) past.value = [...past.value, { label, before }]
    gesture = { mark, at }
    future.value = []
    put(after)
  }

  /** Ends a gesture: the next edit is a step of its own. */
  function endStep() {
    gesture = { mark: '', at: 0 }
  }

  function travel(from: typeof past, to: typeof past) {
    const step = from.value.at(-1)
    const before = now()
    if (!step || before === null) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, { label: step.label, before }]
    endStep()
    put(step.before)
  }

  /** Of another document: nothing was done to it yet. */
  function begin() {
    past.value = []
    future.value = []
    endStep()
  }

  return { past, future, edit, endStep, begin, undo: () => travel(past, future), redo: () => travel(future, past) }
}
