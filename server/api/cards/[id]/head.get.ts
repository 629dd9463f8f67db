/** What is newest of a card, for windows that ask whether theirs still is. */
export default route(async (event) => {
  const { revision, updatedAt } = await findHead(routeId(event))
  return { revision, updatedAt }
})
