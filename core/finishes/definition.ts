import type { Length, StoredValue } from '../values/moving'
import type { Parameters } from '../values/parameter-kinds'
import { number, toggle } from '../values/parameter-kinds'
import type { EvaluatedPaint, EvaluatedValues } from '../values/evaluated'
import type { Kernels, Picture, PlaceWindow } from '../kernels/kernels'
import type { Frames, Point, Px, Rect } from '../units'

// A finish is one pixel operation on a finished picture: of a piece or group, or, in a wash, of all that lies behind it.

/** What lengths and places of a finish mean, in render pixels. */
export interface FinishScale {
  /** A length of the card, % taken of the piece's size, or of the frame's smaller side in a wash. */
  px(length: Length): Px
  /** Render px per px of the piece. */
  unit: Px
  /** What places in % count from: the ink of the piece where it stands now, or the frame. */
  area: Rect
  /** What the picture spans: all that the coats of the piece touch, or the frame. */
  picture: Rect
  /** Whether it treats all that lies behind a wash. */
  wash: boolean
}

/** What a finish may ask of the engine while it works. */
export interface FinishBench extends FinishScale {
  kernels: Kernels
  /** Whether the card's pixels are linear light; else they are display-encoded sRGB. */
  linear: boolean
  /**
   * A random number of the card's seed, the finish, a seed of its own and the frame on the ring: new every `every` frames. At
   * 0 the same for all frames.
   */
  seed(every: Frames, own: number): number
  /**
   * What came in, so many frames later or (negative) earlier; null for before the card's first frame where `across` is false.
   * `part`: all that is needed of it.
   */
  at(frames: Frames, across: boolean, part?: PlaceWindow): Picture | null
  /** The part outside of which what came in was at all those frames what it is now; null where it was everywhere. */
  changes(frames: readonly Frames[], across: boolean): PlaceWindow | null
  /** Another piece as it stands on the card now, alone, in the box of the picture; null where it is not to be had. */
  piece(id: string): Picture | null
  /** Made ready once, a paint over any box, as it hangs on the piece or the card. */
  painter(paint: EvaluatedPaint): (box: PlaceWindow) => Picture
  /** The colours of a gradient, premultiplied, display-encoded. */
  colours(paint: EvaluatedPaint): Float32Array
}

/** Works rows in place. */
export type RowWork = (rows: Picture) => void

/** The reach of what may ask any pixel for any other: the whole picture is computed. */
export const EVERYWHERE = Infinity

export interface FinishDefinition<T extends Parameters = Parameters> {
  kind: string
  label: string
  /** What it does, in one sentence. */
  help: string
  parameters: T
  /** The value shown on the finish's slab: the parameter that says most. */
  headline: keyof T & string
  /** Beside its own pixel: what it looks at. */
  reads: 'pixel' | 'neighbours' | 'moments' | 'piece'
  /** Parameters that a hand holds on the stage: a place in % of the area, and a direction with its length. */
  hands?: {
    place?: readonly [keyof T & string, keyof T & string]
    way?: { angle: keyof T & string; length: keyof T & string }
    /** What crosses the picture: where it is on its way in %, the way's angle, and between which points that leads. */
    crossing?: {
      place: keyof T & string
      angle: keyof T & string
      ends(values: EvaluatedValues<T>, scale: Pick<FinishScale, 'px' | 'area'>): readonly [Point, Point]
    }
  }
  /** Whether nothing changes at these values: the picture stays to the bit. */
  idle?(values: EvaluatedValues<T>): boolean
  /** How far from a pixel it looks, and so how far around what came in its work can be seen. */
  reach?(values: EvaluatedValues<T>, scale: FinishScale): Px
  /** Where it looks everywhere: how far from its own place anything of `bounds` can be seen. */
  far?(values: EvaluatedValues<T>, scale: FinishScale, bounds: Rect): Px
  /** Where it paints whether anything came in or not; null for nowhere. */
  paints?(values: EvaluatedValues<T>, scale: FinishScale): Rect | null
  /** Whether it changes nothing where what came in was always what it is now. */
  keepsStill?(values: EvaluatedValues<T>): boolean
  /** Frames from now at which it asks for what came in. */
  moments?(values: EvaluatedValues<T>): readonly Frames[]
  /** The piece that it looks at; null for none. */
  looksAt?(values: Pick<Record<keyof T, unknown>, string>): string | null
  /** Whether its picture changes from frame to frame though no value moves. `stored` are its values in the document. */
  restless?(stored: Readonly<Record<string, StoredValue>>): boolean
  /** Point operations: made ready once for a picture, then given its rows. */
  rows?(values: EvaluatedValues<T>, bench: FinishBench): RowWork
  /** All others: fills `dst`, which lies in the box of `src`. */
  work?(values: EvaluatedValues<T>, bench: FinishBench, src: Picture, dst: Picture): void
}

/** Keeps the parameter types while registering. */
export const defineFinish = <T extends Parameters>(definition: FinishDefinition<T>): FinishDefinition<T> => definition

/** What every finish has beside its own parameters. */
export const COMMON_FINISH_PARAMETERS = {
  strength: number({
    label: 'Strength',
    help: 'How much of what the finish made is mixed with what came in, in %',
    default: 100,
    min: 0,
    max: 100,
    step: 1,
    unit: '%',
  }),
  on: toggle({ label: 'Shown', help: 'Whether the finish works; it changes at a key', default: true }),
} as const
