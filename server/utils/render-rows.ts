import { join } from 'node:path'
import { eq } from 'drizzle-orm'
import { deliveryOf } from '../../core/formats/deliveries'
import { renders } from '../database/schema'
import { rendersFolder } from '../renders/files'
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

/** Where the finished file of a render lies; before files were named by attempt, they were by render. */
export function renderPath(row: { id: string; stored: string | null; options: RenderOptions }): string {
  const name = row.stored ?? `${row.id}${deliveryOf(row.options.format).ending}`
  return join(rendersFolder(useRuntimeConfig().storage), name)
}
