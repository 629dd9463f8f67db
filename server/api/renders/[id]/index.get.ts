/** A render with all that its checks found. */
export default route(async (event) => {
  const id = routeId(event)
  // One after the other: what is done when it is listed has its report by then.
  const listed = await findListed(id)
  return { ...listed, report: (await findRender(id)).report }
})
