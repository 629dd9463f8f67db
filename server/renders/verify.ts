import { perSecond, rateLabel } from '../../core/values/rate'
import type { Delivery } from '../../core/formats/deliveries'
import type { AlphaPlane, Encoder, FilePlan } from './encoders/encoder'
import type { KeptRows, Ledger } from './ledger'
import { hashOf } from './ledger'
import type { CheckResult, RenderReport } from './report'

/** A finished file, and what it is held against. */
interface Finished {
  delivery: Delivery
  encoder: Encoder
  plan: FilePlan
  ledger: Ledger
}

/** Differences of all frames so far, on a scale of 0–1. */
class Differences {
  largest = 0
  private sum = 0
  pixels = 0

  add({ largest, sum, pixels }: { largest: number; sum: number; pixels: number }): void {
    this.largest = Math.max(this.largest, largest)
    this.sum += sum
    this.pixels += pixels
  }

  get mean(): number {
    return this.pixels > 0 ? this.sum / this.pixels : 0
  }

  /** In steps of 8 bits. */
  get words(): string {
    return `largest difference ${(this.largest * 255).toFixed(2)}, mean ${(this.mean * 255).toFixed(3)} of 255`
  }
}

/** Reads a finished file again and holds it against what the engine made. */
export async function verifyFile(
  { delivery, encoder, plan, ledger }: Finished,
  onFrame: (done: number) => void = () => {},
): Promise<Omit<RenderReport, 'seconds'>> {
  const file = await encoder.decode(plan)
  const [alpha, colour] = [new Differences(), new Differences()]
  let frames = 0
  let changed = 0
  for await (const frame of file.frames) {
    if (frames < ledger.frames) {
      alpha.add(compareAlpha(await ledger.alpha(frames), frame.alpha))
      if (frame.exact && hashOf(frame.exact) !== ledger.hashes[frames]) changed++
      if (frame.colour && file.width === plan.width && file.height === plan.height) {
        colour.add(compareColour(await ledger.colour(frames), frame.colour))
      }
    }
    frames++
    onFrame(frames)
  }
  const { tolerance } = delivery
  const size = (of: { width: number; height: number }) => `${of.width}×${of.height}`
  const most = tolerance.exact ? 0 : tolerance.alpha
  const checks: CheckResult[] = [
    check('frames', 'Frames', String(frames), String(plan.frames), frames === plan.frames),
    check('size', 'Size', size(file), size(plan), size(file) === size(plan)),
    check('alpha', 'Alpha', alpha.words, `at most ${most}`, alpha.pixels > 0 && alpha.largest * 255 <= most),
  ]
  if (file.rate) {
    const right = perSecond(file.rate) === perSecond(plan.rate)
    checks.push(check('rate', 'Rate', `${rateLabel(file.rate)} fps`, `${rateLabel(plan.rate)} fps`, right))
  }
  if (tolerance.exact) {
    const found = changed === 0 ? 'every pixel the same' : `${changed} frames differ`
    checks.push(check('colour', 'Colour', found, 'every pixel the same', changed === 0))
  } else {
    const { most, mean } = tolerance.colour
    // Where nothing is to be seen there is no colour to hold against.
    const right = colour.largest * 255 <= most && colour.mean * 255 <= mean
    checks.push(check('colour', 'Colour', colour.words, `at most ${most}, mean ${mean}`, right))
  }
  return {
    passed: checks.every(({ passed }) => passed),
    checks,
    alpha: { largest: alpha.largest * 255, mean: alpha.mean * 255 },
  }
}

/** Straight colour of the rows that were kept, where alpha is not 0. Differences on a scale of 0–1. */
function compareColour({ rows, top }: KeptRows, found: (y: number) => Float32Array) {
  let [largest, sum, pixels] = [0, 0, 0]
  for (const { y, rgba } of rows) {
    const row = found(y)
    for (let at = 0, i = 0; at < rgba.length; at += 4, i += 3) {
      if (rgba[at + 3] === 0) continue
      for (let c = 0; c < 3; c++) {
        const difference = Math.abs(rgba[at + c]! / top - row[i + c]!)
        if (difference > largest) largest = difference
        sum += difference
      }
      pixels += 3
    }
  }
  return { largest, sum, pixels }
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
