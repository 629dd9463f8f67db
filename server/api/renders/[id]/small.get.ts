import { readFile } from 'node:fs/promises'
import { setHeader } from 'h3'

/** A small moving picture of a render, with transparency; while it goes on, a still one of how far it is. */
export default route(async (event) => {
  const { small, status } = await findRender(routeId(event))
  const picture = small && (await readFile(renderPath(small)).catch(() => null))
  if (!picture) throw notFound('picture')
  setHeader(event, 'content-type', 'image/webp')
  setHeader(event, 'cache-control', status === 'done' ? 'private, max-age=86400' : 'no-store')
  return picture
})
