import type { EvaluatedTexture } from '../values/evaluated'
import type { Affine, Kernels } from '../kernels/kernels'
import type { Address } from '../kernels/module'
import type { Placement } from '../outline/outline'
import { place, within } from '../outline/outline'
import type { Rect } from '../units'
import { fromPixels } from './gradient'

/** Side of a generated tile in px at 100 %; a power of two. */
export const TILE = 512
/** Distance of lines in px at 100 %. */
const PERIOD = 32

type Tiled = 'noise' | 'brushed' | 'paper'

interface Octave {
  nx: number
  ny: number
  weight: number
}

/** Octaves of value noise: lattice cells over the tile, and their weights, which add up to 1. */
const OCTAVES: Record<Tiled, readonly Octave[]> = {
  noise: [
    { nx: 8, ny: 8, weight: 0.5 },
    { nx: 16, ny: 16, weight: 0.25 },
    { nx: 32, ny: 32, weight: 0.15 },
    { nx: 64, ny: 64, weight: 0.1 },
  ],
  brushed: [
    { nx: 4, ny: 128, weight: 0.4 },
    { nx: 8, ny: 256, weight: 0.4 },
    { nx: 32, ny: 512, weight: 0.2 },
  ],
  paper: [
    { nx: 16, ny: 16, weight: 0.15 },
    { nx: 128, ny: 96, weight: 0.35 },
    { nx: 96, ny: 128, weight: 0.3 },
    { nx: 512, ny: 512, weight: 0.2 },
  ],
}

/** Keeps tiles in the kernels' memory, one for each pattern and seed. */
export class Tiles {
  private readonly kept = new Map<string, { at: Address; used: number }>()
  private readonly room: Address[] = []
  private frame = 0

  constructor(
    private readonly kernels: Kernels,
    /** Tiles kept at once; one that this frame does not use makes room for a new one. */
    most = 6,
  ) {
    this.room = Array.from({ length: most }, () => kernels.reserve(TILE * TILE * 4))
  }

  /** Tiles that were asked for before this may be replaced from now on. */
  beginFrame(): void {
    this.frame++
  }

  /** A tile: kept, or, where this frame needs all that are, valid until the kernels' present mark is released. */
  of(pattern: Tiled, seed: number): Address {
    const key = `${pattern} ${seed}`
    const found = this.kept.get(key)
    if (found) {
      found.used = this.frame
      return found.at
    }
    const free = this.room[this.kept.size] ?? this.takeOldest()
    const at = free ?? this.kernels.plane(TILE, TILE).at
    this.make(at, OCTAVES[pattern], seed)
    if (free !== undefined) this.kept.set(key, { at, used: this.frame })
    return at
  }

  private takeOldest(): Address | undefined {
    const oldest = [...this.kept].find(([, { used }]) => used < this.frame)
    if (!oldest) return undefined
    this.kept.delete(oldest[0])
    return oldest[1].at
  }

  private make(at: Address, octaves: readonly Octave[], seed: number): void {
    this.kernels.floats({ at, w: TILE, h: TILE }).fill(0)
    octaves.forEach(({ nx, ny, weight }, i) => this.kernels.addNoise(at, TILE, nx, ny, weight, seed * 16 + i))
  }
}

/**
 * Render pixels to px of the texture at 100 %: turned, scaled and moved as the paint says. `unit` is one px of the
 * piece in the units of `bounds`.
 */
export function textureMap(paint: EvaluatedTexture, bounds: Rect, placement: Placement, unit: number): Affine {
  const origin = {
    x: (bounds.left + bounds.right) / 2 + paint.x * unit,
    y: (bounds.top + bounds.bottom) / 2 + paint.y * unit,
  }
  const stretch = 1 / (paint.scale * unit)
  // Turned within what the piece's own stretch does to it, about its middle.
  if (placement.stretch) {
    const { x, y } = place(placement, origin)
    const turned = within({ ...placement, x, y }, { scale: 1, rotation: paint.angle, x: 0, y: 0 })
    return fromPixels(turned, { x: 0, y: 0 }, stretch, stretch)
  }
  return fromPixels({ ...placement, rotation: placement.rotation + paint.angle }, origin, stretch, stretch)
}

/** The same map to periods of lines. */
export function lineMap({ a, b, c, d, e, f }: Affine): Affine {
  const k = 1 / PERIOD
  return { a: a * k, b: b * k, c: c * k, d: d * k, e: e * k, f: f * k }
}

/** Render pixels to a period. */
export const pixelsPerPeriod = ({ a, c }: Affine): number => PERIOD / Math.max(1e-9, Math.sqrt(a * a + c * c))
