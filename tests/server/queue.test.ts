import { execFileSync, spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { eq, sql } from 'drizzle-orm'
import { expectOptions } from '#core/formats/deliveries/render-options'
import { cardTurns, renderRuns, renders } from '#server/database/schema'
import { cleanUp } from '#server/renders/cleaning'
import { rendersFolder } from '#server/renders/files'
import { performPress } from '#server/renders/press/press'
import { enqueue } from '#server/renders/queue/enqueue'
import { goOn } from '#server/renders/queue/go-on'
import { framesOfRun, runCount, runLength } from '#server/renders/queue/runs'
import { releaseSilent } from '#server/renders/queue/silent'
import type { RunTry } from '#server/renders/queue/work-list'
import { beatRun, failRun, finishRun, giveBack, makeAgain, takeRun } from '#server/renders/queue/work-list'
import { renderFile } from '#server/renders/render-file'
import { runsHere } from '#server/renders/work/here'
import { RunWorker } from '#server/renders/work/run-worker'
import { movingBox, ownDatabase } from '../support/database'

// The queue: who gets which run, what comes of workers that die, and that the file is the same whoever made it.

const own = ownDatabase('queue')
const { folder } = own
const storage = join(folder, 'storage')
beforeAll(() => {
  process.env.WAX_DISK_RESERVE = '0'
})

const card = movingBox()

const queued = (cardId: string, to = 40, document = card) => {
  const options = expectOptions({ format: to === 1 ? 'still' : 'png', from: 0, to })
  return enqueue(own.connection.database, { cardId, name: card.name, document, options, revision: 1 })
}
const rowOf = async (id: string) => (await own.connection.database.select().from(renders).where(eq(renders.id, id)))[0]!
const runsOf = (id: string) =>
  own.connection.database.select().from(renderRuns).where(eq(renderRuns.renderId, id)).orderBy(renderRuns.index)
const filesOf = (id: string, place = storage) =>
  readdirSync(rendersFolder(place))
    .filter((name) => name.startsWith(`${id}.`))
    .sort()
const press = (id: string, worker = 'presser', database = own.connection.database, place = storage) =>
  performPress({ database, storage: place, worker }, id)

/** A worker with so many lanes, as long as some work goes on. */
async function working<T>(work: () => Promise<T>, { lanes = 1, name = 'hand', place = storage } = {}): Promise<T> {
  const source = await runsHere(own.connection, place, { id: name, name, place: 'here', lanes })
  const worker = new RunWorker(source, lanes, () => {})
  const working = worker.work()
  try {
    return await work()
  } finally {
    await worker.stop()
    await working
  }
}

/** Takes runs until none is left; gives their renders in their order. */
async function takenInOrder(worker: string, warm = false): Promise<string[]> {
  const taken: string[] = []
  for (;;) {
    const run = await takeRun(own.connection.database, { worker, warm: warm ? (taken.at(-1) ?? null) : null })
    if (!run) return taken
    taken.push(run.render)
  }
}
const emptied = () => own.connection.database.execute(sql`truncate ${renders}, ${cardTurns} cascade`)

describe('runs', () => {
  test('are all frames, each once, whatever their number', () => {
    for (const frames of [1, 3, 4, 5, 40, 150, 1000, 1537, 100_000]) {
      const shown = Array.from({ length: frames }, (_, i) => i * 2)
      const runs = Array.from({ length: runCount(frames) }, (_, i) => framesOfRun(shown, i))
      expect(runs.flat()).toEqual(shown)
      expect(runs.every(({ length }) => length > 0 && length <= runLength(frames))).toBe(true)
    }
  })
})

describe('who gets the next run', () => {
  test('what somebody waits for comes first, however late it was asked for', async () => {
    await emptied()
    await queued('long')
    const still = await queued('other', 1)
    expect((await takeRun(own.connection.database, { worker: 'w', warm: null }))?.render).toBe(still)
  })

  test('two cards share the worker by frames, and one with many renders has no more than one with a single one', async () => {
    await emptied()
    const card200 = { ...card, length: 200 }
    const [a1, a2] = [await queued('a', 200, card200), await queued('a', 200, card200)]
    const b = await queued('b', 200, card200)
    const order = await takenInOrder('w', true)
    const half = order.slice(0, order.length / 2)
    const share = half.filter((id) => id === b).length / half.length
    expect(share).toBeGreaterThan(0.4)
    expect(share).toBeLessThan(0.6)
    // The second render of a card waits for the first one.
    expect(order.indexOf(a2)).toBeGreaterThan(order.lastIndexOf(a1))
    // Taking turns, not after each run: engines stay warm for some frames.
    const changes = order.filter((id, i) => i > 0 && id !== order[i - 1]).length
    expect(changes).toBeLessThan(20)
  })

  test('a card that comes late neither waits for all others nor do they wait for it', async () => {
    await emptied()
    const long = await queued('a', 200, { ...card, length: 200 })
    for (let i = 0; i < 20; i++) await takeRun(own.connection.database, { worker: 'w', warm: long })
    const late = await queued('b', 200, { ...card, length: 200 })
    const order = await takenInOrder('w', true)
    const [first, second] = [order.slice(0, 24), order.slice(24, 48)]
    for (const part of [first, second]) expect(new Set(part)).toEqual(new Set([long, late]))
  })

  test('no run is given twice, however many ask at once', async () => {
    await emptied()
    await queued('a', 40)
    const runs = await Promise.all(
      Array.from({ length: 12 }, (_, i) => takeRun(own.connection.database, { worker: `w${i}`, warm: null })),
    )
    const indices = runs.flatMap((run) => run?.index ?? [])
    expect(new Set(indices).size).toBe(indices.length)
    expect(indices.length).toBe(runCount(40))
  })
})

describe('a render', () => {
  test('by two workers is the same file as by one process; nothing but it stays', async () => {
    await emptied()
    const id = await queued('c')
    await working(() => working(() => press(id), { name: 'second' }), { name: 'first', lanes: 2 })
    const row = await rowOf(id)
    expect([row.status, row.fault, row.report?.passed]).toEqual(['done', null, true])
    expect(filesOf(id)).toEqual([`${id}.1.file.zip`, `${id}.1.sidecar.json`, `${id}.1.small.webp`])
    const alone = join(folder, 'alone.zip')
    const { made } = await renderFile({
      ...{ card, fonts: new Map(), options: { format: 'png', from: 0, to: 40 } },
      ...{ paths: [alone], stem: 'two-workers', threads: 1 },
    })
    const sidecar = JSON.parse(readFileSync(join(rendersFolder(storage), row.sidecar!), 'utf8')) as {
      frames: { made: string[] }
    }
    expect(sidecar.frames.made).toEqual(made)
    expect(row.files[0]!.bytes).toBe(statSync(alone).size)
  })

  test('makes runs again whose frames cannot be read any more', async () => {
    await emptied()
    const id = await queued('c')
    await working(async () => {
      await until(async () => (await runsOf(id)).every(({ state }) => state === 'done'))
    })
    const [first, second] = await runsOf(id)
    truncateSync(join(rendersFolder(storage), first!.segment!), 3000)
    rmSync(join(rendersFolder(storage), second!.segment!))
    await working(() => press(id))
    expect((await rowOf(id)).report?.passed).toBe(true)
    expect((await runsOf(id)).slice(0, 3).map(({ attempts }) => attempts)).toEqual([2, 2, 1])
    // What cannot be read however often it is made is given up.
    const { segment } = (await runsOf(id))[0]!
    await own.connection.database.update(renders).set({ status: 'running' }).where(eq(renders.id, id))
    await own.connection.database.update(renderRuns).set({ attempts: 3 }).where(eq(renderRuns.renderId, id))
    await makeAgain(own.connection.database, id, 0, segment!)
    expect(await rowOf(id)).toMatchObject({ status: 'failed', fault: { code: 'frames-lost' } })
  })

  test('whose presser comes back after another took it over is the other’s', async () => {
    const id = await queued('c')
    // No frame is made yet: both wait.
    const first = press(id, 'first')
    await until(async () => (await rowOf(id)).worker === 'first')
    await own.connection.database.update(renders).set({ worker: null }).where(eq(renders.id, id))
    const second = press(id, 'second')
    await until(async () => (await rowOf(id)).worker === 'second')
    await working(() => Promise.all([first, second]))
    const row = await rowOf(id)
    expect([row.status, row.attempts, row.files.map(({ stored }) => stored)]).toEqual(['done', 2, [`${id}.2.file.zip`]])
    expect(filesOf(id)).toEqual([`${id}.2.file.zip`, `${id}.2.sidecar.json`, `${id}.2.small.webp`])
  })

  test('that is finished and whose last answer was lost keeps its file', async () => {
    const { database } = own.connection
    let lost = 0
    const update = (table: typeof renders) => ({
      set: (values: Partial<typeof renders.$inferInsert>) => {
        const query = database.update(table).set(values)
        if (values.status !== 'done' || lost > 0) return query
        lost++
        return {
          where: (is: Parameters<typeof query.where>[0]) => ({
            returning: async () => {
              await query.where(is)
              throw new Error('ECONNRESET')
            },
          }),
        }
      },
    })
    const flaky = new Proxy(database, {
      get: (target, name) => (name === 'update' ? update : (Reflect.get(target, name) as unknown)),
    })
    const id = await queued('c')
    await working(() => press(id, 'presser', flaky))
    expect(lost).toBe(1)
    expect([(await rowOf(id)).status, filesOf(id)[0]]).toEqual(['done', `${id}.1.file.zip`])
  })

  test('that is cancelled leaves nothing, and its workers let it go', async () => {
    const id = await queued('c')
    const run = (await takeRun(own.connection.database, { worker: 'w', warm: null }))!
    const pressing = press(id)
    await until(async () => (await rowOf(id)).worker !== null)
    await own.connection.database.update(renders).set({ status: 'cancelled' }).where(eq(renders.id, id))
    expect(await beatRun(own.connection.database, 'w', run, 1)).toBe(false)
    expect(await finishRun(own.connection.database, 'w', run, 'name')).toBe(false)
    await pressing
    expect([(await rowOf(id)).status, filesOf(id)]).toEqual(['cancelled', []])
  })
})

describe('workers that die', () => {
  const silent = { heartbeat: new Date(Date.now() - 60_000) }

  test('lose the run that they were at, and no other; a come-back finds it another’s', async () => {
    await emptied()
    const id = await queued('c')
    const dead = (await takeRun(own.connection.database, { worker: 'dead', warm: null }))!
    const living = (await takeRun(own.connection.database, { worker: 'living', warm: null }))!
    await own.connection.database.update(renderRuns).set(silent).where(eq(renderRuns.worker, 'dead'))
    await releaseSilent(own.connection.database)
    expect((await runsOf(id)).slice(0, 2).map(({ state }) => state)).toEqual(['waiting', 'running'])
    const again = (await takeRun(own.connection.database, { worker: 'next', warm: null }))!
    expect(again).toEqual({ ...dead, attempt: 2 })
    expect(await finishRun(own.connection.database, 'dead', dead, 'of the dead')).toBe(false)
    expect(await finishRun(own.connection.database, 'next', again, 'of the next')).toBe(true)
    expect(await finishRun(own.connection.database, 'living', living, 'of the living')).toBe(true)
    expect((await runsOf(id)).slice(0, 2).map(({ segment }) => segment)).toEqual(['of the next', 'of the living'])
    // Handed in a second time, as when the answer was lost.
    expect(await finishRun(own.connection.database, 'next', again, 'of the next')).toBe(true)
  })

  test('three times at the same run end the render, with a clear word; going on begins there', async () => {
    await emptied()
    const id = await queued('c')
    let beside!: RunTry
    for (let attempt = 1; attempt <= 3; attempt++) {
      expect(await takeRun(own.connection.database, { worker: 'dead', warm: null })).toMatchObject({
        index: 0,
        attempt,
      })
      if (attempt === 1) beside = (await takeRun(own.connection.database, { worker: 'beside', warm: null }))!
      await own.connection.database.update(renderRuns).set(silent).where(eq(renderRuns.worker, 'dead'))
      await releaseSilent(own.connection.database)
    }
    expect(await rowOf(id)).toMatchObject({ status: 'failed', fault: { code: 'worker-lost' } })
    expect(await takeRun(own.connection.database, { worker: 'living', warm: null })).toBeNull()
    await goOn(own.connection.database, id)
    // Numbers of goes are never used twice: what was in work when it failed cannot be taken for what is in work now.
    for (const index of [0, 1]) {
      expect(await takeRun(own.connection.database, { worker: 'beside', warm: null })).toMatchObject({
        index,
        attempt: 4,
      })
    }
    expect(await finishRun(own.connection.database, 'beside', beside, 'late')).toBe(false)
    // One of an application that knew no runs is cut.
    await own.connection.database.delete(renderRuns).where(eq(renderRuns.renderId, id))
    await own.connection.database.update(renders).set({ status: 'failed' }).where(eq(renders.id, id))
    await goOn(own.connection.database, id)
    expect((await runsOf(id)).length).toBe(runCount(40))
  })

  test('while they press leave it to the next; a job that was lost is asked for again', async () => {
    await emptied()
    await own.connection.database.execute(sql`delete from graphile_worker._private_jobs`)
    const id = await queued('c')
    await own.connection.database.update(renders).set({ worker: 'dead', attempts: 1, ...silent })
    mkdirSync(rendersFolder(storage), { recursive: true })
    for (const name of ['1.file.part.zip', '1.small.webp']) {
      writeFileSync(join(rendersFolder(storage), `${id}.${name}`), 'half')
    }
    await own.connection.database.execute(sql`delete from graphile_worker._private_jobs`)
    await releaseSilent(own.connection.database)
    expect(await rowOf(id)).toMatchObject({ worker: null, status: 'queued' })
    const jobs = await own.connection.database.execute(sql`select key from graphile_worker.jobs`)
    expect(jobs.map(({ key }) => key)).toEqual([id])
    await working(() => press(id))
    expect((await rowOf(id)).status).toBe('done')
    expect(filesOf(id)).toEqual([`${id}.2.file.zip`, `${id}.2.sidecar.json`, `${id}.2.small.webp`])
  })

  test('or fail in passing, are followed by others; what would fail again ends the render at once', async () => {
    await emptied()
    const id = await queued('c')
    const fault = { code: 'render', place: 'render', message: 'It stopped.', remedy: 'Try again.' }
    const run = (await takeRun(own.connection.database, { worker: 'w', warm: null }))!
    await failRun(own.connection.database, 'w', run, fault, false)
    expect((await runsOf(id))[0]).toMatchObject({ state: 'waiting', attempts: 1 })
    const second = (await takeRun(own.connection.database, { worker: 'w', warm: null }))!
    await giveBack(own.connection.database, 'w', second)
    const third = (await takeRun(own.connection.database, { worker: 'w', warm: null }))!
    await failRun(own.connection.database, 'w', third, fault, true)
    expect(await rowOf(id)).toMatchObject({ status: 'failed', fault })
  })
})

const isRoot = process.getuid?.() === 0

;(isRoot ? test : test.skip)(
  'a disk that runs full ends the render with a clear word, and it goes on from there',
  async () => {
    await emptied()
    const place = join(folder, 'small')
    mkdirSync(rendersFolder(place), { recursive: true })
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=200k', 'tmpfs', rendersFolder(place)])
    try {
      const id = await queued('c')
      await working(() => press(id, 'presser', own.connection.database, place), { place })
      const row = await rowOf(id)
      expect(row).toMatchObject({ status: 'failed', fault: { code: 'disk-full' }, files: [] })
      const done = (await runsOf(id)).filter(({ state }) => state === 'done')
      expect(filesOf(id, place).filter((name) => !name.includes('.run-'))).toEqual([])
      expect(filesOf(id, place).filter((name) => name.includes('.run-')).length).toBe(done.length)
      execFileSync('mount', ['-o', 'remount,size=50m', rendersFolder(place)])
      await goOn(own.connection.database, id)
      await working(() => press(id, 'presser', own.connection.database, place), { place })
      expect(await rowOf(id)).toMatchObject({ status: 'done', report: { passed: true } })
      // What was done before was not done again.
      for (const { index } of done) expect((await runsOf(id))[index]!.attempts).toBe(1)
    } finally {
      execFileSync('umount', [rendersFolder(place)])
    }
  },
)

test('a render worker without threads of its own puts together what others made', async () => {
  await emptied()
  const program = spawn(process.execPath, ['.wax/node/render-worker.mjs'], {
    env: {
      ...process.env,
      ...{ NUXT_DATABASE_URL: own.url, NUXT_STORAGE: storage, WAX_RENDER_THREADS: '0', WAX_DISK_RESERVE: '0' },
    },
    stdio: 'ignore',
  })
  try {
    const id = await queued('elsewhere')
    await working(() => until(async () => (await rowOf(id)).status === 'done'), { name: 'elsewhere' })
    expect(new Set((await runsOf(id)).map(({ state }) => state))).toEqual(new Set(['done']))
    expect(filesOf(id).some((name) => name.endsWith('.zip'))).toBe(true)
  } finally {
    program.kill('SIGTERM')
    await once(program, 'exit')
  }
})

test('the rule of cleaning: old files go unless they are kept, and so do the frames of what failed', async () => {
  await emptied()
  const past = (days: number) => new Date(Date.now() - days * 24 * 60 * 60 * 1000)
  const [old, kept, recent, failed] = [await queued('a'), await queued('b'), await queued('c'), await queued('d')]
  const set = (id: string, values: Partial<typeof renders.$inferInsert>) =>
    own.connection.database.update(renders).set(values).where(eq(renders.id, id))
  await set(old, { status: 'done', finishedAt: past(31) })
  await set(kept, { status: 'done', finishedAt: past(31), kept: true })
  await set(recent, { status: 'done', finishedAt: past(29) })
  await set(failed, { status: 'failed', finishedAt: past(1.1) })
  for (const id of [old, kept, recent]) writeFileSync(join(rendersFolder(storage), `${id}.1.file.zip`), '')
  writeFileSync(join(rendersFolder(storage), `${failed}.run-0.1.frames`), '')
  await own.connection.database
    .update(renderRuns)
    .set({ state: 'done', segment: `${failed}.run-0.1.frames` })
    .where(sql`${renderRuns.renderId} = ${failed} and ${renderRuns.index} = 0`)
  await cleanUp(own.connection.database, storage)
  const left = await own.connection.database.select({ id: renders.id }).from(renders)
  expect(new Set(left.map(({ id }) => id))).toEqual(new Set([kept, recent, failed]))
  expect([old, kept, recent, failed].map((id) => filesOf(id).length)).toEqual([0, 1, 1, 0])
  expect((await runsOf(failed))[0]).toMatchObject({ state: 'waiting', segment: null })
})

async function until(is: () => Promise<boolean>): Promise<void> {
  for (const end = Date.now() + 20_000; Date.now() < end;) {
    if (await is()) return
    await new Promise((resolve) => setTimeout(resolve, 5))
  }
  throw new Error('It did not come to that.')
}
