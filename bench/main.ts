import { writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { bandRows } from './bands'
import { blendRows, blurRows, distanceRows } from './kernels'
import { frameRows } from './frames'
import { motionRows } from './motion'
import type { Row } from './measure'
import { titleRows } from './title'

// `npm run bench [-- --json FILE]`: our work beside a general library's on the same data in the same run.

const { values } = parseArgs({ options: { json: { type: 'string' } } })

const rows: Row[] = []
for (const part of [blurRows, distanceRows, blendRows, motionRows, titleRows, frameRows, bandRows]) {
  for (const row of await part()) {
    rows.push(row)
    print(row)
  }
}
if (values.json) writeFileSync(values.json, `${JSON.stringify(rows, null, 2)}\n`)

function print({ name, ours_ms, peer, peer_ms, ratio }: Row) {
  const beside =
    peer_ms === null ? peer : `${peer_ms.toFixed(1).padStart(8)} ms  ×${ratio!.toFixed(2).padStart(6)}  ${peer}`
  console.log(`${name.padEnd(52)} ${ours_ms.toFixed(1).padStart(8)} ms ${beside}`)
}
