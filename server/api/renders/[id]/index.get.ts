/** A render with all that its checks found. */
export default route(async (event) => {
  const id = routeId(event)
  const [listed, { report }] = await Promise.all([findListed(id), findRender(id)])
  return { ...listed, report }
})
