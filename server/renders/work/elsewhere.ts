import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { mkdir, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { segmentName } from '../files'
import { persist } from '../persist'
import type { RunTry } from '../queue/work-list'
import { isFinal } from '../render-fault'
import { expectSpace } from '../space'
import { assetsElsewhere } from './assets-elsewhere'
import type { FarWorker } from './protocol'
import { SEGMENT_HASH } from './protocol'
import type { RunSource, TakenRun } from './run-source'
import type { ServerCalls } from './server-calls'

/** Milliseconds between two questions for work. */
const ASK = 700

/** Runs from a server, their segments to it. `cache`: a folder of this machine. */
export function runsElsewhere(calls: ServerCalls, worker: FarWorker, cache: string): RunSource {
  const plain = ({ render, index, attempt }: RunTry) => ({ render, index, attempt })
  return {
    assets: assetsElsewhere(calls, cache),
    take: async (warm, known) =>
      (await calls.json<{ run: TakenRun | null }>('/work/take', { worker, warm, known })).run,
    wait: () => new Promise((go) => setTimeout(go, ASK)),
    beat: async (runs) => {
      const said = runs.map((run) => ({ ...plain(run), framesDone: run.framesDone }))
      return (await calls.json<{ lost: RunTry[] }>('/work/beat', { worker, runs: said })).lost
    },
    place: async (run) => {
      const folder = join(cache, 'segments')
      await mkdir(folder, { recursive: true })
      await expectSpace(folder)
      return join(folder, segmentName(run))
    },
    finish: async (run, path) => {
      const hash = createHash(SEGMENT_HASH)
      await pipeline(createReadStream(path), hash)
      const about = new URLSearchParams({ worker: worker.id, attempt: String(run.attempt), hash: hash.digest('hex') })
      const address = `/work/runs/${run.render}/${run.index}/segment?${about}`
      try {
        // Read anew by every try.
        const body = () => Readable.toWeb(createReadStream(path)) as unknown as BodyInit
        const send = () => calls.put<{ own: boolean }>(address, body())
        return (await persist(send, isFinal)).own
      } finally {
        await rm(path, { force: true })
      }
    },
    fail: async (run, fault, final) => {
      await calls.json('/work/fault', { worker: worker.id, run: plain(run), fault, isFinal: final })
    },
    giveBack: async (run) => {
      await calls.json('/work/give-back', { worker: worker.id, run: plain(run) })
    },
  }
}
