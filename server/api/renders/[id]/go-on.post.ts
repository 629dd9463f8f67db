import { goOn } from '../../../renders/queue/go-on'
import { expectSpace } from '../../../renders/space'

/** Tries a render again that failed. The frames that are done are not made again. */
export default route(async (event) => {
  const id = routeId(event)
  await findRender(id)
  await expectSpace(rendersPlace())
  await goOn(useDatabase(), id)
  return findListed(id)
})
