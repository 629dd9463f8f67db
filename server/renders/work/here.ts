import { rm } from 'node:fs/promises'
import { basename, join } from 'node:path'
import type { connect } from '../../database/connect'
import { rendersFolder, segmentName } from '../files'
import { WORK_CHANNEL } from '../queue/enqueue'
import { beatRun, failRun, finishRun, giveBack, takeRun, workOf } from '../queue/work-list'
import type { KnownWorker } from '../queue/workers'
import { seeWorker } from '../queue/workers'
import { expectSpace } from '../space'
import { assetsHere } from './assets'
import type { RunSource } from './run-source'

/** Milliseconds after which a worker looks by itself: what it was told of may have been lost. */
const LOOK = 2000

/** Runs from the database, their segments into the storage of this machine. */
export async function runsHere(
  { database, client }: ReturnType<typeof connect>,
  storage: string,
  worker: KnownWorker,
): Promise<RunSource> {
  const { id } = worker
  const waiting = new Set<() => void>()
  // Told again after every connection, so that nothing is missed while the database was away.
  const wake = () => {
    for (const go of waiting) go()
    waiting.clear()
  }
  await client.listen(WORK_CHANNEL, wake, wake)
  return {
    assets: assetsHere(database, storage),
    take: async (warm, known) => {
      const run = await takeRun(database, { worker: id, warm })
      if (!run) return null
      return { ...run, work: known.includes(run.render) ? null : await workOf(database, run.render) }
    },
    wait: () =>
      new Promise((go) => {
        const late = setTimeout(go, LOOK)
        waiting.add(() => {
          clearTimeout(late)
          go()
        })
      }),
    beat: async (runs) => {
      await seeWorker(database, worker)
      const own = await Promise.all(runs.map((run) => beatRun(database, id, run, run.framesDone)))
      return runs.filter((_, i) => !own[i])
    },
    place: async (run) => {
      const folder = rendersFolder(storage)
      await expectSpace(folder)
      return join(folder, segmentName(run))
    },
    finish: async (run, path) => {
      const isOwn = await finishRun(database, id, run, basename(path))
      if (!isOwn) await rm(path, { force: true })
      return isOwn
    },
    fail: (run, fault, isFinal) => failRun(database, id, run, fault, isFinal),
    giveBack: (run) => giveBack(database, id, run),
  }
}
