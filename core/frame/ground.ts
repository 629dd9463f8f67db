import type { Kernels } from '../kernels/kernels'
import type { Rect } from '../units'
import type { Canvas } from './canvas'
import type { GridBox } from './grid-box'
import { common } from './grid-box'
import type { LaidPicture, Shelf } from './shelf'

/** Something laid on the canvas, back to front: the background, then the pieces. */
export interface Stratum {
  /** Equal names, equal pixels on equal ground. */
  name(): string
  /** What it can touch while the shutter is open. */
  spans(): Rect | null
  /** Whether it is the same at all frames, on equal ground. */
  still: boolean
  lay(canvas: Canvas): void
}

/** What the canvas holds, as far as it can be used again. */
interface Held {
  canvas: Canvas
  /** Names the strata that were kept as one picture. */
  name: string
  /** What lies on them beside; null for nothing. */
  dirty: GridBox | null
}

/** What of a canvas is other than in the frame before. */
export interface LaidFrame {
  /** Names the ground that was taken from what was kept; null for none. */
  ground: string | null
  /** All that is not clear. */
  touched: GridBox | null
  /** What was laid on the ground. */
  changed: GridBox | null
}

/**
 * Lays a frame's strata, and keeps those at the back that are the same as in the frame before: they are copied as they
 * lay, so that no byte depends on what was kept.
 */
export class Ground {
  private last: readonly string[] = []
  private held: Held | null = null
  /** The frame that the canvas shows; null where that is not known. */
  private shown: { canvas: Canvas; laid: LaidFrame } | null = null

  constructor(
    private readonly kernels: Kernels,
    private readonly finished: Shelf<LaidPicture>,
    /** Gives a short name to a long one. */
    private readonly nameOf: (text: string) => string,
    /** Whether anything is kept from frame to frame. */
    private readonly keeps: boolean,
  ) {}

  /** The canvas is about to be used for something else. */
  forget(): void {
    this.held = null
    this.shown = null
  }

  /** `canvas` holds what `lay` left on it the last time, or is clear. */
  lay(canvas: Canvas, strata: readonly Stratum[]): LaidFrame {
    const { x, y, w, h } = canvas.box
    const names: string[] = []
    for (const stratum of strata) {
      names.push(this.nameOf(`${names.at(-1) ?? `${x} ${y} ${w} ${h}`} ${stratum.name()}`))
    }
    const same = firstOther(names, this.last)
    // A card on twos shows each picture twice: it lies there.
    if (same === names.length && this.last.length === same && this.shown?.canvas === canvas) return this.shown.laid
    const { count, kept } = this.longestKept(names)
    this.shown = null
    this.restore(canvas, count > 0 ? names[count - 1]! : null, kept)
    canvas.ground = kept?.box ?? null
    // As far as this frame begins like the last one, the next one probably will too.
    let ground = count > 0 ? names[count - 1]! : null
    for (let i = count; i < strata.length; i++) {
      strata[i]!.lay(canvas)
      if (i + 1 !== same) continue
      const all = canvas.inked
      if (!all || !this.finished.keep(names[i]!, { ...canvas.window(all), box: all })) continue
      ground = names[i]!
      canvas.ground = all
      canvas.touched = null
    }
    const changed = canvas.touched
    canvas.touched = canvas.inked
    canvas.ground = null
    this.last = names
    this.held = ground === null ? null : { canvas, name: ground, dirty: changed }
    const laid = { ground, touched: canvas.touched, changed }
    this.shown = this.keeps ? { canvas, laid } : null
    return laid
  }

  private longestKept(names: readonly string[]): { count: number; kept: LaidPicture | null } {
    for (let count = names.length; count > 0; count--) {
      const kept = this.finished.get(names[count - 1]!)
      if (kept) return { count, kept }
    }
    return { count: 0, kept: null }
  }

  /** Leaves the canvas with the kept picture alone, and marks nothing as touched. */
  private restore(canvas: Canvas, name: string | null, kept: LaidPicture | null): void {
    const { held, kernels } = this
    const again = held !== null && held.canvas === canvas && held.name === name
    const stale = again ? held.dirty : canvas.touched
    if (stale) kernels.clear(canvas.window(stale))
    canvas.touched = null
    const part = kept && (again ? stale && common(stale, kept.box) : kept.box)
    if (!kept || !part || part.w <= 0 || part.h <= 0) return
    const { x, y, w, h } = part
    kernels.copy(kernels.window(kept, x - kept.box.x, y - kept.box.y, w, h), canvas.window(part))
  }
}

/** How many names are those of before. */
function firstOther(names: readonly string[], before: readonly string[]): number {
  const other = names.findIndex((name, i) => before[i] !== name)
  return other < 0 ? names.length : other
}
