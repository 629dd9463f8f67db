import { randomUUID } from 'node:crypto'
import { availableParallelism } from 'node:os'
import type { Task } from 'graphile-worker'
import { Logger, run } from 'graphile-worker'
import { connect } from '../database/connect'
import { cleanUp } from './cleaning'
import { logOf } from '../rim/log'
import { performPress } from './press/press'
import { releaseSilent } from './queue/silent'
import { forgetWorkers, machineName } from './queue/workers'
import { runsHere } from './work/here'
import { RunWorker } from './work/run-worker'

// The render worker of the machine that has the storage: it makes frames, and puts together what workers here and elsewhere made.

const connectionString = process.env.NUXT_DATABASE_URL
if (!connectionString) throw new Error('NUXT_DATABASE_URL names no database.')

const storage = process.env.NUXT_STORAGE ?? '.wax/storage'
/** Engines of its own; none where other machines make all frames. */
const lanes = Number(process.env.WAX_RENDER_THREADS ?? availableParallelism())
const worker = `worker-${randomUUID()}`
const log = logOf('worker')
const connection = connect(connectionString)
const { database, client } = connection

const quiet = new Logger(() => (level, message) => {
  // What graphile-worker says of a job may hold its values.
  if (level === 'error') log.error({ event: 'queue', message: message.split('\n')[0]!.slice(0, 200) })
})
// By the name that the queue locks the job with: whoever finds this worker dead unlocks it by that.
const press: Task = async (payload, { job }) =>
  performPress({ database, storage, worker: job.locked_by ?? worker }, (payload as { id: string }).id)
// Most of their time they wait for frames. What somebody waits for does not stand behind what takes long.
const queues = await Promise.all(
  [
    { tasks: { press }, atOnce: 6 },
    { tasks: { 'press-soon': press }, atOnce: 3 },
  ].map(({ tasks, atOnce }) =>
    run({
      connectionString,
      concurrency: atOnce,
      pollInterval: 2000,
      noHandleSignals: true,
      logger: quiet,
      taskList: tasks,
    }),
  ),
)
const runs = lanes > 0 ? await ownRuns() : null
void runs?.work()
log.info({ event: 'ready', lanes })

// What workers that were killed have left behind, any living one hands on.
const sweep = setInterval(() => void releaseSilent(database).catch(() => {}), 3000)
const clean = () => void cleanUp(database, storage).catch(() => {})
const cleaning = setInterval(clean, 60 * 60 * 1000)
clean()
void forgetWorkers(database).catch(() => {})

async function ownRuns(): Promise<RunWorker> {
  const source = await runsHere(connection, storage, { id: worker, name: machineName(), place: 'here', lanes })
  return new RunWorker(source, lanes, (trouble) => {
    if (trouble) log.error({ event: 'trouble', message: trouble })
  })
}

let stopping = false
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    if (stopping) return
    stopping = true
    clearInterval(sweep)
    clearInterval(cleaning)
    // Jobs in work are released at once; their half files are removed by the render itself or its next try.
    const late = setTimeout(() => process.exit(0), 3000)
    void Promise.allSettled([runs?.stop(), ...queues.map((queue) => queue.stop())])
      .then(() => client.end({ timeout: 1 }))
      .finally(() => {
        clearTimeout(late)
        process.exit(0)
      })
  })
}
await Promise.all(queues.map((queue) => queue.promise))
