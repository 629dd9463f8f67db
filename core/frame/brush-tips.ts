import type { TipDefinition } from '../brushes/definition'
import { ownRaster } from '../brushes/own-tip'
import { TIP_KINDS } from '../brushes/table'
import { chanceOf } from '../brushes/tips'
import type { Kernels } from '../kernels/kernels'
import type { Address } from '../kernels/module'
import type { Picture } from '../paint/pictures'
import type { Px } from '../units'

/** Side of a tip as it is made; a power of two. Dabs take it, or one that is halved some times. */
const SIDE = 256
const LEAST_SIDE = 8

/** One size of a tip in the kernels' memory. */
export interface SizedTip {
  at: Address
  side: number
}

/** Own tips whose sizes are kept; another one takes the place of the oldest. */
const OWN = 8

/** Keeps the tips of brushes in the kernels' memory, each in its sizes. Made when they are first asked for. */
export class BrushTips {
  private readonly kept = new Map<string, readonly SizedTip[]>()
  /** Own tips in their places. */
  private readonly own: string[] = []
  private nextOwn = 0

  constructor(
    private readonly kernels: Kernels,
    /** Room for every tip that there is, and its halves. */
    private readonly room = kernels.reserve((TIP_KINDS.length + OWN) * SIDE * SIDE * 4 * 2),
  ) {}

  /** The size of a tip for dabs of a radius: the smallest that is no smaller than they are. */
  of(tip: TipDefinition, radius: Px): SizedTip {
    const place = TIP_KINDS.indexOf(tip.kind)
    return this.sized(tip.kind, radius, () => this.made(place, tip.raster!(SIDE, chanceOf(place + 1))))
  }

  /** As `of`, of a picture as a tip; valid until another own tip is asked for. */
  ofPicture(id: string, picture: Picture, radius: Px): SizedTip {
    return this.sized(id, radius, () => {
      const place = this.nextOwn
      const before = this.own[place]
      if (before !== undefined) this.kept.delete(before)
      this.own[place] = id
      this.nextOwn = (place + 1) % OWN
      return this.made(TIP_KINDS.length + place, ownRaster(picture, SIDE))
    })
  }

  private sized(name: string, radius: Px, make: () => readonly SizedTip[]): SizedTip {
    let sizes = this.kept.get(name)
    if (!sizes) {
      sizes = make()
      this.kept.set(name, sizes)
    }
    return sizes.filter(({ side }) => side >= 2 * radius).at(-1) ?? sizes[0]!
  }

  private made(place: number, raster: Float32Array): SizedTip[] {
    const sizes: SizedTip[] = []
    let at = this.room + place * SIDE * SIDE * 8
    let values = raster
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
