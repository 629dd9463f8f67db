import { readSoFar } from '../../../../renders/edit/as-read'

/** How far the files of a render have been read as an edit reads them; reading begins with the first question. */
export default route(async (event) => readSoFar(useRuntimeConfig().storage, await findDone(routeId(event))))
