import { perSecond, rateLabel } from '../../core/time/rate'
import type { EncoderDefinition, FilePlan } from './encoders/encoder'
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
      const made = await ledger.alpha(frames)
      // A file of another size cannot be compared pixel by pixel; the size check says so.
      const count = Math.min(made.length, alpha.length)
      for (let i = 0; i < count; i++) {
        const difference = Math.abs(made[i]! - alpha[i]!)
        if (difference > largest) largest = difference
        sum += difference
      }
      pixels += count
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

function check(name: CheckResult['name'], label: string, found: string, expected: string, passed: boolean): CheckResult {
  return { name, label, found, expected, passed }
}
