import type { FramePicture } from '../../../core/frame/engine'
import type { Rate } from '../../../core/values/rate'

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
  /** Straight RGB of a row, 0–1, where the format does not keep bytes exactly. */
  colour: ((y: number) => Float32Array) | null
}

export interface DecodedFile {
  width: number
  height: number
  /** Null where the format has no rate of its own. */
  rate: Rate | null
  frames: AsyncIterable<DecodedFrame>
}

/** How a delivery is written and how it is read again. */
export interface Encoder {
  open(plan: FilePlan): Promise<FrameWriter>
  decode(plan: FilePlan): Promise<DecodedFile>
}
