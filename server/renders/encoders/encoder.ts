import type { RenderOptions } from '../../../core/formats/deliveries/render-options'
import type { FramePicture } from '../../../core/frame/engine'
import type { PixelForm } from '../../../core/kernels/pixel-form'
import type { Rate } from '../../../core/values/rate'
import type { ShownTimes } from './shown-times'

/** What is known of a delivery before its first frame. */
export interface FilePlan {
  /** Its files in the order of the delivery's table. One that does not end in `.zip` is a folder for sequences. */
  paths: readonly string[]
  width: number
  height: number
  rate: Rate
  frames: number
  /** Number of the first frame in the card's run: sequences count on from it. */
  first: number
  options: RenderOptions
  /** How frames are handed over. */
  form: PixelForm
  /** Start of the names of single files within an archive. */
  stem: string
  /** What people call it: written into review copies. */
  title: string
}

export interface FrameWriter {
  /** Takes what the encoder shows of a frame. Resolves when the pixels may be forgotten. */
  write(picture: FramePicture): Promise<void>
  /** Finishes the files. */
  close(): Promise<void>
  /** Gives up; half files are removed by the caller. */
  abort(): Promise<void>
}

/** What a file says of its colour, as ffprobe calls it; null where it says nothing. */
export interface ColourTags {
  primaries: string | null
  transfer: string | null
  matrix: string | null
  range: string | null
}

/** How the frames of a file are stored, once they are unpacked. Plain, that threads can be told of it. */
export type StoredForm =
  /** RGBA in the form of what was written. */
  | { kind: 'pixels'; bits: FramePicture['bits'] }
  /** Luma and chromas, by ffmpeg's name; alpha among them, or after them as the luma of a key. */
  | { kind: 'planes'; format: string; full: boolean; key?: StoredKey }

/** (luma − zero) / span is alpha. */
export interface StoredKey {
  format: string
  zero: number
  span: number
}

/** A picture that is read as it is stored, row by row. */
export interface SeenPicture {
  /** RGBA, 0–1, of a row from pixel `from` to `to`; those beside it stay as they were. Used again for the next one. */
  row(y: number, from: number, to: number): Float32Array
  /** Alpha of a row as it is stored; null where all is solid. */
  alpha: ((y: number) => StoredRow) | null
  /** The same of luma; null where none is stored. */
  luma: ((y: number) => StoredRow) | null
}

/** (values[at + x · stride] − zero) · scale is the value of pixel x, 0–1. */
export interface StoredRow {
  values: Uint8Array | Uint16Array | Float32Array
  at: number
  stride: number
  zero: number
  scale: number
}

/** What a file says of itself. */
export interface FileFacts {
  width: number
  height: number
  /** Null where the format has no rate of its own. */
  rate: Rate | null
  /** Null where the format says nothing of colour by design. */
  tags: ColourTags | null
  /** Null where the format has none. */
  timecode: string | null
}

/** A delivery as it is read back. */
export interface ReadFile extends FileFacts {
  stored: StoredForm
  /** False where the file says that it carries no alpha; left out where its pixels tell. */
  alpha?: boolean
  /** What a second file says of itself, where alpha is one. */
  key?: FileFacts
  /** Numbers in the names of pictures, in their order; left out where there are no names. */
  numbers?: number[]
  /** For how long each picture is shown, and how often all are; left out where a rate says that. */
  times?: ShownTimes
  /** Each frame as its bytes are stored, unpacked: what makes it that frame and no other. They are used again for the next one. */
  frames: AsyncIterable<Uint8Array>
}

/** What a file is to show of the frames of a run. */
export interface Shown {
  /** Of a frame, `index` being its place in the run. Places come in their order, some may be left out. */
  of(picture: FramePicture, index: number): FramePicture | Promise<FramePicture>
  /** Lets go what it has open. */
  end?(): void
}

/** How a delivery is written and how it is read again. */
export interface Encoder {
  /** What of a frame the file is to show; the frame itself where left out. */
  shown?(plan: FilePlan): Promise<Shown>
  open(plan: FilePlan): Promise<FrameWriter>
  read(plan: FilePlan): Promise<ReadFile>
  /** What the file is to say of its colour; null where it says nothing. */
  tags: ColourTags | null | ((plan: FilePlan) => ColourTags | null)
  /** The same of a second file with alpha. */
  keyTags?(plan: FilePlan): ColourTags | null
}
