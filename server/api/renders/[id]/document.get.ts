/** The card as it was when the render was asked for. */
export default route(async (event) => (await findRender(routeId(event))).document)
