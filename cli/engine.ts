import { Engine } from '../core/frame/engine'
import { withPictures } from '../core/frame/fetching'
import { allFonts, allPictures } from './assets'
import type { OpenedCard } from './card-file'
import { allSequences } from './sequences'

/** Options by which commands name files that a card shows, beside it. */
export const FILE_OPTIONS = {
  font: { type: 'string', multiple: true, default: [] as string[] },
  picture: { type: 'string', multiple: true, default: [] as string[] },
  sequence: { type: 'string', multiple: true, default: [] as string[] },
} as const

export interface NamedFiles {
  font: readonly string[]
  picture: readonly string[]
  sequence: readonly string[]
}

/** An engine that has all that a card shows, and a way to let it work: what of sequences it asks for is fetched. */
export async function engineFor(
  opened: OpenedCard,
  { font, picture, sequence }: NamedFiles,
): Promise<<T>(work: (engine: Engine) => T) => Promise<T>> {
  const engine = new Engine()
  for (const [id, bytes] of await allFonts(opened, font)) engine.fonts.add(id, bytes)
  for (const [id, found] of await allPictures(opened, picture)) engine.pictures.add(id, found)
  const source = await allSequences(opened, sequence)
  return (work) => withPictures(engine.sequences, source, () => work(engine))
}
