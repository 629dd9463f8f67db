import type { NoticeAction } from '~/stores/notices'

/** A document with its history. */
interface Undoable {
  readonly past: readonly unknown[]
  undo(): void
}

/** The offer to take the step back that was just made; it stands as long as that is the last one. */
export function undoOffer(store: Undoable): NoticeAction {
  const { past } = store
  return { label: 'Undo', run: store.undo, stands: () => store.past === past }
}
