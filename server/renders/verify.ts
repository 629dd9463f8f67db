import { WaxError } from '../../core/errors'
import type { Allowed, Delivery, Tolerance } from '../../core/formats/deliveries/delivery'
import { perSecond, rateLabel } from '../../core/values/rate'
import { likelyCause } from './cause/likely-cause'
import { compareFrames } from './compare-frames'
import { Differences } from './differences'
import type { ColourTags, Encoder, FileFacts, FilePlan, ReadFile } from './encoders/encoder'
import type { ShownTimes } from './encoders/shown-times'
import type { CheckName, CheckResult, RenderReport } from './report'
import type { SeamPicture } from './seam-check'
import { seamCheck } from './seam-check'

/** What the engine made, by the card's frames. */
export interface MadeFrames {
  hash(frame: number): string
  pixels(frame: number): Promise<Uint8Array>
  /** Its pixels as they lie in a segment, packed: threads unpack them. */
  packed?(frame: number): Promise<Uint8Array>
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
    if (isCancelled(error)) throw error
    const message = error instanceof Error ? error.message : String(error)
    const unreadable = check('read', 'Reading', message, 'the whole file can be read', false)
    return { passed: false, checks: [unreadable], alpha: null, read: [] }
  }
}

const isCancelled = (error: unknown) => error instanceof WaxError && error.fault.code === 'cancelled'

async function verify(
  { delivery, encoder, plan, order, made, loops }: Finished,
  onFrame: (done: number) => void,
): Promise<Outcome> {
  const tolerance = delivery.tolerance(plan.options)
  const file = await encoder.read(plan)
  const fits = file.width === plan.width && file.height === plan.height
  const squares = !tolerance.exact && tolerance.colour.shared === true
  const roundedTo = (!tolerance.exact && tolerance.colour.roundedTo) || null
  let rounding = 0
  const isSolid = !tolerance.exact && tolerance.alpha === null
  const own = { single: 0, count: 0 }
  const held: Held = { alpha: new Differences(), colour: new Differences(), shared: new Differences() }
  const last = order.length - 1
  const read: string[] = []
  const changed: number[] = []
  const twice: number[] = []
  let lastIsEmpty = false
  let compared = 0
  const ends: SeamPicture[] = []
  const frames = compareFrames({ plan, stored: file.stored, squares, roundedTo, isSolid }, file.frames, made, (at) => {
    // Frames too many, or of another size, are known by their hashes alone.
    if (at > last || !fits) return null
    const seam = loops && fits && (at === 0 || at === last)
    return { at, hash: made.hash(order[at]!), empties: at === last, seam, frame: order[at]! }
  })
  for await (const found of frames) {
    const at = read.length
    if (typeof found === 'string') read.push(found)
    else {
      compared++
      read.push(found.hash)
      if (found.isSame === false) changed.push(at)
      held.alpha.take(at, found.held.alpha)
      held.colour.take(at, found.held.colour)
      rounding += found.held.rounding
      if (found.shared) held.shared.take(at, found.shared)
      if (found.ownShared) {
        own.single += found.ownShared.single
        own.count += found.ownShared.count
      }
      if (at > 0 && read[at] === read[at - 1] && made.hash(order[at]!) !== made.hash(order[at - 1]!)) {
        if (!(await isNearlySame(made, [order[at - 1]!, order[at]!], plan, tolerance))) twice.push(at)
      }
      if (at === last) lastIsEmpty = found.isEmptied
      if (found.seam) ends.push(found.seam)
    }
    onFrame(read.length)
  }
  const [first, end] = ends
  const checks = [
    check('frames', 'Frames', String(read.length), String(plan.frames), read.length === plan.frames),
    ...aboutFile(file, encoder, plan),
    ...(file.alpha === false && !tolerance.exact && tolerance.alpha ? [NO_ALPHA] : []),
    ...(compared > 0
      ? aboutPixels(withRounding(tolerance, rounding, held.colour.count), held, changed, own)
      : [NOTHING_COMPARED]),
    check(
      'order',
      'Every frame once',
      listed(twice, 'no frame twice', 'as the one before'),
      'no frame twice',
      twice.length === 0,
    ),
    ...(tolerance.exact || tolerance.alpha ? [lastFrame(lastIsEmpty)] : []),
    ...(first && end && read.length === plan.frames ? [seamCheck(first, end)] : []),
  ]
  if (compared > 0 && checks.some(({ name, passed }) => !passed && PICTURES.includes(name))) {
    // What the checks found stands, whatever becomes of the second reading.
    const cause = await likelyCause({ delivery, encoder, plan, order, made, loops }).catch((error: unknown) => {
      if (isCancelled(error)) throw error
      return null
    })
    if (cause) checks.push(check('cause', 'Likely cause', cause, 'none', false))
  }
  const alpha = isSolid ? null : held.alpha
  return {
    passed: checks.every(({ passed }) => passed),
    checks,
    alpha: alpha && { largest: alpha.largest * 255, mean: alpha.mean * 255 },
    read,
  }
}

/** Checks that fail where something was done to the pictures, or to their order. */
const PICTURES: readonly CheckName[] = ['frames', 'alpha', 'colour', 'order', 'last']

/** Whether two frames of the engine differ by no more than the file may from either: then it may keep them as one. */
async function isNearlySame(
  made: MadeFrames,
  [before, after]: [number, number],
  { form }: FilePlan,
  tolerance: Tolerance,
): Promise<boolean> {
  if (tolerance.exact) return false
  const numbers = (bytes: Uint8Array) =>
    form.bits === 8 ? bytes : new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 2)
  // What is asked for second may be laid where the first one is.
  const a = numbers((await made.pixels(before)).slice())
  const b = numbers(await made.pixels(after))
  const top = form.bits === 8 ? 255 : 65_535
  const allowed = (most: number) => (most * top) / 255
  const [alphaBy, colourBy] = [allowed((tolerance.alpha ?? tolerance.colour).most), allowed(tolerance.colour.most)]
  for (let i = 0; i < a.length; i += 4) {
    const alpha = Math.max(a[i + 3]!, b[i + 3]!)
    if (Math.abs(a[i + 3]! - b[i + 3]!) > alphaBy) return false
    for (let c = i; c < i + 3; c++) if (Math.abs(a[c]! - b[c]!) * alpha > colourBy * top) return false
  }
  return true
}

/** The mean of colours may be off by what their rounding alone gives, and by what is the codec's. `rounding`: a sum over `count` values. */
function withRounding(tolerance: Tolerance, rounding: number, count: number): Tolerance {
  if (tolerance.exact || rounding === 0) return tolerance
  const mean = tolerance.colour.mean + (rounding / count) * 255
  return { ...tolerance, colour: { ...tolerance.colour, mean: Number(mean.toFixed(3)) } }
}

const lastFrame = (isEmpty: boolean) =>
  check('last', 'Last frame', isEmpty ? 'empty' : 'as it was made', 'as it was made', !isEmpty)

/** What the file says of itself. */
export function aboutFile(file: ReadFile, encoder: Encoder, plan: FilePlan): CheckResult[] {
  const size = (of: { width: number; height: number }) => `${of.width}×${of.height}`
  const { timecode } = plan.options
  const facts = ({ rate, ...said }: FileFacts, tags: ColourTags | null, of = '') => {
    const checks = [check('size', `Size${of}`, size(said), size(plan), size(said) === size(plan))]
    if (rate) {
      const right = Math.abs(perSecond(rate) / perSecond(plan.rate) - 1) < SAME_RATE
      checks.push(check('rate', `Rate${of}`, `${rateLabel(rate)} fps`, `${rateLabel(plan.rate)} fps`, right))
    }
    if (timecode)
      checks.push(check('timecode', `Timecode${of}`, said.timecode ?? 'none', timecode, said.timecode === timecode))
    if (tags)
      checks.push(check('tags', `Colour${of} as`, tagWords(said.tags), tagWords(tags), sameTags(said.tags, tags)))
    return checks
  }
  const tags = typeof encoder.tags === 'function' ? encoder.tags(plan) : encoder.tags
  return [
    ...facts(file, tags),
    ...(file.key ? facts(file.key, encoder.keyTags?.(plan) ?? null, ' of the key') : []),
    ...(file.times ? [timesCheck(file.times, plan)] : []),
    ...(file.numbers ? [numbersCheck(file.numbers, plan)] : []),
  ]
}

/** Pictures are numbered from the first frame on, none left out: programs that read them count so. */
function numbersCheck(numbers: readonly number[], { first }: FilePlan): CheckResult {
  const odd = numbers.findIndex((number, at) => number !== first + at)
  const found =
    odd < 0 ? 'without a hole' : `${numbers[odd]! < 0 ? 'no number' : numbers[odd]} where ${first + odd} should be`
  return check('order', 'Numbering', found, 'without a hole', odd < 0)
}

/** Seconds by which a picture may be shown longer or shorter: WebP counts in whole milliseconds. */
const SAME_TIME = 0.001_01

/** Every picture is shown as long as the rate says, and all of them are played without end. */
function timesCheck({ each, plays }: ShownTimes, { rate }: FilePlan): CheckResult {
  const wanted = 1 / perSecond(rate)
  const odd = each.flatMap((time, i) => (Math.abs(time - wanted) > SAME_TIME ? [i] : []))
  const said = [
    listed(odd, '', 'for another time'),
    plays === 0 ? '' : `played ${plays === 1 ? 'once' : `${plays} times`}`,
  ].filter(Boolean)
  const good = 'each as long, without end'
  return check('times', 'Shown', said.join('; ') || good, good, said.length === 0)
}

/** Matroska tells how long a picture is shown in billionths of a second, from which its rate is guessed. 24 and 23.976 are 1e-3 apart. */
const SAME_RATE = 2e-4

const KNOWN: readonly (keyof ColourTags)[] = ['primaries', 'transfer', 'matrix', 'range']

/** Names as people write them, where they are others than those of ffprobe. */
const SAID: Readonly<Record<string, string>> = { bt709: 'BT.709', tv: 'video levels', pc: 'full levels' }
const saidOf = (word: string | null) => (word === null ? 'not said' : (SAID[word] ?? word))

function tagWords(tags: ColourTags | null): string {
  if (!tags) return 'not said'
  const { primaries, transfer, matrix, range } = tags
  const levels = saidOf(range)
  if (primaries === transfer && transfer === matrix) return `${saidOf(primaries)}, ${levels}`
  return `primaries ${saidOf(primaries)}, transfer ${saidOf(transfer)}, matrix ${saidOf(matrix)}, ${levels}`
}

const sameTags = (found: ColourTags | null, wanted: ColourTags): boolean =>
  KNOWN.every((name) => wanted[name] === null || found?.[name] === wanted[name])

/** Differences of alpha everywhere, of colour where there is any alpha, and of the colours of four such pixels together. */
type Held = Record<'alpha' | 'colour' | 'shared', Differences>

/** `own`: of the card's pixels in even squares, the sum of what each is off by, and how many squares they are. */
function aboutPixels(
  tolerance: Tolerance,
  { alpha, colour, shared }: Held,
  changed: number[],
  own: { single: number; count: number },
): CheckResult[] {
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
    ...(tolerance.colour.shared
      ? evenColours(tolerance.colour, { shared, colour, own, isSolid: tolerance.alpha === null }, within)
      : [within('colour', 'Colour', colour, tolerance.colour)]),
  ]
}

/**
 * The mean by which single pixels may be off where a colour stands for two or four of them, in steps of 8 bits: thin type, fine lines and
 * edges. Measured on white and coloured type of 12 to 40 px: up to 9. Over a backdrop edges are softer: 5.5, and 14 for a picture that is
 * shifted by a pixel.
 */
const FINE_MEAN = { alone: 16, solid: 12 }

type Within = (name: 'alpha' | 'colour', label: string, found: Differences, allowed: Allowed) => CheckResult

interface SharedColours {
  shared: Differences
  colour: Differences
  own: { single: number; count: number }
  /** Whether it lies over a backdrop. */
  isSolid: boolean
}

/** Colours that are kept for several pixels at once: held together where they are even, each pixel by itself where they are not. */
function evenColours(allowed: Allowed, { shared, colour, own, isSolid }: SharedColours, within: Within): CheckResult[] {
  if (colour.count === 0) return []
  const evenPixels = 4 * own.count
  const label = `Even colours (${percent(evenPixels / colour.count)} of what is seen)`
  const even = shared.count > 0 ? [within('colour', label, shared, allowed)] : []
  const count = colour.count - evenPixels
  if (count <= 0) return even
  const mean = Math.max(0, (colour.total - own.single) / count) * 255
  const most = isSolid ? FINE_MEAN.solid : FINE_MEAN.alone
  const fine = check(
    'colour',
    'Colour of fine parts',
    `mean ${mean.toFixed(2)} of 255`,
    `mean at most ${most}`,
    mean <= most,
  )
  return [...even, fine]
}

const percent = (share: number) => `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`

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

/** It has no plane for it, or says that there is none: every other program shows it solid. */
const NO_ALPHA = check('alpha', 'Alpha', 'the file carries none', 'alpha in every frame', false)

/** Where the file has another size, or no frame, no pixel was held against any. */
const NOTHING_COMPARED = check('alpha', 'Alpha', 'nothing to compare', 'every frame compared', false)
