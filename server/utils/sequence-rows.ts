import type { SequenceAbout } from '../sequences/about'
import { sequenceAbout } from '../sequences/store'

/** A sequence that was brought. Throws 404. */
export async function findSequence(id: string): Promise<SequenceAbout> {
  const about = await sequenceAbout(useRuntimeConfig().storage, id)
  if (!about) throw notFound('sequence')
  return about
}
