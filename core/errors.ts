/** What is wrong, where, and what to do about it: the shape of every fault that reaches a person. */
export interface Fault {
  /** Stable word for programs, e.g. `unknown-coat`. */
  code: string
  /** Where: a place in the card (`pieces[0].coats.face[1].width`), a file name, an option. */
  place: string
  /** One sentence: what is wrong. */
  message: string
  /** One sentence: what to do. */
  remedy: string
}

/** The only error the core throws on purpose. */
export class WaxError extends Error {
  readonly fault: Fault

  constructor(code: string, place: string, message: string, remedy: string) {
    super(`${place}: ${message} ${remedy}`)
    this.name = 'WaxError'
    this.fault = { code, place, message, remedy }
  }
}
