import { KernelMemory } from './memory'
import type { Address } from './module'

type Values = Uint8Array | Uint16Array

/** A part of a row of planes. */
export interface PlanePart {
  y: Values
  /** Cb and Cr; null where there is luma alone. */
  chromas: readonly [Values, Values] | null
  /** Null where all is solid. */
  alpha: Values | null
}

/** How values are meant: (value − zero) · scale is luma, (value − middle) · chromaScale a chroma, value · top alpha. */
export interface PlaneLevels {
  /** The first pixel of the part within its row, which is even where chromas are shared. */
  from: number
  /** Pixels that share a chroma, as a power of two. */
  across: number
  zero: number
  scale: number
  middle: number
  chromaScale: number
  top: number
}

/** Converts rows of luma and chromas to RGBA: ITU-R BT.709-6 §3. */
export class PlaneRows extends KernelMemory {
  private readonly planes: readonly [Address, Address, Address, Address]
  private readonly made: Address

  /** For rows of so many pixels. */
  constructor(private readonly width: number) {
    super()
    const plane = () => this.take(width * 2)
    this.planes = [plane(), plane(), plane(), plane()]
    this.made = this.take(width * 16)
  }

  /** RGBA of 0–1 of the row, of which only that part is written anew. Overwritten by the next one. */
  convert({ y, chromas, alpha }: PlanePart, levels: PlaneLevels): Float32Array {
    const { from, across, zero, scale, middle, chromaScale, top } = levels
    const { buffer } = this.memory
    const [toY, toCb, toCr, toA] = this.planes
    const put = (values: Values | null, at: Address) => {
      if (!values) return 0
      const bytes = new Uint8Array(values.buffer, values.byteOffset, values.byteLength)
      new Uint8Array(buffer, at, bytes.length).set(bytes)
      return at
    }
    this.run.planeRow(
      ...([put(y, toY), put(chromas?.[0] ?? null, toCb), put(chromas?.[1] ?? null, toCr), put(alpha, toA)] as const),
      y.BYTES_PER_ELEMENT === 2,
      ...[across, y.length, this.made + from * 16],
      ...[zero, scale, middle, chromaScale, top],
    )
    return new Float32Array(buffer, this.made, this.width * 4)
  }
}
