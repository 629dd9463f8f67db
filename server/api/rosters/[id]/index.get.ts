/** A roster with its rows. */
export default route(async (event) => findRoster(routeId(event)))
