import type { ListedRender } from '../renders/listed'

/** Milliseconds between two looks. */
const LOOK = 500

/** What is told: a render that is other than it was, or the id of one that is gone. */
export type RenderEvent = { render: ListedRender<Date> } | { gone: string }

const listeners = new Set<(event: RenderEvent) => void>()
/** What was told last of those that are in work. */
const told = new Map<string, string>()
let timer: NodeJS.Timeout | null = null

/** Tells of renders that change, until the function that is given back is called. All listeners share one look at the database. */
export function onRenderEvents(listener: (event: RenderEvent) => void): () => void {
  listeners.add(listener)
  timer ??= setInterval(() => void look().catch(() => {}), LOOK)
  return () => {
    listeners.delete(listener)
    if (listeners.size > 0 || !timer) return
    clearInterval(timer)
    timer = null
    told.clear()
  }
}

export function tellGone(id: string): void {
  told.delete(id)
  for (const tell of listeners) tell({ gone: id })
}

async function look(): Promise<void> {
  const rows = await lately()
  const now = new Set(rows.map(({ id }) => id))
  for (const id of told.keys()) if (!now.has(id)) told.delete(id)
  for (const render of rows) {
    const text = JSON.stringify(render)
    if (told.get(render.id) === text) continue
    told.set(render.id, text)
    for (const tell of listeners) tell({ render })
  }
}
