import type { FramePicture } from '../../core/frame/engine'
import { digest } from './digest'
import type { HeldPicture, SquareSums } from './differences'
import { holdPicture, holdSquares, sameHeld } from './differences'
import type { FilePlan, SeenPicture, StoredForm } from './encoders/encoder'
import { seenIn } from './encoders/seen'
import { seenInPixels } from './encoders/seen-pixels'
import type { SeamPicture } from './seam-check'
import { seamPicture } from './seam-check'

// One frame that was read from a file, held against what the engine made. It is the work of threads: all that it needs comes in, and
// what it finds is small.

/** What all frames of a file have in common. */
export interface ComparedFile {
  plan: FilePlan
  stored: StoredForm
  /** Whether colours are held together for four pixels too. */
  squares: boolean
  /** Bits of luma and chromas whose own rounding is told; null where nothing is allowed for it. */
  roundedTo: number | null
  /** Whether the file is solid and shows what lies behind too: its single colours are held where the card has alpha. */
  isSolid: boolean
}

/** What is asked of a frame. */
export interface FrameAsked {
  /** Its place in the file. */
  at: number
  /** The hash of what the engine made. */
  hash: string
  /** Whether it is looked at for being empty: the last one. */
  empties: boolean
  /** Whether it stands at the seam. */
  seam: boolean
}

export interface Compared {
  /** Of the frame as it is stored. */
  hash: string
  /** Whether it is the same to the byte; null where the form keeps no bytes. */
  isSame: boolean | null
  held: HeldPicture
  shared: SquareSums | null
  /** The same of those that lie within the card, where a backdrop has such too. */
  ownShared: SquareSums | null
  /** Whether it is empty though it was made with something on it. */
  isEmptied: boolean
  seam: SeamPicture | null
}

/** Holds a frame as it is stored against the engine's. `meant` is what the file is to show of `made`. */
export function compareFrame(
  { plan, stored, squares, roundedTo, isSolid }: ComparedFile,
  { hash, empties, seam }: FrameAsked,
  raw: Uint8Array,
  made: Uint8Array,
  meant: FramePicture,
): Compared {
  const seen = seenIn(raw, stored, plan)
  const isSame = stored.kind === 'pixels' ? Buffer.compare(raw, meant.pixels) === 0 : null
  const own = isSolid ? withAlphaOf(meant, made) : meant
  const shared = squares ? holdSquares(meant, seen) : null
  return {
    // The same bytes have the same hash.
    hash: isSame && meant.pixels === made ? hash : digest(raw),
    isSame,
    held: isSame ? sameHeld(meant) : holdPicture(own, seen, roundedTo),
    shared,
    ownShared: own === meant || !shared ? shared : holdSquares(own, seen),
    isEmptied: empties && isEmpty(seen, plan) && !isEmpty(seenInPixels(meant.pixels, meant), plan),
    seam: seam ? seamPicture(seenInPixels(meant.pixels, meant), seen, plan) : null,
  }
}

/** What lies over a backdrop, with the alpha that it has of its own. */
function withAlphaOf(meant: FramePicture, made: Uint8Array): FramePicture {
  const pixels = meant.pixels.slice()
  for (let at = 3; at < pixels.length; at += 4) pixels[at] = made[at]!
  return { ...meant, pixels }
}

/** Alpha below which nothing is seen. */
const EMPTY = 1 / 512

function isEmpty({ alpha }: SeenPicture, { width, height }: FilePlan): boolean {
  if (!alpha) return false
  for (let y = 0; y < height; y++) {
    const { values, at, stride, zero, scale } = alpha(y)
    for (let x = 0, i = at; x < width; x++, i += stride) if ((values[i]! - zero) * scale > EMPTY) return false
  }
  return true
}
