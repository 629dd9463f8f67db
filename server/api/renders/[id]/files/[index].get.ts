import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { getRouterParam, sendStream, setHeader } from 'h3'

/** One of the files of a render, counted from 0. Only finished and checked ones are offered. */
export default route(async (event) => {
  const { name, stored, mediaType } = await finishedFile(routeId(event), Number(getRouterParam(event, 'index')))
  const path = renderPath(stored)
  const found = await stat(path).catch(() => null)
  if (!found) throw notFound('file')
  setHeader(event, 'content-type', mediaType)
  setHeader(event, 'content-length', found.size)
  setHeader(event, 'content-disposition', attachment(name))
  return sendStream(event, createReadStream(path))
})
