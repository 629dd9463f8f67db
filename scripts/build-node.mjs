// Bundles the programs that run in Node without the web server: command line, render worker, its threads, and
// the migration. Packages stay in node_modules. Files are replaced only when they changed, so that a running
// worker is not disturbed by a second start.
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { basename } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const root = fileURLToPath(new URL('..', import.meta.url))
const target = `${root}.wax/node`

const PROGRAMS = {
  wax: 'cli/main.ts',
  'render-worker': 'server/renders/worker.ts',
  'far-worker': 'server/renders/far-worker.ts',
  'frame-thread': 'server/renders/thread.ts',
  'compare-thread': 'server/renders/compare-thread.ts',
  prepare: 'server/database/prepare.ts',
  bench: 'bench/main.ts',
}

export async function buildNode() {
  mkdirSync(target, { recursive: true })
  const { outputFiles } = await build({
    absWorkingDir: root,
    entryPoints: PROGRAMS,
    outdir: target,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    write: false,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    alias: { '#core': `${root}core`, '#server': `${root}server` },
    sourcemap: 'inline',
  })
  for (const { path, text } of outputFiles) {
    const file = `${target}/${basename(path)}`
    if (current(file) === text) continue
    writeFileSync(`${file}.${process.pid}`, text)
    renameSync(`${file}.${process.pid}`, file)
  }
}

function current(file) {
  try {
    return readFileSync(file, 'utf8')
  } catch {
    return ''
  }
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await buildNode()
