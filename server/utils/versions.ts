import { desc, eq, sql } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import type { Database } from '../database/connect'
import { cards, versions } from '../database/schema'

/** A version is kept by itself when the last one is older than this. */
const PACE = 3 * 60_000
/** Versions kept by themselves for one card; named ones stay for ever. */
const MOST_KEPT = 200

/** The database, or a transaction in it. */
type Desk = Pick<Database, 'select' | 'insert' | 'execute'>

export const LISTED_VERSION = {
  id: versions.id,
  revision: versions.revision,
  name: versions.name,
  createdAt: versions.createdAt,
}

/** Keeps a card as it is now. The document goes from row to row: it is not read here. */
export async function keepVersion(desk: Desk, cardId: string, name: string | null) {
  const id = nanoid(12)
  await desk.execute(sql`
    insert into ${versions} (id, card_id, revision, name, document)
    select ${id}, id, revision, ${name}, document from ${cards} where id = ${cardId}`)
  const [row] = await desk.select(LISTED_VERSION).from(versions).where(eq(versions.id, id))
  return row!
}

/** Keeps what is about to be saved over, if enough time went by since the last version. */
export async function keepBefore(desk: Desk, cardId: string): Promise<void> {
  const [last] = await desk
    .select({ createdAt: versions.createdAt })
    .from(versions)
    .where(eq(versions.cardId, cardId))
    .orderBy(desc(versions.createdAt))
    .limit(1)
  if (last && Date.now() - last.createdAt.getTime() < PACE) return
  await keepVersion(desk, cardId, null)
  await desk.execute(sql`
    delete from versions where id in (
      select id from versions where card_id = ${cardId} and name is null order by created_at desc offset ${MOST_KEPT}
    )`)
}
