import type { SequenceSource } from '../core/frame/fetching'
import type { CardArchive } from '../server/archive/card-archive'
import type { SequenceAbout } from '../server/sequences/about'
import { sequencePicture } from '../server/sequences/pictures'
import { takeInFrom, takeInPath } from '../server/sequences/store'

/** Where the command line keeps the sequences that it has taken in: where the server does, in this folder. */
const storage = () => process.env.NUXT_STORAGE ?? '.wax/storage'

/** The pictures of a card's sequences: of those that came with it, and of the files or folders named on the command line. */
export async function allSequences(
  { sequences }: Pick<CardArchive, 'sequences'>,
  paths: readonly string[],
): Promise<SequenceSource> {
  for (const { fileName, writeTo } of sequences) await takeInFrom(storage(), writeTo, fileName)
  for (const path of paths) await takeInPath(storage(), path)
  return (id, index) => sequencePicture(storage(), id, index)
}

/** What is known of a sequence that a card file names by its path. */
export const sequenceNamed = (path: string): Promise<SequenceAbout> => takeInPath(storage(), path)
