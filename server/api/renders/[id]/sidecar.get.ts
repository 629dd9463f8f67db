import { readFile } from 'node:fs/promises'
import { setHeader } from 'h3'
import { nameFrom } from '../../../../core/formats/deliveries/file-name'

/** What was made, from what, with the hashes of all frames: goes beside the files of a render. */
export default route(async (event) => {
  const { status, sidecar, name, options, take } = await findRender(routeId(event))
  const text = status === 'done' && sidecar ? await readFile(renderPath(sidecar), 'utf8').catch(() => null) : null
  if (text === null) throw notFound('sidecar')
  setHeader(event, 'content-type', 'application/json')
  setHeader(
    event,
    'content-disposition',
    attachment(`${nameFrom(options.name, { card: name, row: '', take })}.sidecar.json`),
  )
  return text
})
