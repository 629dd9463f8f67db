// `npm run mutate -- PATH…`: changes the code below a path on purpose, one place at a time (StrykerJS), and tells which changes no
// test notices. The tests that import a file of that path are run, but for those that take long; `--tests NAME` adds
// others by a part of their names.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { chdir } from 'node:process'
import { LONG } from '../tests/support/long-first.mjs'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'

chdir(fileURLToPath(new URL('..', import.meta.url)))

const { values, positionals } = parseArgs({
  options: { tests: { type: 'string', multiple: true, default: [] } },
  allowPositionals: true,
})
if (positionals.length === 0) {
  console.error('Say what is to be changed: npm run mutate -- core/values')
  process.exit(2)
}

/** All files of TypeScript below a path. */
const below = (path) =>
  statSync(path).isDirectory()
    ? readdirSync(path, { recursive: true }).flatMap((name) => (name.endsWith('.ts') ? [join(path, name)] : []))
    : [path]

const changed = positionals.flatMap(below)
const modules = new Set(changed.map((file) => file.replace(/\.ts$/, '')))

/** Where an import leads, from the folder of its file; null for what is no file of ours. */
function target(from, name) {
  if (name.startsWith('.')) return relative('.', join(from, name))
  const [, home, path] = /^(#core|#server|~)\/(.+)$/.exec(name) ?? []
  return home ? join({ '#core': 'core', '#server': 'server', '~': 'app' }[home], path) : null
}

const imports = (file) =>
  [...readFileSync(file, 'utf8').matchAll(/(?:from|import\()\s*'([^']+)'/g)].map(([, name]) =>
    target(dirname(file), name),
  )

const isLong = (file) => LONG.some((name) => file.endsWith(`${name}.test.ts`))
const tests = ['core', 'server', 'app', 'reference']
  .flatMap((room) => below(join('tests', room)))
  .filter((file) => file.endsWith('.test.ts'))
  .filter(
    (file) =>
      (!isLong(file) && imports(file).some((one) => modules.has(one))) ||
      values.tests.some((part) => file.includes(part)),
  )
if (tests.length === 0) {
  console.error(`No test imports a file of ${positionals.join(', ')}; name some with --tests.`)
  process.exit(2)
}
console.log(`${changed.length} files by ${tests.length} test files:\n${tests.map((file) => `  ${file}`).join('\n')}`)

const folder = '.wax/mutate'
mkdirSync(folder, { recursive: true })
writeFileSync(
  'jest.mutate.mjs',
  `import base from './jest.config.mjs'\nexport default { ...base, testMatch: ${JSON.stringify(tests.map((file) => `<rootDir>/${file}`))}, maxWorkers: 1 }\n`,
)
writeFileSync(
  join(folder, 'stryker.json'),
  JSON.stringify({
    testRunner: 'jest',
    plugins: ['@stryker-mutator/jest-runner'],
    mutate: changed,
    // What is said is proved by docs and by eye.
    mutator: { excludedMutations: ['StringLiteral'] },
    testRunnerNodeArgs: ['--experimental-vm-modules', '--no-warnings'],
    coverageAnalysis: 'perTest',
    dryRunTimeoutMinutes: 30,
    // The types go before a test runs.
    disableTypeChecks: false,
    // What runs once, as tables do, would need all tests for each change.
    ignoreStatic: true,
    concurrency: 2,
    jest: { configFile: 'jest.mutate.mjs', enableFindRelatedTests: false },
    reporters: ['clear-text', 'json'],
    jsonReporter: { fileName: join(folder, 'report.json') },
    clearTextReporter: { allowColor: false, logTests: false },
    ignorePatterns: ['docs', '.output', '.nuxt', '.data', 'tests/browser', 'test-results'],
    tempDirName: join(folder, 'sandbox'),
  }),
)
const { status } = spawnSync('node_modules/.bin/stryker', ['run', join(folder, 'stryker.json')], { stdio: 'inherit' })
process.exit(status ?? 1)
