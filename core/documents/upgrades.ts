import type { DocumentKind } from './document'

/** A document as it lies in a file: nothing is known of it but that it is an object. */
export type Stored = Readonly<Record<string, unknown>>

/**
 * One step on the way of an older document to today's: from a version to the next. What it gives is checked by the schema
 * like any other document, so that it may be handed anything, and leaves alone what it does not know.
 */
export interface Upgrade {
  from: number
  /** What is other in the next version, in one sentence: for the documents. */
  change: string
  upgrade(document: Stored): Stored
}

/** A document brought to today's version, step by step; as it is where its version is not known. */
export function upgraded({ version, upgrades }: Pick<DocumentKind, 'version' | 'upgrades'>, document: Stored): Stored {
  let now = document
  while (now.version !== version) {
    const step = upgrades.find(({ from }) => from === now.version)
    if (!step) return now
    now = { ...step.upgrade(now), version: step.from + 1 }
  }
  return now
}
