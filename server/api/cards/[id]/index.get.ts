export default route(async (event) => findCard(routeId(event)))
