import { nanoid } from 'nanoid'
import { ref } from 'vue'
import type { Fault } from '#core/errors'
import type { SaveRequest, SaveRoad, SaveState } from './document-saver'
import { DocumentSaver } from './document-saver'
import type { KeptEdit, KeptEdits } from './kept-edits'
import { BROWSER_EDITS, EditKeeper } from './kept-edits'

/** A document as the server gives it. */
export interface LoadedDocument<T> {
  id: string
  revision: number
  document: T
}

/** What is particular of a kind of document. */
export interface SavedKind<T> {
  /** Names its kind where what is not saved is kept. */
  kind: string
  load(id: string): Promise<LoadedDocument<T>>
  send(id: string, request: SaveRequest<T>): Promise<{ revision: number }>
  /** It is open from now on. */
  show(id: string, document: T): void
  /** A save has become a revision. */
  arrived?(id: string, revision: number): void
  /** Something of it was kept that was never saved; `document` is what the server has. */
  found?(kept: KeptEdit, document: T): void
}

/**
 * The document that is open, and its saving: one saver for each, which goes on by itself when another one is opened. What is not saved is
 * shown as it was left when it is opened again.
 */
export function useSavedDocument<T>(own: SavedKind<T>, edits: KeptEdits = BROWSER_EDITS) {
  const id = ref('')
  const revision = ref(0)
  const saveState = ref<SaveState>('saved')
  const saveFault = ref<Fault | null>(null)
  let saver: DocumentSaver<T> | null = null
  /** Savers of documents that were left before all had arrived. */
  const leaving = new Map<string, DocumentSaver<T>>()
  const keepers = new WeakMap<DocumentSaver<T>, EditKeeper>()
  /** Which opening is the last: the answers of earlier ones come too late. */
  let opening = 0

  const road: SaveRoad<T> = {
    send: (to, request) => own.send(to, request),
    newId: () => nanoid(16),
    later: (ms, work) => {
      const timer = setTimeout(work, ms)
      return () => clearTimeout(timer)
    },
  }
  const placeOf = (one: string) => `${own.kind} ${one}`

  async function open(wanted: string) {
    const mine = ++opening
    park()
    // What was not saved when it was left goes first.
    const kept = leaving.get(wanted)
    await kept?.flush()
    if (kept?.hasUnsaved) {
      if (mine === opening) show(kept)
      return
    }
    const row = await own.load(wanted)
    if (mine !== opening) return
    show(saverOf(row))
    const unsaved = await edits.get(placeOf(row.id)).catch(() => null)
    if (unsaved && mine === opening && JSON.stringify(unsaved.document) !== JSON.stringify(row.document)) {
      own.found?.(unsaved, row.document)
    }
  }

  function saverOf({ id: of, revision: at, document }: LoadedDocument<T>): DocumentSaver<T> {
    const made = new DocumentSaver(of, at, document, road, (one, arrived) => {
      if (arrived) own.arrived?.(one.id, one.revision)
      keepers.get(one)?.follow(() => ({ document: one.document, revision: one.revision }), !one.hasUnsaved)
      if (one === saver) follow(one)
      else if (!one.hasUnsaved) leaving.delete(one.id)
    })
    keepers.set(made, new EditKeeper(placeOf(of), edits))
    return made
  }

  /** Leaves the document that is open to its saver. */
  function park() {
    if (saver?.hasUnsaved) leaving.set(saver.id, saver)
    saver = null
  }

  function show(one: DocumentSaver<T>) {
    leaving.delete(one.id)
    saver = one
    id.value = one.id
    own.show(one.id, one.document)
    follow(one)
  }

  function follow(one: DocumentSaver<T>) {
    revision.value = one.revision
    saveState.value = one.state
    saveFault.value = one.fault
  }

  const change = (document: T) => saver?.change(document)

  /** Shows what the server has; what is not saved here is given up. */
  async function openNewer() {
    const row = await own.load(id.value)
    drop()
    show(saverOf(row))
  }

  /** Gives up what is not saved. */
  function drop() {
    if (saver) keepers.get(saver)?.drop()
    saver?.end()
    saver = null
  }

  /** From here on what is there is another document. */
  function become(row: LoadedDocument<T>) {
    drop()
    saver = saverOf(row)
    id.value = row.id
  }

  /** Saves what is there; true when all of it has arrived. */
  const save = async () => (await saver?.flush()) ?? true

  /** After a conflict: saves what is here over the newer one, which is kept as a version. */
  const takeOver = async () => (await saver?.takeOver()) ?? true

  /** A newer revision that is not this window's own; while an answer is out, that is not known. */
  const isNewer = (of: string, newest: number) =>
    of === id.value && saver !== null && !saver.isOpen && newest > saver.revision
  const isOpen = () => saver?.isOpen ?? false

  const hasUnsaved = () => (saver?.hasUnsaved ?? false) || leaving.size > 0

  return {
    ...{ id, revision, saveState, saveFault },
    ...{ open, park, change, openNewer, drop, become, save, takeOver, isNewer, isOpen, hasUnsaved },
  }
}
