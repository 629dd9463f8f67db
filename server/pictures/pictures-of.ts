import type { Card } from '../../core/card/schema'
import { picturesOf } from '../../core/card/tree'
import type { Picture } from '../../core/paint/pictures'

/** A picture, or null where it is not known. */
export type PictureSource = (id: string) => Promise<Picture | null>

/** The pictures that cards name. Missing ones are left to the engine to name. */
export async function loadPictures(cards: readonly Card[], source: PictureSource): Promise<Map<string, Picture>> {
  const found = new Map<string, Picture>()
  for (const id of cards.flatMap(picturesOf)) {
    const picture = found.has(id) ? null : await source(id)
    if (picture) found.set(id, picture)
  }
  return found
}
