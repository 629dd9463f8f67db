import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { and, eq, ne } from 'drizzle-orm'
import { migrate } from 'drizzle-orm/postgres-js/migrator'
import { runMigrations } from 'graphile-worker'
import { expectCard } from '../core/card/read'
import type { Card } from '../core/card/schema'
import { expectOptions } from '../core/formats/deliveries/render-options'
import { startCluster } from '../scripts/cluster.mjs'
import { connect } from '../server/database/connect'
import { renderRuns, renders } from '../server/database/schema'
import { fontsOf, shippedFonts } from '../server/fonts/shipped'
import { rendersFolder } from '../server/renders/files'
import { renderFrames } from '../server/renders/frame-pool'
import { planFor } from '../server/renders/plan'
import { halfOf, pressFiles } from '../server/renders/press/press-files'
import { performPress } from '../server/renders/press/press'
import { enqueue } from '../server/renders/queue/enqueue'
import { renderFile } from '../server/renders/render-file'
import { Segment, SegmentWriter } from '../server/renders/segment'
import { runsHere } from '../server/renders/work/here'
import { RunWorker } from '../server/renders/work/run-worker'
import type { Row } from './measure'

const FRAMES = 150
const THREADS = 2
const FOLDER = resolve('.wax/bench-press')
const FORMATS = ['prores4444', 'png'] as const

/** Renders of the opening card: engine and encoder together against each alone, checks, and workers. */
export async function pressRows(): Promise<Row[]> {
  rmSync(FOLDER, { recursive: true, force: true })
  mkdirSync(FOLDER, { recursive: true })
  try {
    const card = expectCard(JSON.parse(readFileSync('demo/cards/01-opening.card.json', 'utf8')))
    const fonts = await fontsOf([card], [shippedFonts])
    const rows: Row[] = []
    for (const format of FORMATS) rows.push(...(await together(card, fonts, format)))
    return [...rows, ...(await workers(card))]
  } finally {
    rmSync(FOLDER, { recursive: true, force: true })
  }
}

async function together(card: Card, fonts: Map<string, Uint8Array>, format: (typeof FORMATS)[number]): Promise<Row[]> {
  const options = expectOptions({ format, from: 0, to: FRAMES })
  const path = join(FOLDER, format === 'png' ? 'x.zip' : 'x.mov')
  const planned = planFor({ document: card, options, programme: null }, { paths: [halfOf(path)], stem: 'x' })
  const { plan, shown } = planned
  const writer = await SegmentWriter.create(join(FOLDER, 'segment'))
  const started = performance.now()
  for await (const { pixels } of renderFrames({ card, fonts, form: plan.form, frames: shown, threads: THREADS })) {
    // What is kept for the check is part of making it.
    await writer.add(shown[writer.count]!, pixels)
  }
  const engine = performance.now() - started
  await writer.close()
  const segment = await Segment.open(join(FOLDER, 'segment'))
  const { width, height } = plan
  const alone = await pressFiles({
    ...planned,
    paths: [path],
    frames: {
      hash: (frame) => segment.hash(frame),
      pixels: (frame) => segment.pixels(frame),
      packed: (frame) => segment.packed(frame),
      settled: async () => {},
      picture: async (frame) => ({ width, height, bits: plan.form.bits, pixels: await segment.pixels(frame) }),
    },
  })
  await segment.close()
  const encoder = alone.report.seconds.render * 1000
  const { report } = await renderFile({ card, fonts, options, paths: [path], stem: 'x', threads: THREADS })
  const whole = report.seconds.render * 1000
  const check = report.seconds.check * 1000
  const slower = Math.max(engine, encoder)
  const name = `opening, ${FRAMES} frames, ${format}`
  return [
    {
      name: `${name}: rendered`,
      ours_ms: whole,
      peer: 'the slower of engine and encoder',
      peer_ms: slower,
      ratio: slower / whole,
    },
    {
      name: `${name}: engine alone`,
      ours_ms: engine,
      peer: 'encoder alone',
      peer_ms: encoder,
      ratio: encoder / engine,
    },
    { name: `${name}: checked`, ours_ms: check, peer: 'rendered', peer_ms: whole, ratio: whole / check },
  ]
}

/** The queue with one worker, and with two of one engine each: the frames alone, then with the encoder beside them. */
async function workers(card: Card): Promise<Row[]> {
  const cluster = await startCluster(join(FOLDER, 'database'))
  const connection = connect(cluster.url)
  const { database } = connection
  await migrate(database, { migrationsFolder: 'server/database/migrations' })
  await runMigrations({ connectionString: cluster.url })
  const storage = join(FOLDER, 'storage')
  mkdirSync(rendersFolder(storage), { recursive: true })
  const options = expectOptions({ format: 'prores4444', from: 0, to: FRAMES })
  /** Milliseconds from the first frame on. */
  const made = async (count: number, work: (id: string) => Promise<void>) => {
    const id = await enqueue(database, { cardId: 'c', name: card.name, document: card, options, revision: 1 })
    const hands = await Promise.all(
      Array.from({ length: count }, async (_, i) => {
        const worker = { id: `hand-${i}`, name: `hand ${i}`, place: 'here' as const, lanes: 1 }
        return new RunWorker(await runsHere(connection, storage, worker), 1, () => {})
      }),
    )
    const started = performance.now()
    const works = hands.map((hand) => hand.work())
    await work(id)
    const took = performance.now() - started
    await Promise.all(hands.map((hand) => hand.stop()))
    await Promise.all(works)
    const [row] = await database.delete(renders).where(eq(renders.id, id)).returning({ report: renders.report })
    return row!.report ? row!.report.seconds.render * 1000 : took
  }
  const press = (id: string) => performPress({ database, storage, worker: 'presser' }, id)
  const runsAlone = async (id: string) => {
    while ((await database.$count(renderRuns, and(eq(renderRuns.renderId, id), ne(renderRuns.state, 'done')))) > 0) {
      await new Promise((go) => setTimeout(go, 50))
    }
  }
  try {
    const rows: Row[] = []
    for (const [what, work] of [
      ['frames alone', runsAlone],
      ['with the encoder beside them', press],
    ] as const) {
      const one = await made(1, work)
      const two = await made(2, work)
      const name = `opening, ${FRAMES} frames by the queue, ${what}: 2 workers`
      rows.push({ name, ours_ms: two, peer: '1 worker', peer_ms: one, ratio: one / two })
    }
    return rows
  } finally {
    await connection.client.end()
    cluster.stop()
  }
}
