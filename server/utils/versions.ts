import { desc, eq, sql } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import { cards, versions } from '../database/schema'

/** A version is kept by itself when the last one is older than this. */
const PACE = 3 * 60_000
/** Versions kept by themselves for one card; named ones stay for ever. */
const MOST_KEPT = 200

type Row = Pick<typeof cards.$inferSelect, 'id' | 'revision' | 'document'>

export const LISTED_VERSION = {
  id: versions.id,
  revision: versions.revision,
  name: versions.name,
  createdAt: versions.createdAt,
}

/** Keeps a card as it is now. */
export async function keepVersion({ id, revision, document }: Row, name: string | null) {
  const [row] = await useDatabase()
    .insert(versions)
    .values({ id: nanoid(12), cardId: id, revision, document, name })
    .returning(LISTED_VERSION)
  return row!
}

/** Keeps what is about to be saved over, if enough time went by since the last version. */
export async function keepBefore(row: Row): Promise<void> {
  const [last] = await useDatabase()
    .select({ createdAt: versions.createdAt })
    .from(versions)
    .where(eq(versions.cardId, row.id))
    .orderBy(desc(versions.createdAt))
    .limit(1)
  if (last && Date.now() - last.createdAt.getTime() < PACE) return
  await keepVersion(row, null)
  await useDatabase().execute(sql`
    delete from versions where id in (
      select id from versions where card_id = ${row.id} and name is null order by created_at desc offset ${MOST_KEPT}
    )`)
}
