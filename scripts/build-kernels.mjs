// Compiles the pixel kernels and writes them as a base64 module that browser, server and tests import alike.
// Skipped when neither the sources nor this script changed since the last build.
import { createHash } from 'node:crypto'
import { mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import asc from 'assemblyscript/asc'

const root = fileURLToPath(new URL('..', import.meta.url))
const sourceDir = `${root}core/kernels/assembly`
const target = `${root}core/kernels/generated/kernels-wasm.ts`

const hash = createHash('sha256').update(readFileSync(fileURLToPath(import.meta.url)))
for (const file of readdirSync(sourceDir).sort()) hash.update(readFileSync(`${sourceDir}/${file}`))
const stamp = `// sources: ${hash.digest('hex').slice(0, 16)}`

let known = ''
try {
  known = readFileSync(target, 'utf8').split('\n', 1)[0]
} catch {
  // Not built yet.
}
if (known !== stamp) {
  const { error, stderr, binary } = await compile()
  if (error) {
    process.stderr.write(stderr)
    throw error
  }
  mkdirSync(`${root}core/kernels/generated`, { recursive: true })
  const base64 = Buffer.from(binary).toString('base64')
  writeFileSync(target, `${stamp}\n/** The compiled kernels, base64. */\nexport const kernelsWasm =\n  '${base64}'\n`)
  console.log(`kernels: ${binary.length} bytes`)
}

async function compile() {
  let binary
  const { error, stderr } = await asc.main(
    [
      `${sourceDir}/index.ts`,
      ...[
        '--outFile',
        'kernels.wasm',
        '--runtime',
        'stub',
        '--enable',
        'simd',
        '-O3',
        '--noAssert',
        ...(process.env.KERNEL_NAMES ? ['--debug'] : []),
      ],
      ...['--importMemory', '--initialMemory', '1', '--memoryBase', '1024', '--baseDir', '/'],
    ],
    {
      writeFile: (name, contents) => {
        if (name.endsWith('.wasm')) binary = contents
      },
    },
  )
  return { error, stderr: stderr.toString(), binary }
}
