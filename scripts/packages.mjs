// Installs what the project needs from Debian, if it is not there yet.
import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'

const NEEDS = {
  postgresql: () => newestPostgres() !== null,
  ffmpeg: () => existsSync('/usr/bin/ffmpeg'),
  chromium: () => existsSync('/usr/bin/chromium'),
  'firefox-esr': () => existsSync('/usr/bin/firefox-esr'),
  mediainfo: () => existsSync('/usr/bin/mediainfo'),
  'unicode-data': () => existsSync('/usr/share/unicode/BidiCharacterTest.txt'),
}

/** The folder of PostgreSQL's programs, or null. */
export function newestPostgres() {
  const root = '/usr/lib/postgresql'
  if (!existsSync(root)) return null
  const [newest] = readdirSync(root)
    .filter((version) => existsSync(`${root}/${version}/bin/initdb`))
    .sort((a, b) => Number(b) - Number(a))
  return newest ? `${root}/${newest}/bin` : null
}

export function needPackages(...names) {
  const missing = names.filter((name) => !NEEDS[name]())
  if (missing.length === 0) return
  console.log(`Installing from Debian: ${missing.join(', ')}`)
  const root = process.getuid() === 0
  const run = (...args) => {
    const command = root ? args : ['sudo', '-n', ...args]
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
    const { status, stderr, error } = spawnSync(command[0], command.slice(1), { env, encoding: 'utf8' })
    if (status !== 0) throw new Error(`${args.join(' ')} failed. ${error?.message ?? stderr}`)
  }
  run('apt-get', 'update', '-qq')
  run('apt-get', 'install', '-y', '-qq', '--no-install-recommends', ...missing)
}

/** Installs the npm packages of the lock file, if they are not those already there. */
export function needModules() {
  const { status } = spawnSync('npm', ['ls', '--silent', '--depth=0'], { encoding: 'utf8' })
  if (existsSync('node_modules/.package-lock.json') && status === 0) return
  console.log('Installing npm packages from the lock file')
  execFileSync('npm', ['ci', '--ignore-scripts', '--no-fund', '--no-audit'], { stdio: ['ignore', 'ignore', 'inherit'] })
}
