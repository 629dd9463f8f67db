import { and, eq, isNull, sql } from 'drizzle-orm'
import type { H3Event } from 'h3'
import type { KnownPicture } from '../../core/rosters/kinds/definition'
import { expectRoster } from '../../core/rosters/roster'
import type { Roster } from '../../core/rosters/roster'
import { pictures, rosters } from '../database/schema'

/** A roster as the shelf lists it: everything but its document. */
export const LISTED_ROSTER = {
  id: rosters.id,
  name: rosters.name,
  cardId: rosters.cardId,
  revision: rosters.revision,
  rows: sql<number>`jsonb_array_length(${rosters.document} -> 'rows')`,
  columns: sql<string[]>`coalesce((select array_agg(c ->> 'name' order by i)
    from jsonb_array_elements(${rosters.document} -> 'columns') with ordinality as t(c, i)), '{}')`,
  updatedAt: rosters.updatedAt,
}

export async function findRoster(id: string) {
  const [row] = await useDatabase()
    .select()
    .from(rosters)
    .where(and(eq(rosters.id, id), isNull(rosters.deletedAt)))
  if (!row) throw notFound('roster')
  return row
}

/** The roster in a request's body, the card that it is filled into, and the revision that it was made from. */
export async function bodyRoster(
  event: H3Event,
): Promise<{ roster: Roster; cardId: string | null; revision: number | undefined; takeOver: boolean; save?: string }> {
  const { document, cardId, revision, takeOver, save } = await bodyJson(event)
  return {
    roster: expectRoster(document),
    cardId: typeof cardId === 'string' && cardId !== '' ? cardId.slice(0, 40) : null,
    revision: revisionIn(revision),
    takeOver: takeOver === true,
    save: saveIn(save),
  }
}

/** Pictures that were brought in, by their ids and by their file names, as they are and in small letters; of one name the newest. */
export async function picturesByName(): Promise<Record<string, KnownPicture>> {
  const rows = await useDatabase()
    .select({ id: pictures.id, fileName: pictures.fileName, width: pictures.width, height: pictures.height })
    .from(pictures)
    .orderBy(pictures.createdAt)
  const known: Record<string, KnownPicture> = {}
  for (const { id, fileName, width, height } of rows) {
    for (const name of [id, fileName, fileName.toLowerCase()]) known[name] = { id, width, height }
  }
  return known
}
