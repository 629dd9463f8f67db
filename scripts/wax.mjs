// The command line: builds what is older than its sources (a tenth of a second), then runs it.
import './build-kernels.mjs'
import { buildNode } from './build-node.mjs'

await buildNode()
await import('../.wax/node/wax.mjs')
