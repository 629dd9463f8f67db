import { eq } from 'drizzle-orm'
import { pictures } from '../database/schema'

/** A picture that was brought; its file lies in the storage. Throws 404. */
export async function findPicture(id: string): Promise<{ id: string; fileName: string }> {
  const [row] = await useDatabase()
    .select({ id: pictures.id, fileName: pictures.fileName })
    .from(pictures)
    .where(eq(pictures.id, id))
  if (!row) throw notFound('picture')
  return row
}
