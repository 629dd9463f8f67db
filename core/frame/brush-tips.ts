import type { TipDefinition } from '../brushes/definition'
import { TIP_KINDS } from '../brushes/table'
import { chanceOf } from '../brushes/tips'
import type { Kernels } from '../kernels/kernels'
import type { Address } from '../kernels/module'
import type { Px } from '../units'

/** Side of a tip as it is made; a power of two. Dabs take it, or one that is halved some times. */
const SIDE = 256
const LEAST_SIDE = 8

/** One size of a tip in the kernels' memory. */
export interface SizedTip {
  at: Address
  side: number
}

/** Keeps the tips of brushes in the kernels' memory, each in its sizes. Made when they are first asked for. */
export class BrushTips {
  private readonly kept = new Map<string, readonly SizedTip[]>()

  constructor(
    private readonly kernels: Kernels,
    /** Room for every tip that there is, and its halves. */
    private readonly room = kernels.reserve(TIP_KINDS.length * SIDE * SIDE * 4 * 2),
  ) {}

  /** The size of a tip for dabs of a radius: the smallest that is no smaller than they are. */
  of(tip: TipDefinition, radius: Px): SizedTip {
    let sizes = this.kept.get(tip.kind)
    if (!sizes) {
      sizes = this.made(tip)
      this.kept.set(tip.kind, sizes)
    }
    return sizes.filter(({ side }) => side >= 2 * radius).at(-1) ?? sizes[0]!
  }

  private made(tip: TipDefinition): SizedTip[] {
    const sizes: SizedTip[] = []
    let at = this.room + TIP_KINDS.indexOf(tip.kind) * SIDE * SIDE * 8
    let values = tip.raster!(SIDE, chanceOf(TIP_KINDS.indexOf(tip.kind) + 1))
    for (let side = SIDE; side >= LEAST_SIDE; side /= 2) {
      this.kernels.floats({ at, w: side, h: side }).set(values)
      sizes.push({ at, side })
      at += side * side * 4
      values = halved(values, side)
    }
    return sizes
  }
}

/** The mean of each four. */
function halved(values: Float32Array, side: number): Float32Array {
  const half = side / 2
  return Float32Array.from({ length: half * half }, (_, i) => {
    const at = Math.floor(i / half) * 2 * side + (i % half) * 2
    return (values[at]! + values[at + 1]! + values[at + side]! + values[at + side + 1]!) / 4
  })
}
