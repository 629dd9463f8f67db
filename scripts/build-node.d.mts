/** Bundles the programs that run in Node without the web server; files are replaced only when they changed. */
export function buildNode(): Promise<void>
