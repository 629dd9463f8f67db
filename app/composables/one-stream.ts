// A browser has six connections to a server over HTTP/1.1, for all of its tabs together. A stream of events keeps one of them as long as
// it is open: so there is one for all tabs, and none while nobody looks.

/** What a tab says: it looks at the events, it looks no more. Said again while it looks, so that a tab that fell is missed. */
export type TabSays = 'shown' | 'hidden'
/** What a tab is told: the stream is open, from now on nothing is missed; or one of its events. */
export type TabHears = { open: true } | { event: string; data: string }

export interface Tab {
  postMessage(message: TabHears): void
}

/** Milliseconds after which a tab says again that it looks. */
export const SAID_AGAIN = 20_000
/** Milliseconds after which a tab that says nothing is gone. */
const GONE_AFTER = 3 * SAID_AGAIN

/** One stream for all tabs that look. */
export class OneStream {
  /** Tabs that look, with the moment at which each said so last. */
  private readonly looking = new Map<Tab, number>()
  private source: EventSource | null = null

  constructor(
    private readonly begin: () => EventSource,
    private readonly events: readonly string[],
    private readonly now: () => number = () => Date.now(),
  ) {}

  says(tab: Tab, word: TabSays): void {
    const isNew = !this.looking.has(tab)
    if (word === 'hidden') this.looking.delete(tab)
    else this.looking.set(tab, this.now())
    if (word === 'shown' && isNew && this.source?.readyState === OPEN) tab.postMessage({ open: true })
    this.settle()
  }

  /** Forgets tabs that are gone. */
  sweep(): void {
    for (const [tab, at] of this.looking) if (this.now() - at > GONE_AFTER) this.looking.delete(tab)
    this.settle()
  }

  private settle(): void {
    if (this.looking.size === 0) {
      this.source?.close()
      this.source = null
    } else this.source ??= this.opened()
  }

  private opened(): EventSource {
    const source = this.begin()
    const tell = (message: TabHears) => {
      for (const tab of this.looking.keys()) tab.postMessage(message)
    }
    source.addEventListener('open', () => tell({ open: true }))
    for (const event of this.events) {
      source.addEventListener(event, ({ data }: MessageEvent<string>) => tell({ event, data }))
    }
    return source
  }
}

/** Of an EventSource (HTML §9.2.2). */
const OPEN = 1
