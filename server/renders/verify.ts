import { perSecond, rateLabel } from '../../core/time/rate'
import type { AlphaPlane, EncoderDefinition, FilePlan } from './encoders/encoder'
import type { Ledger } from './ledger'
import { hashOf } from './ledger'
import type { CheckResult, RenderReport } from './report'

/** Reads a finished file again and holds it against what the engine made. */
export async function verifyFile(
  encoder: EncoderDefinition,
  plan: FilePlan,
  ledger: Ledger,
  onFrame: (done: number) => void = () => {},
): Promise<Omit<RenderReport, 'seconds'>> {
  const file = await encoder.decode(plan)
  let frames = 0
  let largest = 0
  let sum = 0
  let pixels = 0
  let changed = 0
  for await (const { alpha, exact } of file.frames) {
    if (frames < ledger.frames) {
      const difference = compareAlpha(await ledger.alpha(frames), alpha)
      largest = Math.max(largest, difference.largest)
      sum += difference.sum
      pixels += difference.pixels
      if (exact && hashOf(exact) !== ledger.hashes[frames]) changed++
    }
    frames++
    onFrame(frames)
  }
  const alpha = { largest: largest * 255, mean: pixels > 0 ? (sum / pixels) * 255 : 0 }
  const checks: CheckResult[] = [
    check('frames', 'Frames', String(frames), String(plan.frames), frames === plan.frames),
    check(
      'size',
      'Size',
      `${file.width}×${file.height}`,
      `${plan.width}×${plan.height}`,
      file.width === plan.width && file.height === plan.height,
    ),
    check(
      'alpha',
      'Alpha',
      `largest difference ${alpha.largest.toFixed(2)}, mean ${alpha.mean.toFixed(3)} of 255`,
      `at most ${encoder.alphaTolerance}`,
      pixels > 0 && alpha.largest <= encoder.alphaTolerance,
    ),
  ]
  if (file.rate) {
    const right = perSecond(file.rate) === perSecond(plan.rate)
    checks.push(check('rate', 'Rate', `${rateLabel(file.rate)} fps`, `${rateLabel(plan.rate)} fps`, right))
  }
  if (encoder.format === 'png') {
    const found = changed === 0 ? 'every pixel the same' : `${changed} frames differ`
    checks.push(check('colour', 'Colour', found, 'every pixel the same', changed === 0))
  }
  return { passed: checks.every(({ passed }) => passed), checks, alpha }
}

/** Differences on a scale of 0–1. */
function compareAlpha(made: AlphaPlane, found: AlphaPlane): { largest: number; sum: number; pixels: number } {
  // A file of another size cannot be compared pixel by pixel; the size check says so.
  const pixels = Math.min(made.values.length, found.values.length)
  let largest = 0
  let sum = 0
  for (let i = 0; i < pixels; i++) {
    const difference = Math.abs(made.values[i]! / made.top - found.values[i]! / found.top)
    if (difference > largest) largest = difference
    sum += difference
  }
  return { largest, sum, pixels }
}

function check(
  name: CheckResult['name'],
  label: string,
  found: string,
  expected: string,
  passed: boolean,
): CheckResult {
  return { name, label, found, expected, passed }
}
