/** The run of rows whose frames a render is made of; null where it is of one card. */
export default route(async (event) => {
  const { programme } = await findRender(routeId(event))
  return { programme: programme ?? null }
})
