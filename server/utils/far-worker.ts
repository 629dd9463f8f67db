import type { FarWorker } from '../renders/work/protocol'
import { engineHash } from '../renders/work/protocol'
import { seeWorker } from '../renders/queue/workers'

let own: Promise<string> | null = null

/** Notes that a worker elsewhere lives. One whose engine is another is refused: it might make other bytes. */
export async function welcome({ engine, ...worker }: FarWorker): Promise<void> {
  own ??= engineHash()
  if (engine !== (await own)) {
    throw refusal(409, {
      code: 'other-version',
      place: 'worker',
      message: 'This worker has another version of the engine than the server.',
      remedy: 'Bring both to the same version, then start the worker again.',
    })
  }
  await seeWorker(useDatabase(), { ...worker, place: 'elsewhere' })
}
