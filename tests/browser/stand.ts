import { rmSync } from 'node:fs'
import { startStand } from '../../scripts/stand.mjs'

/** The built application with a fresh database, for all browser tests together. */
export default async function standUp() {
  rmSync('.wax/test', { recursive: true, force: true })
  const stand = await startStand({ folder: '.wax/test' })
  process.env.WAX_ADDRESS = stand.address
  process.env.WAX_WORKER_PID = String(stand.workerId())
  return () => stand.stop()
}
