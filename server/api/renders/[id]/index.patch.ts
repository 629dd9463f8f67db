import { eq } from 'drizzle-orm'
import { renders } from '../../../database/schema'

/** Keeps a render for good (`kept`: true), or leaves it to the rule by which renders are cleaned away. */
export default route(async (event) => {
  const { id } = await findRender(routeId(event))
  const { kept } = await bodyJson(event)
  if (typeof kept !== 'boolean') {
    throw refusal(422, {
      code: 'not-a-switch',
      place: 'kept',
      message: 'Whether a render is kept is true or false.',
      remedy: 'Send {"kept": true}.',
    })
  }
  await useDatabase().update(renders).set({ kept }).where(eq(renders.id, id))
  return findListed(id)
})
