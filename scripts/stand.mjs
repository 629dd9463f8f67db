// Starts everything that a running application needs and keeps it running: database, migrations, web server, render worker. Used by
// `npm start`, and with the demo data by the demo, the browser tests and the screenshots.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { existsSync } from 'node:fs'
import { setTimeout as wait } from 'node:timers/promises'
import { buildNode } from './build-node.mjs'
import { freePort, startCluster } from './cluster.mjs'

/** With the demo data. `folder`: where database and files live. `port`: wished for the web server. */
export async function startStand({ folder, port, threads }) {
  const wished = String(port ?? (await freePort()))
  return keepRunning({
    cluster: `${folder}/database`,
    environment: (url) => ({
      NUXT_DATABASE_URL: url,
      NUXT_STORAGE: `${folder}/storage`,
      HOST: '127.0.0.1',
      PORT: wished,
      NODE_ENV: 'production',
      ...(threads ? { WAX_RENDER_THREADS: String(threads) } : {}),
    }),
  })
}

/** Milliseconds that programs have to end what they are at: saves, and giving renders back. */
const PATIENCE = 10_000

/**
 * `cluster`: the folder of a private one, or `{ url }` of a database that is there. `environment`: of all programs, by the address of the
 * database. Gives the address, the cluster, the render worker's process id and `stop`.
 */
export async function keepRunning({ cluster: where, environment }) {
  await buildNode()
  const cluster =
    typeof where === 'string' ? await startCluster(where) : { ...where, keep: async () => {}, stop: () => {} }
  const env = { ...process.env, ...environment(cluster.url) }
  const address = `http://${env.HOST === '0.0.0.0' ? '127.0.0.1' : env.HOST}:${env.PORT}`
  const children = new Set()
  let stopping = false

  const start = (file) => {
    const child = spawn(process.execPath, [file], { env, stdio: ['ignore', 'inherit', 'inherit'] })
    children.add(child)
    child.on('exit', () => children.delete(child))
    return child
  }
  /** Starts a process again when it ends by itself: a killed render worker is replaced within a second. */
  const keep = (file) => {
    const kept = { child: start(file) }
    const again = async (code, signal) => {
      if (stopping) return
      console.error(`${file} ended (${signal ?? code}); starting it again`)
      await wait(1000)
      if (stopping) return
      kept.child = start(file)
      kept.child.on('exit', again)
    }
    kept.child.on('exit', again)
    return kept
  }
  /** A database that was killed is started again within two seconds. */
  const watch = setInterval(() => {
    if (!stopping) cluster.keep().catch((error) => console.error(`database: ${error.message}`))
  }, 1500)
  const stop = async () => {
    if (stopping) return
    stopping = true
    clearInterval(watch)
    const ended = [...children].map((child) => once(child, 'exit'))
    for (const child of children) child.kill('SIGTERM')
    await Promise.race([Promise.all(ended), wait(PATIENCE, undefined, { ref: false })])
    for (const child of children) child.kill('SIGKILL')
    try {
      cluster.stop()
    } catch {
      // It is stopped already.
    }
  }

  try {
    const prepare = start('.wax/node/prepare.mjs')
    const [code] = await once(prepare, 'exit')
    if (code !== 0) throw new Error('The database could not be prepared.')
    if (!existsSync('.output/server/index.mjs')) throw new Error('The application is not built: npm run build.')
    keep('.output/server/index.mjs')
    // Without threads of its own too: what workers elsewhere made is put together where the storage is.
    const worker = keep('.wax/node/render-worker.mjs')
    await answering(`${address}/api/health`)
    return { address, cluster, workerId: () => worker.child.pid, stop }
  } catch (error) {
    await stop()
    throw error
  }
}

async function answering(url) {
  const until = Date.now() + 60_000
  while (Date.now() < until) {
    const well = await fetch(url).then(
      (response) => response.ok,
      () => false,
    )
    if (well) return
    await wait(100)
  }
  throw new Error('The server does not answer.')
}
