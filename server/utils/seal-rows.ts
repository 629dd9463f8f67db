import { and, eq, isNull } from 'drizzle-orm'
import type { H3Event } from 'h3'
import { expectSeal } from '../../core/seals/read'
import type { Seal } from '../../core/seals/schema'
import { seals } from '../database/schema'

/** A seal as the shelf and the bench know it. */
export const LISTED_SEAL = {
  id: seals.id,
  name: seals.name,
  revision: seals.revision,
  updatedAt: seals.updatedAt,
  document: seals.document,
}

export async function findSeal(id: string) {
  const [row] = await useDatabase()
    .select(LISTED_SEAL)
    .from(seals)
    .where(and(eq(seals.id, id), isNull(seals.deletedAt)))
  if (!row) throw notFound('seal')
  return row
}

/** The seal in a request's body; a broken one is refused with its first fault. */
export async function bodySeal(event: H3Event): Promise<{ seal: Seal; revision: number | undefined }> {
  const { document, revision } = await bodyJson(event)
  return { seal: expectSeal(document), revision: revisionIn(revision) }
}
