import { PlaneRows } from '../../../core/kernels/plane-rows'
import type { SeenPicture } from './encoder'

// Pictures of luma and two chromas, as codecs keep them, to RGB.

/** How the planes of a pixel format lie. */
export interface PlaneForm {
  alpha: boolean
  /** Bits of a value; more than 8 are stored in 16, little-endian. */
  depth: number
  /** Pixels that share a chroma, as powers of two. */
  across: 0 | 1
  down: 0 | 1
  grey: boolean
}

/** The form of a pixel format by ffmpeg's name; null for others than planar ones of luma and chroma. */
export function planeForm(format: string): PlaneForm | null {
  const grey = /^gray(?:(9|10|12|14|16)le)?$/.exec(format)
  if (grey) return { alpha: false, depth: Number(grey[1] ?? 8), across: 0, down: 0, grey: true }
  const match = /^yuvj?(a?)(420|422|444)p(?:(9|10|12|14|16)le)?$/.exec(format)
  if (!match) return null
  const shared = match[2]
  return {
    alpha: match[1] === 'a',
    depth: Number(match[3] ?? 8),
    across: shared === '444' ? 0 : 1,
    down: shared === '420' ? 1 : 0,
    grey: false,
  }
}

export interface PlaneSize {
  width: number
  height: number
}

const chromaSize = ({ width, height }: PlaneSize, { across, down }: PlaneForm) => ({
  width: (width + across) >> across,
  height: (height + down) >> down,
})

/** Bytes of a picture. */
export function bytesOfPlanes(size: PlaneSize, form: PlaneForm): number {
  const chroma = chromaSize(size, form)
  const whole = size.width * size.height * (form.alpha ? 2 : 1)
  const values = whole + (form.grey ? 0 : 2 * chroma.width * chroma.height)
  return values * (form.depth > 8 ? 2 : 1)
}

/**
 * A picture in planes: BT.709 (ITU-R BT.709-6 §3), in the legal range (16 to 235 of 8 bits) or the full one. A chroma stands for
 * all its pixels.
 */
export function seenInPlanes(bytes: Uint8Array, size: PlaneSize, form: PlaneForm, full = false): SeenPicture {
  const { width, height } = size
  const { depth, across, down, grey } = form
  const values = depth > 8 ? new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 2) : bytes
  const chroma = chromaSize(size, form)
  const cbAt = width * height
  const crAt = cbAt + chroma.width * chroma.height
  const alphaAt = grey ? cbAt : crAt + chroma.width * chroma.height
  const { zero, scale } = lumaLevels(depth, full)
  const chromaScale = 1 / (full ? 2 ** depth - 1 : 224 * 2 ** (depth - 8))
  const middle = 2 ** (depth - 1)
  const top = 1 / (2 ** depth - 1)
  const rows = rowsFor(width)
  return {
    row(y, from, to) {
      const line = y * width
      const chromaLine = (y >> down) * chroma.width
      const part = (at: number, begin: number, end: number) => values.subarray(at + begin, at + end)
      const shared = [from >> across, ((to - 1) >> across) + 1] as const
      return rows.convert(
        {
          y: part(line, from, to),
          chromas: grey ? null : [part(cbAt + chromaLine, ...shared), part(crAt + chromaLine, ...shared)],
          alpha: form.alpha ? part(alphaAt + line, from, to) : null,
        },
        { from, across, zero, scale, middle, chromaScale, top },
      )
    },
    alpha: form.alpha ? (y) => ({ values, at: alphaAt + y * width, stride: 1, zero: 0, scale: top }) : null,
    luma: (y) => ({ values, at: y * width, stride: 1, zero, scale }),
  }
}

let known: { width: number; rows: PlaneRows } | null = null

/** Rows are converted one after the other: pictures of one width share their memory. */
function rowsFor(width: number): PlaneRows {
  if (known?.width !== width) known = { width, rows: new PlaneRows(width) }
  return known.rows
}

/** (value − zero) · scale is the luma of a value, 0–1. */
export function lumaLevels(depth: number, full: boolean): { zero: number; scale: number } {
  const unit = 2 ** (depth - 8)
  return full ? { zero: 0, scale: 1 / (2 ** depth - 1) } : { zero: 16 * unit, scale: 1 / (219 * unit) }
}
