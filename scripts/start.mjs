// `npm start`: the built application with the data of those who use it, kept running until SIGTERM or Ctrl-C. It builds what is not built.
import { existsSync } from 'node:fs'
import { chdir } from 'node:process'
import { fileURLToPath } from 'node:url'
import { needModules, needPackages } from './packages.mjs'
import { environmentOf, readSettings } from './settings.mjs'

chdir(fileURLToPath(new URL('..', import.meta.url)))
const { values, faults } = readSettings(process.env)
if (faults.length > 0) {
  for (const fault of faults) console.error(fault)
  process.exit(2)
}
needPackages(...(values.DATABASE_URL ? ['ffmpeg'] : ['postgresql', 'ffmpeg']))
needModules()
if (!existsSync('.output/server/index.mjs')) {
  const { buildApp } = await import('./build-app.mjs')
  buildApp()
}
const { keepRunning } = await import('./stand.mjs')

let stand = null
let stopping = null
const stop = () => {
  stopping ??= (async () => {
    await stand?.stop()
    process.exit(0)
  })()
  return stopping
}
process.on('SIGINT', stop)
process.on('SIGTERM', stop)

stand = await keepRunning({
  cluster: values.DATABASE_URL ? { url: values.DATABASE_URL } : `${values.WAX_DATA}/database`,
  environment: (url) => ({ ...environmentOf(values, url), WAX_DEMO: 'no' }),
})
if (stopping) await stand.stop()
console.log(`Wax Ribbon is at ${stand.address}`)
