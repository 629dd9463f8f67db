// `npm test`: sets up what the tests need, then lint, types, unit tests and browser tests; the last line sums both.
import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { chdir } from 'node:process'
import { fileURLToPath } from 'node:url'
import { needModules, needPackages } from './packages.mjs'
import { judged, needingMore } from './tried-again.mjs'

chdir(fileURLToPath(new URL('..', import.meta.url)))
needPackages('postgresql', 'ffmpeg', 'chromium', 'firefox-esr', 'unicode-data', 'mediainfo')
needModules()

let passed = 0
let failed = 0
const env = { ...process.env, NUXT_TELEMETRY_DISABLED: '1' }

/** Runs commands at once, `[title, command, ...args]` each, and tells what each one said when it has ended. */
async function together(...commands) {
  const run = async ([title, command, ...args]) => {
    const child = spawn(command, args, { env, stdio: ['ignore', 'pipe', 'pipe'] })
    const said = []
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => said.push(chunk))
    const [status] = await once(child, 'close')
    console.log(`\n── ${title}`)
    process.stdout.write(Buffer.concat(said))
    if (status !== 0) failed++
  }
  await Promise.all(commands.map(run))
}

/** Runs a command; one that fails counts as one failure. */
function step(title, command, ...args) {
  console.log(`\n── ${title}`)
  const { status } = spawnSync(command, args, { stdio: 'inherit', env })
  if (status !== 0) failed++
  return status === 0
}

/** Adds up a runner's own report; a run without a report counts as a failure. */
function count(file, read) {
  try {
    const tests = read(JSON.parse(readFileSync(file, 'utf8')))
    passed += tests.passed
    failed += tests.failed
    return tests.failed
  } catch {
    return 0
  }
}

const again = []
const bin = (name) => `node_modules/.bin/${name}`
mkdirSync('test-results', { recursive: true })
for (const name of ['unit', 'browser']) rmSync(`test-results/${name}.json`, { force: true })

step('Kernels', process.execPath, 'scripts/build-kernels.mjs')
step('Programs', process.execPath, 'scripts/build-node.mjs')
step('Application types', bin('nuxt'), 'prepare', '--logLevel', 'silent')
// The types have one core to themselves meanwhile.
await together(
  ['Types', bin('vue-tsc'), '-b', '--noEmit'],
  ['Lint', bin('eslint'), '.'],
  ['Format', bin('prettier'), '--check', '.', '--log-level', 'warn'],
)

const jest = ['--experimental-vm-modules', '--no-warnings=ExperimentalWarning', 'node_modules/jest/bin/jest.js']
const unit = step('Unit tests', process.execPath, ...jest, '--json', '--outputFile=test-results/unit.json')
const unitFailed = count('test-results/unit.json', (report) => ({
  passed: report.numPassedTests,
  failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
}))
// The failing run itself was counted as one: its tests say more.
if (!unit && unitFailed > 0) failed--

if (step('Build', process.execPath, 'scripts/build-app.mjs')) {
  const browser = step('Browser tests', bin('playwright'), 'test')
  const browserFailed = count('test-results/browser.json', ({ stats, suites }) => {
    again.push(...suites.flatMap(needingMore))
    return { passed: stats.expected, failed: stats.unexpected }
  })
  if (!browser && browserFailed > 0) failed--
}

const { said, failed: unlisted } = judged(again)
failed += unlisted
passed += said.length - unlisted
if (said.length > 0) console.log(`\nPassed only when tried again, to be mended:\n${said.join('\n')}`)
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed > 0 || passed === 0 ? 1 : 0)
