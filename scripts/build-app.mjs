// The production build, made again only when a file that goes into it has changed.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import './build-kernels.mjs'

const SOURCES = ['app', 'core', 'server', 'public', 'nuxt.config.ts', 'package-lock.json']
const STAMP = '.wax/build-stamp'

export function buildApp() {
  const stamp = stampOf(SOURCES)
  if (existsSync('.output/server/index.mjs') && existsSync(STAMP) && readFileSync(STAMP, 'utf8') === stamp) return
  console.log('Building the application')
  const env = { ...process.env, NUXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' }
  execFileSync('node_modules/.bin/nuxt', ['build', '--logLevel', 'silent'], {
    env,
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  mkdirSync('.wax', { recursive: true })
  writeFileSync(STAMP, stamp)
}

function stampOf(sources) {
  const hash = createHash('sha256')
  const add = (path) => {
    if (path.includes('/generated')) return
    hash.update(path)
    hash.update(readFileSync(path))
  }
  const walk = (path) => {
    const entries = readdirSync(path, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))
    for (const entry of entries) (entry.isDirectory() ? walk : add)(join(path, entry.name))
  }
  for (const source of sources) (source.includes('.') ? add : walk)(source)
  return hash.digest('hex')
}

if (process.argv[1]?.endsWith('build-app.mjs')) buildApp()
