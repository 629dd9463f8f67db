import { resolve } from 'node:path'
import { eq } from 'drizzle-orm'
import { renders } from '../database/schema'
import { FILE_TYPES } from '../renders/file-types'
import type { RenderOptions } from '../renders/options'

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
  fileName: renders.fileName,
  fileBytes: renders.fileBytes,
  createdAt: renders.createdAt,
  startedAt: renders.startedAt,
  finishedAt: renders.finishedAt,
}

export async function findRender(id: string) {
  const [row] = await useDatabase().select().from(renders).where(eq(renders.id, id))
  if (!row) throw notFound('render')
  return row
}

/** Where the finished file of a render lies. */
export function renderPath(row: { id: string; options: RenderOptions }): string {
  return resolve(useRuntimeConfig().storage, 'renders', `${row.id}${FILE_TYPES[row.options.format].ending}`)
}
