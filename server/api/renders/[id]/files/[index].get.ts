import { getRouterParam, setHeader } from 'h3'

/** One of the files of a render, counted from 0. Only finished and checked ones are offered. */
export default route(async (event) => {
  const { name, stored, mediaType } = await finishedFile(routeId(event), Number(getRouterParam(event, 'index')))
  setHeader(event, 'content-type', mediaType)
  setHeader(event, 'content-disposition', attachment(name))
  return sendFile(event, renderPath(stored), 'file')
})
