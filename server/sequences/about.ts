import type { VideoStream } from './programs'
import type { Rate } from '../../core/values/rate'

/** Bytes of a file of moving pictures, or of all numbered pictures together. */
export const LARGEST_SEQUENCE_BYTES = 1024 * 1024 * 1024

/** What is known of a sequence that was brought in. It lies beside its file. */
export interface SequenceAbout {
  /** Made from its contents. */
  id: string
  fileName: string
  /** How its pictures are read: as PNG files that were numbered, by ffmpeg, or by sharp. */
  read: 'pictures' | 'video' | 'webp'
  width: number
  height: number
  /** How many pictures are played. */
  frames: number
  /** Which of the stored pictures each of them is; null where they are those in their order. */
  order: number[] | null
  /** Null where the files say none. */
  rate: Rate | null
  bits: 8 | 16
  /** On what its colours seem to be laid; null for pictures without alpha. */
  alpha: 'straight' | 'black' | 'white' | null
  /** Of a video: what ffprobe says of it. */
  stream?: VideoStream
  /** What was found odd, in sentences. */
  notes: string[]
}
