import { readFile } from 'node:fs/promises'
import { resolve } from 'node:path'
import type { Card } from '../../core/card/schema'
import { fontsNamed } from '../../core/card/tree'
import { isShipped } from '../../core/type/families'

/** The bytes of a font, or null where it is not known. */
export type FontSource = (id: string) => Promise<Uint8Array | null>

/** Fonts that ship with the application; processes run in the project's folder. */
export const shippedFonts: FontSource = async (id) =>
  isShipped(id) ? readFile(resolve('public/fonts', `${id}.ttf`)) : null

/** The fonts that cards name, from the first source that has them. Missing ones are left to the engine to name. */
export async function fontsOf(
  cards: readonly Card[],
  sources: readonly FontSource[],
): Promise<Map<string, Uint8Array>> {
  const found = new Map<string, Uint8Array>()
  for (const id of new Set(cards.flatMap(fontsNamed))) {
    for (const source of sources) {
      const bytes = await source(id)
      if (bytes) {
        found.set(id, bytes)
        break
      }
    }
  }
  return found
}
