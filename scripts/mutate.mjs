// `npm run mutate -- PATH…`: changes the code below a path on purpose, one place at a time (StrykerJS), and tells which changes no
// test notices. The tests that import a file of that path are run, but for those that take long; `--tests NAME` adds
// others by a part of their names, `--only NAME` takes none but those that have a part of theirs (where all tests import a
// path, the score is what these few see), `--every 10` takes a sample: the changes within every tenth line.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join, relative, resolve } from 'node:path'
import { chdir } from 'node:process'
import { LONG } from '../tests/support/long-first.mjs'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'

chdir(fileURLToPath(new URL('..', import.meta.url)))

const { values, positionals } = parseArgs({
  options: {
    tests: { type: 'string', multiple: true, default: [] },
    only: { type: 'string', multiple: true, default: [] },
    every: { type: 'string', default: '1' },
  },
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
const every = Number(values.every)
if (!Number.isInteger(every) || every < 1) {
  console.error('--every takes a whole number from 1: every which line is changed.')
  process.exit(2)
}
/** StrykerJS takes brackets, as routes have them in their names, for a pattern. */
const escaped = (file) => file.replace(/[[\]]/g, '\\$&')
/**
 * The places to change: files, or lines of them, counted on from file to file so that short ones have their share. A pattern takes no
 * lines: of files with brackets in their names some are taken whole.
 */
function places() {
  if (every === 1) return changed.map(escaped)
  let line = 0
  return changed.flatMap((file, index) =>
    escaped(file) !== file
      ? index % every === 0
        ? [escaped(file)]
        : []
      : readFileSync(file, 'utf8')
          .split('\n')
          .flatMap((_, at) => (++line % every === 0 ? [`${file}:${at + 1}-${at + 1}`] : [])),
  )
}
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

// A database begun for each change takes longer than all the rest, and the core knows nothing of it.
const ofServer = changed.some((file) => file.startsWith('server'))
const asksDatabase = (file) => readFileSync(file, 'utf8').includes("from '../support/database'")
const isLong = (file) => LONG.some((name) => file.endsWith(`${name}.test.ts`))
const isNamed = (file, parts) => parts.some((part) => file.includes(part))
const isDirect = (file) =>
  !isLong(file) && (ofServer || !asksDatabase(file)) && imports(file).some((one) => modules.has(one))
const tests = ['core', 'server', 'app', 'reference']
  .flatMap((room) => below(join('tests', room)))
  .filter((file) => file.endsWith('.test.ts'))
  .filter(
    (file) => isNamed(file, values.tests) || isNamed(file, values.only) || (values.only.length === 0 && isDirect(file)),
  )
if (tests.length === 0) {
  console.error(`No test imports a file of ${positionals.join(', ')}; name some with --tests or --only.`)
  process.exit(2)
}
console.log(`${changed.length} files by ${tests.length} test files:\n${tests.map((file) => `  ${file}`).join('\n')}`)

const folder = '.wax/mutate'
mkdirSync(folder, { recursive: true })
// A change that lets a test wait for good is found by the test's own limit, long before the runner is begun anew.
const jest = {
  testMatch: tests.map((file) => `<rootDir>/${file}`),
  testSequencer: '<rootDir>/tests/support/of-pattern.mjs',
  runner: '<rootDir>/tests/support/to-first-failure.mjs',
  setupFilesAfterEnv: ['<rootDir>/tests/support/same-bytes.ts', '<rootDir>/tests/support/named-tests.ts'],
  ...{ maxWorkers: 1, testTimeout: 10_000 },
}
writeFileSync(
  'jest.mutate.mjs',
  `import base from './jest.config.mjs'\nexport default { ...base, ...${JSON.stringify(jest)} }\n`,
)
writeFileSync(
  join(folder, 'stryker.json'),
  JSON.stringify({
    testRunner: 'jest',
    plugins: ['@stryker-mutator/jest-runner'],
    mutate: places(),
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
    // What each run leaves in memory makes the next one slower.
    maxTestRunnerReuse: 30,
    // A runner that was begun anew reads all modules first: with less, one change that hangs makes the next one seem to hang too.
    timeoutMS: 10_000,
    jest: { configFile: 'jest.mutate.mjs', enableFindRelatedTests: false },
    reporters: ['clear-text', 'json', 'progress-append-only'],
    jsonReporter: { fileName: join(folder, 'report.json') },
    clearTextReporter: { allowColor: false, logTests: false },
    // A test’s own database comes and goes meanwhile.
    ignorePatterns: ['docs', '.output', '.nuxt', '.data', '.wax/test-*', 'tests/browser', 'test-results'],
    tempDirName: join(folder, 'sandbox'),
  }),
)
const { status } = spawnSync('node_modules/.bin/stryker', ['run', join(folder, 'stryker.json')], {
  stdio: 'inherit',
  env: { ...process.env, WAX_TESTS_BELOW: resolve('.wax') },
})
process.exit(status ?? 1)
