declare module 'linebreak' {
  /** Walks through the places at which a text may be broken (UAX 14). */
  export default class LineBreaker {
    constructor(text: string)
    /** The next place, in UTF-16 units; null after the last one. */
    nextBreak(): { position: number; required: boolean } | null
  }
}
