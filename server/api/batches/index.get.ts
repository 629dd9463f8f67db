/** All jobs of many files, the newest first. */
export default route(() => listBatches())
