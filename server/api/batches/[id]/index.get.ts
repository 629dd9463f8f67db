/** A job of many files, with all of its renders in the order of their rows. */
export default route(async (event) => {
  const batch = await findBatch(routeId(event))
  return { ...batch, renders: await listOfBatch(batch.id) }
})
