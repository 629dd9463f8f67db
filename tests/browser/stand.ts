import { buildNode } from '../../scripts/build-node.mjs'

/** What every process needs that runs browser tests, made once before they begin: each starts an application of its own. */
export default async function prepare(): Promise<void> {
  await buildNode()
}
