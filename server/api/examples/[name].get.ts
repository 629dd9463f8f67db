import { resolve } from 'node:path'
import { getRouterParam } from 'h3'
import { EXAMPLES } from '../../../core/formats/examples'

/** A file to try bringing in; processes run in the project's folder. */
export default route(async (event) => {
  const found = EXAMPLES.find(({ name }) => name === getRouterParam(event, 'name'))
  if (!found) throw notFound('example')
  return sendFile(event, resolve(found.path), 'example')
})
