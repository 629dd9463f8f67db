import type { FramePicture } from '../../../core/frame/engine'
import type { Rate } from '../../../core/time/rate'
import type { RenderFormat } from '../options'

/** What is known of a file before its first frame. */
export interface FilePlan {
  path: string
  width: number
  height: number
  rate: Rate
  frames: number
  /** Number of the first frame in the card's run: sequences count on from it. */
  first: number
  /** Bits a channel of the frames that are handed over. */
  bits: 8 | 16
  /** Start of the names of single files within an archive. */
  stem: string
}

export interface FrameWriter {
  /** Resolves when the frame may be forgotten. */
  write(picture: FramePicture): Promise<void>
  /** Finishes the file. */
  close(): Promise<void>
  /** Gives up; the half file is removed by the caller. */
  abort(): Promise<void>
}

/** Alpha of every pixel in its own integers; `top` is solid. */
export interface AlphaPlane {
  values: Uint8Array | Uint16Array
  top: number
}

/** Straight pixels as they are read back from a file. */
export interface DecodedFrame {
  alpha: AlphaPlane
  /** The straight RGBA bytes where the format keeps them exactly, for comparing by hash. */
  exact: Uint8Array | null
}

export interface DecodedFile {
  width: number
  height: number
  /** Null where the format has no rate of its own. */
  rate: Rate | null
  frames: AsyncIterable<DecodedFrame>
}

/** One delivery format: how it is written and how it is read again. */
export interface EncoderDefinition {
  format: RenderFormat
  /** Bits a channel that the engine must deliver for a wish of the user. */
  bitsFor(wish: 8 | 16): 8 | 16
  /** Largest difference of alpha, in 8-bit steps, that the format's own precision explains. */
  alphaTolerance: number
  open(plan: FilePlan): Promise<FrameWriter>
  decode(plan: FilePlan): Promise<DecodedFile>
}
