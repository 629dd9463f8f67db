import { randomUUID } from 'node:crypto'
import { availableParallelism } from 'node:os'
import { Logger, run } from 'graphile-worker'
import { connect } from '../database/connect'
import { releaseStale } from './stale'
import { performRender } from './task'

// The render worker: a process of its own that takes renders from the queue, one at a time.

const connectionString = process.env.NUXT_DATABASE_URL
if (!connectionString) throw new Error('NUXT_DATABASE_URL names no database.')

const storage = process.env.NUXT_STORAGE ?? '.wax/storage'
const threads = Number(process.env.WAX_RENDER_THREADS) || availableParallelism()
const worker = `worker-${randomUUID()}`
const { database, client } = connect(connectionString)

const quiet = new Logger(() => (level, message) => {
  if (level === 'error') console.error(`render worker: ${message}`)
})
const runner = await run({
  connectionString,
  concurrency: 1,
  pollInterval: 2000,
  noHandleSignals: true,
  logger: quiet,
  taskList: {
    render: async (payload, helpers) => {
      const { id } = payload as { id: string }
      await performRender({ database, storage, threads, worker: helpers.job.locked_by ?? worker }, id)
    },
  },
})
console.log('render worker: ready')

// A worker that was killed leaves a render behind; any living one gives it back to the queue.
const sweep = setInterval(() => void releaseStale(database, storage).catch(() => {}), 3000)

let stopping = false
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    if (stopping) return
    stopping = true
    clearInterval(sweep)
    // Jobs in work are released at once; their half files are removed by the render itself or its next try.
    const late = setTimeout(() => process.exit(0), 3000)
    void Promise.resolve(runner.stop())
      .catch(() => {})
      .then(() => client.end({ timeout: 1 }))
      .finally(() => {
        clearTimeout(late)
        process.exit(0)
      })
  })
}
await runner.promise
