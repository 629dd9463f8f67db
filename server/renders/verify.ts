import { WaxError } from '../../core/errors'
import type { Allowed, Delivery, Tolerance } from '../../core/formats/deliveries/delivery'
import type { FramePicture } from '../../core/frame/engine'
import { perSecond, rateLabel } from '../../core/values/rate'
import type { Differences, Held } from './differences'
import { holdPicture, holdSquares, nothingHeld } from './differences'
import type { ColourTags, Encoder, FilePlan, ReadFile, ReadFrame, SeenPicture } from './encoders/encoder'
import { seenInPixels } from './encoders/seen-pixels'
import { digest } from './digest'
import type { CheckName, CheckResult, RenderReport } from './report'
import { seamKeeper } from './seam-check'

/** What the engine made, by the card's frames. */
export interface MadeFrames {
  hash(frame: number): string
  pixels(frame: number): Promise<Uint8Array>
}

/** A finished delivery, and what it is held against. */
export interface Finished {
  delivery: Delivery
  encoder: Encoder
  plan: FilePlan
  /** The card's frame at each place of the run. */
  order: readonly number[]
  made: MadeFrames
  /** Whether its last frame goes over into its first. */
  loops: boolean
}

export interface Outcome extends Omit<RenderReport, 'seconds'> {
  /** Hashes of the frames as they were read. */
  read: string[]
}

/** Reads a finished delivery again and holds it against what the engine made. A file that cannot be read is a check that failed. */
export async function verifyFile(finished: Finished, onFrame: (done: number) => void = () => {}): Promise<Outcome> {
  try {
    return await verify(finished, onFrame)
  } catch (error) {
    // Who called it off is no fault of the file.
    if (error instanceof WaxError && error.fault.code === 'cancelled') throw error
    const message = error instanceof Error ? error.message : String(error)
    const unreadable = check('read', 'Reading', message, 'the whole file can be read', false)
    return { passed: false, checks: [unreadable], alpha: null, read: [] }
  }
}

async function verify(
  { delivery, encoder, plan, order, made, loops }: Finished,
  onFrame: (done: number) => void,
): Promise<Outcome> {
  const { width, height } = plan
  const tolerance = delivery.tolerance(plan.options)
  const shown = (await encoder.shown?.(plan)) ?? ((picture: FramePicture) => picture)
  const file = await encoder.read(plan)
  const fits = file.width === width && file.height === height
  const held = nothingHeld()
  const seam = loops && fits ? seamKeeper(plan) : null
  const read: string[] = []
  const changed: number[] = []
  const twice: number[] = []
  let lastIsEmpty = false
  let compared = 0
  for await (const frame of file.frames) {
    const at = read.length
    if (at >= order.length || !fits) read.push(digest(frame.raw))
    else {
      const pixels = plain(await made.pixels(order[at]!))
      const meant = shown({ width, height, bits: plan.form.bits, pixels }, at)
      const seen = seenIn(frame, meant)
      compared++
      const isSame = frame.pixels !== null && Buffer.compare(frame.pixels, meant.pixels) === 0
      // The same bytes have the same hash.
      read.push(
        isSame && frame.raw === frame.pixels && meant.pixels === pixels ? made.hash(order[at]!) : digest(frame.raw),
      )
      if (frame.pixels && !isSame) changed.push(at)
      if (!isSame) holdPicture(held, at, meant, seen)
      if (!tolerance.exact && tolerance.colour.shared) holdSquares(held, at, meant, seen)
      if (at > 0 && read[at] === read[at - 1] && made.hash(order[at]!) !== made.hash(order[at - 1]!)) twice.push(at)
      if (at === order.length - 1)
        lastIsEmpty = isEmpty(seen, plan) && !isEmpty(seenInPixels(meant.pixels, meant), plan)
      seam?.take(at, order.length, seenInPixels(meant.pixels, meant), seen)
    }
    onFrame(read.length)
  }
  const checks = [
    check('frames', 'Frames', String(read.length), String(plan.frames), read.length === plan.frames),
    ...aboutFile(file, encoder, plan),
    ...(compared > 0 ? aboutPixels(tolerance, held, changed) : [NOTHING_COMPARED]),
    check(
      'order',
      'Every frame once',
      listed(twice, 'no frame twice', 'as the one before'),
      'no frame twice',
      twice.length === 0,
    ),
    ...(tolerance.exact || tolerance.alpha ? [lastFrame(lastIsEmpty)] : []),
    ...(seam && read.length === plan.frames ? [seam.check()] : []),
  ]
  const alpha = !tolerance.exact && tolerance.alpha === null ? null : held.alpha
  return {
    passed: checks.every(({ passed }) => passed),
    checks,
    alpha: alpha && { largest: alpha.largest * 255, mean: alpha.mean * 255 },
    read,
  }
}

/** Pixels in an array that begins where wider numbers may. */
const plain = (pixels: Uint8Array): Uint8Array<ArrayBuffer> => pixels as Uint8Array<ArrayBuffer>

const seenIn = ({ seen, pixels }: ReadFrame, meant: FramePicture): SeenPicture =>
  seen ?? seenInPixels(aligned(pixels!), meant)

/** Wider numbers are read where they may begin. */
const aligned = (pixels: Uint8Array) => (pixels.byteOffset % 4 === 0 ? pixels : pixels.slice())

function isEmpty({ alpha }: SeenPicture, { width, height }: FilePlan): boolean {
  if (!alpha) return false
  for (let y = 0; y < height; y++) {
    const { values, at, stride, zero, scale } = alpha(y)
    for (let x = 0, i = at; x < width; x++, i += stride) if ((values[i]! - zero) * scale > EMPTY) return false
  }
  return true
}

/** Alpha below which nothing is seen. */
const EMPTY = 1 / 512

const lastFrame = (isEmpty: boolean) =>
  check('last', 'Last frame', isEmpty ? 'empty' : 'as it was made', 'as it was made', !isEmpty)

/** What the file says of itself. */
export function aboutFile(file: ReadFile, encoder: Encoder, plan: FilePlan): CheckResult[] {
  const size = (of: { width: number; height: number }) => `${of.width}×${of.height}`
  const checks = [check('size', 'Size', size(file), size(plan), size(file) === size(plan))]
  if (file.rate) {
    const right = Math.abs(perSecond(file.rate) / perSecond(plan.rate) - 1) < SAME_RATE
    checks.push(check('rate', 'Rate', `${rateLabel(file.rate)} fps`, `${rateLabel(plan.rate)} fps`, right))
  }
  const { timecode } = plan.options
  if (timecode)
    checks.push(check('timecode', 'Timecode', file.timecode ?? 'none', timecode, file.timecode === timecode))
  const tags = typeof encoder.tags === 'function' ? encoder.tags(plan) : encoder.tags
  if (tags) checks.push(check('tags', 'Colour as', tagWords(file.tags), tagWords(tags), sameTags(file.tags, tags)))
  return checks
}

/** Matroska tells how long a picture is shown in billionths of a second, from which its rate is guessed. 24 and 23.976 are 1e-3 apart. */
const SAME_RATE = 2e-4

const KNOWN: readonly (keyof ColourTags)[] = ['primaries', 'transfer', 'matrix', 'range']

const tagWords = (tags: ColourTags | null): string =>
  tags ? KNOWN.map((name) => tags[name] ?? 'not said').join(', ') : 'not said'

const sameTags = (found: ColourTags | null, wanted: ColourTags): boolean =>
  KNOWN.every((name) => wanted[name] === null || found?.[name] === wanted[name])

function aboutPixels(tolerance: Tolerance, { alpha, colour, shared }: Held, changed: number[]): CheckResult[] {
  if (tolerance.exact) {
    const same = changed.length === 0
    const found = same
      ? 'every pixel the same'
      : `${listed(changed, '', 'changed')}; alpha ${alpha.words}; colour ${colour.words}`
    return [
      check('alpha', 'Alpha', alpha.words, 'at most 0', alpha.largest === 0),
      check('colour', 'Colour', found, 'every pixel the same', same),
    ]
  }
  const within = (name: 'alpha' | 'colour', label: string, found: Differences, { most, mean }: Allowed) => {
    const passed = found.largest * 255 <= most && found.mean * 255 <= mean
    return check(name, label, passed ? found.words : found.place, `at most ${most}, mean ${mean}`, passed)
  }
  return [
    ...(tolerance.alpha ? [within('alpha', 'Alpha', alpha, tolerance.alpha)] : []),
    within(
      'colour',
      tolerance.colour.shared ? 'Even colours' : 'Colour',
      tolerance.colour.shared ? shared : colour,
      tolerance.colour,
    ),
  ]
}

/** Places of frames in words, counted from 0 as the ribbon does. */
function listed(frames: readonly number[], none: string, what: string): string {
  if (frames.length === 0) return none
  const first = frames.slice(0, 5).join(', ')
  const more = frames.length > 5 ? ` and ${frames.length - 5} more` : ''
  return `frame${frames.length > 1 ? 's' : ''} ${first}${more} ${what}`
}

export function check(name: CheckName, label: string, found: string, expected: string, passed: boolean): CheckResult {
  return { name, label, found, expected, passed }
}

/** Where the file has another size, or no frame, no pixel was held against any. */
const NOTHING_COMPARED = check('alpha', 'Alpha', 'nothing to compare', 'every frame compared', false)
