import { randomUUID } from 'node:crypto'
import { availableParallelism } from 'node:os'
import { parseArgs } from 'node:util'
import { WaxError } from '../../core/errors'
import { machineName } from './queue/workers'
import { runsElsewhere } from './work/elsewhere'
import { engineHash } from './work/protocol'
import { RunWorker } from './work/run-worker'
import { ServerCalls } from './work/server-calls'

// A render worker on another machine: it needs the server's address and a token, and no folder of the server.

const USAGE = `Usage: npm run worker -- --server URL --token TOKEN [--threads N] [--cache FOLDER] [--name NAME]
The token is made in the press room, under Workers. --cache keeps fonts, pictures and sequences between starts.`

const { values } = parseArgs({
  options: {
    server: { type: 'string' },
    token: { type: 'string', default: process.env.WAX_TOKEN ?? '' },
    threads: { type: 'string' },
    cache: { type: 'string', default: '.wax/worker' },
    name: { type: 'string', default: machineName() },
  },
})
const lanes = values.threads === undefined ? availableParallelism() : Number(values.threads)
if (!values.server || !URL.canParse(values.server) || !values.token || !(Number.isInteger(lanes) && lanes >= 1)) {
  console.error(USAGE)
  process.exit(2)
}

const calls = new ServerCalls(values.server, values.token)
const worker = { id: `far-${randomUUID()}`, name: values.name.slice(0, 60), lanes, engine: await engineHash() }
const source = runsElsewhere(calls, worker, values.cache)

/** Waits until the server lets it in; ends where it never will. */
async function begin(): Promise<void> {
  for (let said = false; ;) {
    try {
      await source.beat([])
      return
    } catch (error) {
      if (error instanceof WaxError) {
        console.error(`${error.fault.message} ${error.fault.remedy}`)
        process.exit(1)
      }
      if (!said) console.error(`worker: the server at ${values.server} cannot be reached; it is tried again`)
      said = true
      await new Promise((go) => setTimeout(go, 1000))
    }
  }
}

await begin()
let trouble: string | null = null
const runs = new RunWorker(source, lanes, (now) => {
  if (now !== null && now !== trouble) console.error(`worker: ${now} It is tried again.`)
  if (now === null && trouble !== null) console.log('worker: the server is there again')
  trouble = now
})
console.log(`worker: ready, ${lanes} ${lanes === 1 ? 'thread' : 'threads'} for ${values.server}`)

let stopping = false
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    if (stopping) return
    stopping = true
    const late = setTimeout(() => process.exit(0), 3000)
    void runs.stop().finally(() => {
      clearTimeout(late)
      process.exit(0)
    })
  })
}
await runs.work()
