import type { DBSchema, IDBPDatabase } from 'idb'
import { openDB } from 'idb'

// What was done to a document and is not saved yet lies in the browser too, until the server has it: it outlives a tab that falls, a machine
// that is shut, and a token that is withdrawn. It belongs to this browser and this address, and is offered where the document is opened.

/** A document that was not saved. */
export interface KeptEdit {
  /** `card ID` or `roster ID`. */
  place: string
  document: unknown
  /** The revision that it was made from. */
  revision: number
  /** When it was kept, in milliseconds. */
  at: number
}

/** Where such documents are kept. */
export interface KeptEdits {
  put(edit: KeptEdit): Promise<void>
  get(place: string): Promise<KeptEdit | null>
  drop(place: string): Promise<void>
}

interface Stored extends DBSchema {
  edits: { key: string; value: KeptEdit }
}

/** Days after which nobody comes back for what was not saved. */
const KEPT_DAYS = 30
const DAY = 24 * 60 * 60 * 1000

let opened: Promise<IDBPDatabase<Stored>> | null = null

async function database(): Promise<IDBPDatabase<Stored>> {
  opened ??= openDB<Stored>('wax-unsaved', 1, {
    upgrade: (made) => void made.createObjectStore('edits', { keyPath: 'place' }),
  }).then(async (own) => {
    for (const { place, at } of await own.getAll('edits')) {
      if (Date.now() - at > KEPT_DAYS * DAY) await own.delete('edits', place)
    }
    return own
  })
  return opened
}

/** In the browser's own store. Where it has none, or no room, nothing is kept and all else goes on. */
export const BROWSER_EDITS: KeptEdits = {
  put: async (edit) => {
    await (await database()).put('edits', edit)
  },
  get: async (place) => (await (await database()).get('edits', place)) ?? null,
  drop: async (place) => (await database()).delete('edits', place),
}

/** Milliseconds after an edit at which it is kept: a drag is kept on its way, not at each of its steps. */
const KEEP_AFTER = 300

/** Keeps what is not saved of one document. */
export class EditKeeper {
  private timer: ReturnType<typeof setTimeout> | null = null
  /** One after the other: what was dropped does not come back by a write that was slower. */
  private last: Promise<unknown> = Promise.resolve()
  private isKept = false

  constructor(
    private readonly place: string,
    private readonly edits: KeptEdits,
  ) {}

  /** What is there now, and whether the server has all of it. */
  follow(now: () => { document: unknown; revision: number }, isSaved: boolean): void {
    if (isSaved) return this.drop()
    this.timer ??= setTimeout(() => {
      this.timer = null
      this.isKept = true
      this.queue(() => this.edits.put({ place: this.place, at: Date.now(), ...now() }))
    }, KEEP_AFTER)
  }

  /** The server has it, or it was given up. */
  drop(): void {
    if (this.timer) clearTimeout(this.timer)
    this.timer = null
    if (!this.isKept) return
    this.isKept = false
    this.queue(() => this.edits.drop(this.place))
  }

  private queue(work: () => Promise<void>): void {
    this.last = this.last.then(work).catch(() => {
      // A browser without room keeps nothing: the server is asked as before.
    })
  }
}
