// `npm run worker -- --server URL --token TOKEN`: renders for a server on another machine.
import { spawn } from 'node:child_process'
import { chdir } from 'node:process'
import { fileURLToPath } from 'node:url'
import { needModules, needPackages } from './packages.mjs'

chdir(fileURLToPath(new URL('..', import.meta.url)))
needPackages('ffmpeg')
needModules()
await import('./build-kernels.mjs')
const { buildNode } = await import('./build-node.mjs')
await buildNode()
const child = spawn(process.execPath, ['.wax/node/far-worker.mjs', ...process.argv.slice(2)], { stdio: 'inherit' })
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal))
child.on('exit', (code) => process.exit(code ?? 1))
