import type { Card } from '../../card/schema'
import type { FramePicture } from '../../frame/engine'
import type { PieceOutlook } from '../../frame/outlook'
import type { Frames } from '../../units'
import type { Band } from '../measures/bands'
import { longestBand } from '../measures/bands'
import type { Fringes } from '../measures/fringe'
import { fringesOf } from '../measures/fringe'
import { inkRows, onlyRows } from '../measures/ink-rows'
import type { ThinLine } from '../measures/thin-lines'
import { thinLines } from '../measures/thin-lines'
import { COMPOSITE, compositeLevels } from '../measures/video-levels'
import type { WithEngine } from '../with-engine'
import type { CourseType } from './course'
import { courseAt } from './course'
import type { Ground } from './grounds'
import type { LetterContrast } from './legibility'
import { betterOf, contrastsOver, worseOf } from './legibility'
import { lettersOf, letterSpots, strongestOf } from './letters'

// A frame of the card in full size, and all that is measured of it.

/** A type piece at a moment of the hold. */
export interface LookedType extends Pick<CourseType, 'piece' | 'wording'> {
  /** Its letters that are seen. */
  letters: string[]
  /** The largest alpha of its letters, 0–1: less than 1 while it comes and goes. */
  strongest: number
  /** Contrast over each of the grounds, as far as it lasts; null where no letter is seen. */
  contrast: (LetterContrast | null)[]
  /** Half the width of its widest stem, in card px. */
  depth: number
}

/** A frame that was looked at in full size. */
export interface LookedMoment {
  frame: Frames
  fringes: Fringes
  /** Of red, green and blue, the longest at 8 bits: as rounded, and as dithered. */
  bands: { plain: Band; dithered: Band }
  lines: ThinLine[]
  /** Share of all pixels beyond the limits of composite video, in %. */
  beyondComposite: number
  /** Of the pieces that are there at that frame. */
  outlook: PieceOutlook[]
  types: LookedType[]
}

/** Type as far as its letters tell. */
type ReadType = Omit<LookedType, 'depth'>

/** Where a moment is looked at. */
interface Look {
  card: Card
  grounds: readonly Ground[]
  withEngine: WithEngine
}

export async function momentAt(look: Look, frame: Frames): Promise<LookedMoment> {
  const { card, withEngine } = look
  const picture = await withEngine((engine) => engine.render(card, frame))
  const exact = await withEngine((engine) => engine.render(card, frame, { bits: 'float' }))
  const outlook = await withEngine((engine) => engine.outlook(card, frame))
  const types: LookedType[] = []
  for (const type of await typesAt(look, frame, picture, outlook)) {
    types.push({ ...type, depth: await withEngine((engine) => engine.innerDepth(card, type.piece.id, frame)) })
  }
  return { frame, outlook: outlook.filter(({ opacity }) => opacity > 0), types, ...measuresOf(picture, exact) }
}

/** The type that is there at a frame, of which those are the picture and the outlook. */
async function typesAt(
  { card, grounds, withEngine }: Look,
  frame: Frames,
  picture: FramePicture,
  outlook: readonly PieceOutlook[],
): Promise<ReadType[]> {
  const { pieces } = courseAt(card, frame, outlook)
  const types: ReadType[] = []
  for (const { type } of pieces) {
    if (!type) continue
    const { piece, wording } = type
    const letters = await lettersOf(card, piece, frame, withEngine)
    const spots = letterSpots(
      outlook.find(({ id }) => id === piece.id)!,
      wording,
    )
    const contrast = contrastsOver(letters, picture, grounds, spots)
    const texts = spots.map(({ text }) => text)
    types.push({ piece, wording, letters: texts, contrast, strongest: strongestOf(letters) / 255 })
  }
  return types
}

/**
 * Leaves of every contrast what lasts: a glint that runs over a letter takes nothing from its reading. A letter is unread for so long
 * where it is at both ends of that time; `frames`: so long, within a hold.
 */
export async function lasting(
  look: Look,
  moment: LookedMoment,
  hold: { from: Frames; to: Frames },
  frames: Frames,
): Promise<LookedType[]> {
  const beside = [moment.frame - frames, moment.frame + frames].filter((at) => at >= hold.from && at < hold.to)
  const others: ReadType[][] = []
  for (const at of beside) {
    const picture = await look.withEngine((engine) => engine.render(look.card, at))
    const outlook = await look.withEngine((engine) => engine.outlook(look.card, at))
    others.push(await typesAt(look, at, picture, outlook))
  }
  return moment.types.map((type) => ({
    ...type,
    contrast: type.contrast.map((one, i) => {
      const then = others.flatMap((types) => types.find(({ piece }) => piece.id === type.piece.id)?.contrast[i] ?? [])
      return one && then.length > 0 ? then.map((other) => betterOf(one, other)).reduce(worseOf) : one
    }),
  }))
}

type Measures = Pick<LookedMoment, 'fringes' | 'bands' | 'lines' | 'beyondComposite'>

/** Clear rows that are looked at around what is seen: an edge falls off within so many. */
const AROUND = 4

/** Where nothing is seen there is nothing to be measured: a lower third is a fifth of its frame. */
function measuresOf(whole: FramePicture, exactly: FramePicture): Measures {
  const rows = inkRows(whole, AROUND)
  const picture = onlyRows(whole, rows)
  const lower = (band: Band): Band => ({
    ...band,
    ...(band.along === 'row' ? { at: band.at + rows.top } : { from: band.from + rows.top }),
  })
  const { plain, dithered } = bandsOf(picture, onlyRows(exactly, rows))
  const fringes = fringesOf(picture)
  return {
    fringes: { ...fringes, at: fringes.at && { x: fringes.at.x, y: fringes.at.y + rows.top } },
    bands: { plain: lower(plain), dithered: lower(dithered) },
    lines: thinLines(picture).map((line) => ({ ...line, y: line.y + rows.top })),
    beyondComposite: (pixelsBeyond(picture) / (whole.width * whole.height)) * 100,
  }
}

/**
 * What the middle half of a band climbs in fact, in levels of 8 bits. Rounded, half a level, and a plateau may have slopes at its
 * ends. Dithered, a stretch is chance up to half of what its ramp would give rounded: a quarter.
 */
const CLIMBS = { rounded: 0.2, dithered: 0.25 }

function bandsOf({ width, height, pixels }: FramePicture, exact: FramePicture): { plain: Band; dithered: Band } {
  const { buffer, byteOffset, byteLength } = exact.pixels
  const numbers = new Float32Array(buffer, byteOffset, byteLength / 4)
  const rounded = new Uint8Array(numbers.length)
  for (let i = 0; i < rounded.length; i++) rounded[i] = numbers[i]! * 255 + 0.5
  const longest = (of: Uint8Array, climbs: number) => {
    let most: Band = { length: 0, along: 'row', at: 0, from: 0 }
    for (const along of ['row', 'column'] as const) {
      const step = along === 'row' ? 1 : width
      for (let c = 0; c < 4; c++) {
        const ramps = (from: number, to: number) => {
          const quarter = ((to - from) / step) >> 2
          const [early, late] = [from + quarter * step, to - quarter * step]
          return Math.abs(numbers[early * 4 + c]! - numbers[late * 4 + c]!) * 255 > climbs
        }
        const band = longestBand(of, width, height, { along, ramps, channels: 4, channel: c })
        if (band.length > most.length) most = band
      }
    }
    return most
  }
  return { plain: longest(rounded, CLIMBS.rounded), dithered: longest(pixels, CLIMBS.dithered) }
}

/** Alpha from which a pixel's own colour is what is sent. */
const OWN = 200

/** How many pixels are beyond the limits of composite video. */
function pixelsBeyond({ pixels }: FramePicture): number {
  let beyond = 0
  // Colours come in stretches: what was found of one holds for its neighbour.
  let colour = -1
  let isBeyond = false
  for (let at = 0; at < pixels.length; at += 4) {
    if (pixels[at + 3]! < OWN) continue
    const red = pixels[at]!
    const green = pixels[at + 1]!
    const blue = pixels[at + 2]!
    const now = (red << 16) | (green << 8) | blue
    if (now !== colour) {
      const { low, high } = compositeLevels(red / 255, green / 255, blue / 255)
      colour = now
      isBeyond = low < COMPOSITE.from || high > COMPOSITE.to
    }
    if (isBeyond) beyond++
  }
  return beyond
}
