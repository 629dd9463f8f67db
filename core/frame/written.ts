import type { PixelForm } from '../kernels/pixel-form'
import { bytesOf } from '../kernels/pixel-form'
import type { GridBox } from './grid-box'
import { united } from './grid-box'
import type { LaidFrame } from './ground'

interface Size {
  width: number
  height: number
  form: PixelForm
}

interface Record extends LaidFrame {
  size: Size
  /** The canvas's own place. */
  x: number
  y: number
}

/** What was written into pictures that were given out: asked for again, only what is other now is written anew. */
export class Written {
  private readonly records = new WeakMap<Uint8Array, Record>()

  /**
   * Pixels for a frame, and the part of the canvas that is to be written into them; null for nothing. `again` are pixels
   * that nobody needs any more.
   */
  begin(
    again: Uint8Array<ArrayBuffer> | undefined,
    size: Size,
    laid: LaidFrame,
    { x, y }: { x: number; y: number },
  ): { pixels: Uint8Array<ArrayBuffer>; part: GridBox | null } {
    const { width, height, form } = size
    const bytes = width * height * 4 * bytesOf(form.bits)
    const pixels = again?.length === bytes ? again : new Uint8Array(bytes)
    const before = this.records.get(pixels)
    this.records.set(pixels, { ...laid, size, x, y })
    const alike =
      before?.x === x &&
      before.y === y &&
      before.size.width === width &&
      before.size.height === height &&
      sameForm(before.size.form, form)
    if (alike && laid.ground !== null && before.ground === laid.ground) {
      return { pixels, part: united(before.changed, laid.changed) }
    }
    if (pixels === again) clear(pixels, alike ? before : null, size)
    return { pixels, part: laid.touched }
  }

  /** What was known of `before` is known of `pixels`: the same bytes, which came back from another thread. */
  moved(before: Uint8Array, pixels: Uint8Array): void {
    const record = this.records.get(before)
    if (record) this.records.set(pixels, record)
  }

  /** Nothing is known of these pixels any more. */
  forget(pixels: Uint8Array): void {
    this.records.delete(pixels)
  }
}

/** Clears the rows that hold anything; all where that is not known. */
function clear(pixels: Uint8Array, before: Record | null, { width, form }: Size): void {
  if (!before) pixels.fill(0)
  else if (before.touched) {
    const row = width * 4 * bytesOf(form.bits)
    const from = before.touched.y - before.y
    pixels.fill(0, from * row, (from + before.touched.h) * row)
  }
}

const sameForm = (one: PixelForm, other: PixelForm): boolean =>
  one.bits === other.bits && one.alpha === other.alpha && one.light === other.light
