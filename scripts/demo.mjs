// `npm run demo`: from a fresh machine to a running application with the demo data, in one command.
import { chdir } from 'node:process'
import { fileURLToPath } from 'node:url'
import { needModules, needPackages } from './packages.mjs'

chdir(fileURLToPath(new URL('..', import.meta.url)))
const started = Date.now()
needPackages('postgresql', 'ffmpeg')
needModules()
const { buildApp } = await import('./build-app.mjs')
buildApp()
const { startStand } = await import('./stand.mjs')

let stand = null
let stopped = false
const stop = async () => {
  if (stopped) return
  stopped = true
  console.log('\nStopping')
  await stand?.stop()
  process.exit(0)
}
process.on('SIGINT', stop)
process.on('SIGTERM', stop)

stand = await startStand({ folder: '.wax/demo', port: process.env.PORT })
if (stopped) await stand.stop()
console.log(
  `\nWax Ribbon is at ${stand.address}   (ready after ${((Date.now() - started) / 1000).toFixed(1)} s; Ctrl-C stops everything)`,
)
