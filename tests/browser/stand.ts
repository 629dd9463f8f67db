import { rmSync } from 'node:fs'
import { startStand } from '../../scripts/stand.mjs'

/** The built application with a fresh database, for all browser tests together. */
export default async function standUp() {
  rmSync('.wax/test', { recursive: true, force: true })
  // A name that browsers look for on this machine (RFC 6761 §6.3), and that is not its own.
  process.env.NUXT_ALLOWED_HOSTS = 'press.localhost'
  const stand = await startStand({ folder: '.wax/test' })
  process.env.WAX_ADDRESS = stand.address
  process.env.WAX_WORKER_PID = String(stand.workerId())
  return () => stand.stop()
}
