import './build-kernels.mjs'
import { buildNode } from './build-node.mjs'

await buildNode()
await import('../.wax/node/bench.mjs')
