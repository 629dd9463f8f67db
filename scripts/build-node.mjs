// Bundles the programs that run in Node without the web server: command line, render worker, its threads, and
// the migration. Packages stay in node_modules, but for those of hundreds of small files. Files are replaced only when they
// changed, so that a running worker is not disturbed by a second start.
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

/** Node opens each of their files by itself: half of the time in which a command begins. */
const OF_MANY_FILES = ['mathjs', 'zod']

const packages = {
  name: 'packages',
  setup({ onResolve }) {
    onResolve({ filter: /^[^./#]/ }, ({ path, importer, kind }) => {
      if (kind === 'entry-point' || importer.includes('/node_modules/')) return undefined
      return OF_MANY_FILES.includes(path.split('/')[0]) ? undefined : { path, external: true }
    })
  },
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
    plugins: [packages],
    alias: { '#core': `${root}core`, '#server': `${root}server` },
    sourcemap: 'linked',
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
