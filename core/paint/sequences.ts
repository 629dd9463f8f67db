import { WaxError } from '../errors'
import type { Frames } from '../units'
import type { Picture } from './pictures'
import { MOST_PIXELS } from './pictures'

/** A picture of a sequence that an engine asks for. Its host fetches it and lets it try again; see core/frame/fetching.ts. */
export class PictureWanted extends Error {
  constructor(
    readonly id: string,
    readonly index: Frames,
  ) {
    super(`Picture ${index} of “${id}” is wanted.`)
    this.name = 'PictureWanted'
  }
}

/** Why a picture of a sequence is not here. */
export type PictureGap = { message: string; remedy: string }

const GONE: PictureGap = { message: 'It is not here.', remedy: 'Bring the sequence in again, or name its file.' }

/**
 * The pictures of sequences that an engine has at hand. Those that were asked for longest ago are let go when there are more bytes than
 * the budget; never those that the frame under way has asked for.
 */
export class SequenceBook {
  private readonly pictures = new Map<string, Picture>()
  private readonly gaps = new Map<string, PictureGap>()
  private readonly inUse = new Set<string>()
  private bytes = 0

  constructor(private readonly budget = BUDGET) {}

  /** A picture, or why there is none. */
  add(id: string, index: Frames, picture: Picture | PictureGap | null): void {
    const key = nameOf(id, index)
    if (!picture || !('pixels' in picture)) {
      this.gaps.set(key, picture ?? GONE)
      return
    }
    const { width, height, pixels } = picture
    if (width * height > MOST_PIXELS || pixels.length !== width * height * 4) {
      const message = `It has ${width}×${height} px.`
      this.gaps.set(key, { message, remedy: `Pictures may have up to ${MOST_PIXELS / 1_000_000} million pixels.` })
      return
    }
    this.drop(key)
    this.pictures.set(key, picture)
    this.bytes += pixels.byteLength
    for (const oldest of this.pictures.keys()) {
      if (this.bytes <= this.budget) break
      if (oldest !== key && !this.inUse.has(oldest)) this.drop(oldest)
    }
  }

  /** Whether a picture is here, or is known to be missing. */
  knows(id: string, index: Frames): boolean {
    const key = nameOf(id, index)
    return this.pictures.has(key) || this.gaps.has(key)
  }

  /** Throws what is wanted where it is not here yet, and a WaxError that names the place where there is none. */
  get(id: string, index: Frames, place: string): Picture {
    const key = nameOf(id, index)
    this.inUse.add(key)
    const gap = this.gaps.get(key)
    if (gap)
      throw new WaxError('missing-picture', place, `Picture ${index} of the sequence: ${gap.message}`, gap.remedy)
    const picture = this.pictures.get(key)
    if (!picture) throw new PictureWanted(id, index)
    // A Map lists its keys in the order in which they came: the one asked for now goes last.
    this.pictures.delete(key)
    this.pictures.set(key, picture)
    return picture
  }

  /** A frame is done: what it asked for may go. Gaps may have been mended by the time of the next one. */
  rest(): void {
    this.inUse.clear()
    this.gaps.clear()
  }

  private drop(key: string): void {
    const found = this.pictures.get(key)
    if (!found) return
    this.pictures.delete(key)
    this.bytes -= found.pixels.byteLength
  }
}

/** Bytes: 24 pictures of 1920×1080 px and 8 bits. */
const BUDGET = 192 * 1024 * 1024

const nameOf = (id: string, index: Frames) => `${id} ${index}`
