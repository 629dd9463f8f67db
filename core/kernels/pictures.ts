import { BrushKernels } from './brush'
import type { Layers } from './memory'
import type { Address } from './module'

/** Integers of a picture: RGBA, 8 or 16 bits a channel. */
export interface IntegerPicture {
  width: number
  height: number
  pixels: Uint8Array | Uint16Array
}

/** Pictures of files made ready for being laid; see assembly/ready-picture.ts. */
export class PictureKernels extends BrushKernels {
  /** Premultiplied RGBA of straight integers. `table`: what each of their steps stands for. */
  readyStraight({ width, height, pixels }: IntegerPicture, table: Float32Array): Layers {
    const layers = this.layers(width, height, false)
    const at = this.numbersOnce(table)
    this.run.readyStraight(this.integers(pixels), pixels.BYTES_PER_ELEMENT === 2, layers.at, width * height, at)
    return layers
  }

  /** As `readyStraight`, of integers that were laid on black (0) or white (1). `table`: even steps from 0 to 1. */
  readyLaid({ width, height, pixels }: IntegerPicture, table: Float32Array, ground: number): Layers {
    const layers = this.layers(width, height, false)
    const at = this.numbersOnce(table)
    const [count, steps] = [width * height, table.length - 1]
    this.run.readyLaid(this.integers(pixels), pixels.BYTES_PER_ELEMENT === 2, layers.at, count, at, steps, ground)
    return layers
  }

  /** Means of two by two pixels of a picture without gaps between its rows. */
  halfPicture({ at, w, h }: Layers): Layers {
    const half = this.layers(Math.max(1, w >> 1), Math.max(1, h >> 1), false)
    this.run.halfPicture(at, w, h, half.at, half.w, half.h)
    return half
  }

  /** dst · keep + src · share, in dst. */
  mixInto(src: Layers, dst: Layers, keep: number, share: number): void {
    this.run.mixInto(src.at, dst.at, src.w * src.h, keep, share)
  }

  private integers(values: Uint8Array | Uint16Array): Address {
    const at = this.take(values.byteLength)
    new Uint8Array(this.memory.buffer, at, values.byteLength).set(
      new Uint8Array(values.buffer, values.byteOffset, values.byteLength),
    )
    return at
  }
}
