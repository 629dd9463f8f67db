import { rename, rm } from 'node:fs/promises'
import { getQuery, getRouterParam } from 'h3'
import { nanoid } from 'nanoid'
import { segmentName } from '../../../../../renders/files'
import { beatRun, finishRun } from '../../../../../renders/queue/work-list'
import { DamagedFrames } from '../../../../../renders/packed-frame'
import { Segment } from '../../../../../renders/segment'
import { expectSpace } from '../../../../../renders/space'
import { runTrySchema, SEGMENT_HASH, segmentSchema } from '../../../../../renders/work/protocol'

/** Bytes of the largest segment: 24 frames of 8192 px a side hardly packed would be more, and are cut short by that. */
const LARGEST = 16 * 1024 ** 3

/** Takes the segment of a run from a worker elsewhere; `own` is false where the run is another's by now. */
export default programRoute(async (event) => {
  const { worker, attempt, hash } = expectSent(segmentSchema, getQuery(event))
  const number = Number(getRouterParam(event, 'index'))
  const run = expectSent(runTrySchema, { render: getRouterParam(event, 'render'), index: number, attempt })
  const database = useDatabase()
  await expectSpace(rendersPlace())
  // Nobody's segments are not taken in.
  if (!(await beatRun(database, worker, run, 0))) return { own: false }
  const half = renderPath(`${segmentName(run)}.${nanoid(6)}.part`)
  try {
    const found = await bodyFile(event, half, LARGEST, TOO_LARGE, SEGMENT_HASH)
    if (found !== hash) throw refusal(400, DAMAGED)
    await expectWhole(half)
    await rename(half, renderPath(segmentName(run)))
    const own = await finishRun(database, worker, run, segmentName(run))
    if (!own) await rm(renderPath(segmentName(run)), { force: true })
    return { own }
  } finally {
    await rm(half, { force: true })
  }
})

/** Refuses what is no segment, before anybody works with it. */
async function expectWhole(path: string): Promise<void> {
  try {
    await (await Segment.open(path)).close()
  } catch (error) {
    throw error instanceof DamagedFrames ? refusal(400, DAMAGED) : error
  }
}

const TOO_LARGE = {
  code: 'too-large',
  place: 'segment',
  message: 'The frames of this run are too large to be sent.',
  remedy: 'Render at a smaller size.',
}
const DAMAGED = {
  code: 'damaged',
  place: 'segment',
  message: 'The frames did not arrive as they were sent.',
  remedy: 'Send them again.',
}
