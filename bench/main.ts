import { writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { bandRows } from './bands'
import { brushRows } from './brushes'
import { finishRows } from './finishes'
import { blendRows, blurRows, distanceRows } from './kernels'
import { frameRows } from './frames'
import { maskRows } from './masks'
import { motionRows } from './motion'
import { outlineRows } from './outlines'
import { pressRows } from './press'
import type { Row } from './measure'
import { sequenceRows } from './sequences'
import { titleRows } from './title'

// `npm run bench [-- --only PART] [-- --json FILE]`: our work beside a general library's on the same data in the same run.

const PARTS: Record<string, () => Promise<Row[]>> = {
  blur: blurRows,
  distance: distanceRows,
  blend: blendRows,
  finishes: finishRows,
  masks: maskRows,
  motion: motionRows,
  outlines: outlineRows,
  title: titleRows,
  frames: frameRows,
  bands: bandRows,
  brushes: brushRows,
  sequences: sequenceRows,
  press: pressRows,
}

const { values } = parseArgs({ options: { json: { type: 'string' }, only: { type: 'string' } } })
if (values.only && !PARTS[values.only]) throw new Error(`--only takes one of ${Object.keys(PARTS).join(', ')}.`)

const rows: Row[] = []
for (const [name, part] of Object.entries(PARTS)) {
  if (values.only && name !== values.only) continue
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
