import { createReadStream } from 'node:fs'
import { getRouterParam, sendStream, setHeader } from 'h3'
import { frameAsRead } from '../../../../renders/edit/as-read'

/** A frame of the files of a render, counted from 0, as an edit reads it: a PNG file with straight alpha. */
export default route(async (event) => {
  const place = Number(getRouterParam(event, 'frame'))
  const render = await findDone(routeId(event))
  const path =
    Number.isInteger(place) && place >= 0 ? await frameAsRead(useRuntimeConfig().storage, render, place) : null
  if (!path) throw notFound('frame')
  setHeader(event, 'content-type', 'image/png')
  setHeader(event, 'cache-control', 'private, max-age=3600')
  return sendStream(event, createReadStream(path))
})
