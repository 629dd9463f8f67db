/** Keeps the card as it is saved now, under a name. */
export default route(async (event) => {
  const body = await bodyJson(event)
  const name = typeof body.name === 'string' ? body.name.trim().slice(0, 120) : ''
  if (!name) {
    throw refusal(422, {
      code: 'no-name',
      place: 'name',
      message: 'The version has no name.',
      remedy: 'Say in a few words what it is.',
    })
  }
  const { id } = await findHead(routeId(event))
  return keepVersion(useDatabase(), id, name)
})
