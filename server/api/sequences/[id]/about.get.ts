/** What is known of a sequence, as it lies beside its file. */
export default route(async (event) => findSequence(routeId(event)))
