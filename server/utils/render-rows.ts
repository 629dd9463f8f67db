import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import type { StoredFile } from '../database/schema'
import { renders } from '../database/schema'
import { rendersFolder } from '../renders/files'

/** A render as the press room lists it: everything but the document. */
export const LISTED_RENDER = {
  id: renders.id,
  cardId: renders.cardId,
  name: renders.name,
  options: renders.options,
  status: renders.status,
  framesTotal: renders.framesTotal,
  framesDone: renders.framesDone,
  attempts: renders.attempts,
  fault: renders.fault,
  report: renders.report,
  files: renders.files,
  take: renders.take,
  revision: renders.revision,
  createdAt: renders.createdAt,
  startedAt: renders.startedAt,
  finishedAt: renders.finishedAt,
}

export async function findRender(id: string) {
  const [row] = await useDatabase().select().from(renders).where(eq(renders.id, id))
  if (!row) throw notFound('render')
  return row
}

/** Where a file of a render lies. */
export const renderPath = (stored: string): string => join(rendersFolder(useRuntimeConfig().storage), stored)

/** A finished and checked file of a render; throws 404 for any other. */
export async function finishedFile(id: string, index: number): Promise<StoredFile> {
  const { status, files } = await findRender(id)
  const file = status === 'done' ? files[index] : undefined
  if (!file) throw notFound('file')
  return file
}
