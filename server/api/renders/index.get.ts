/** All renders, the newest first. What the checks found of one is asked for by its id. */
export default route(async () => listRenders())
