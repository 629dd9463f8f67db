import { isDeepStrictEqual } from 'node:util'
import { eq, isNotNull, sql } from 'drizzle-orm'
import { readCard } from '../../core/card/read'
import type { Seal } from '../../core/seals/schema'
import { sealSchema } from '../../core/seals/schema'
import type { Database } from './connect'
import { keepPictureFile } from '../pictures/files'
import { cards, pictures, seals } from './schema'

/**
 * Gives cards and seals that an older application saved the form of today, and lays the files of pictures from the database
 * into the storage. A document that cannot be read stays as it is.
 */
export async function bringUpToDate(database: Database, storage: string): Promise<void> {
  await movePictures(database, storage)
  // By the database's own text: what it gives back is compared with what would be written.
  for (const { id, text } of await database.select({ id: cards.id, text: sql<string>`document::text` }).from(cards)) {
    const stored: unknown = JSON.parse(text)
    const { card } = readCard(stored)
    if (card && !isDeepStrictEqual(card, stored)) {
      await database.update(cards).set({ document: card }).where(eq(cards.id, id))
    }
  }
  for (const { id, document } of await database.select({ id: seals.id, document: seals.document }).from(seals)) {
    const { data } = sealSchema.safeParse(document)
    if (data && !isDeepStrictEqual(data, document)) {
      // As in core/seals/read.ts: the schema's type is looser than the seal's.
      await database
        .update(seals)
        .set({ document: data as unknown as Seal })
        .where(eq(seals.id, id))
    }
  }
}

/** One picture after the other: together they may be larger than the memory. */
async function movePictures(database: Database, storage: string): Promise<void> {
  for (;;) {
    const [row] = await database
      .select({ id: pictures.id, file: pictures.file })
      .from(pictures)
      .where(isNotNull(pictures.file))
      .limit(1)
    if (!row?.file) return
    await keepPictureFile(storage, row.id, row.file)
    await database.update(pictures).set({ file: null }).where(eq(pictures.id, row.id))
  }
}
