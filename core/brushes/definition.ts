import type { BrushStroke } from './stroke'

/** What a new stroke takes over from its tip. */
export type TipSettings = Pick<
  BrushStroke,
  'hardness' | 'spacing' | 'scatter' | 'along' | 'turn' | 'turnBy' | 'flow' | 'opacity' | 'pressSize' | 'pressFlow'
>

/** Random numbers of 0–1 for whole numbers. */
export type Chance = (index: number) => number

/** A kind of tip: what one dab of a brush is. */
export interface TipDefinition {
  kind: string
  label: string
  /** What it is, in one sentence. */
  help: string
  /** How it is made, as a formula: see TIP_LAWS for what its letters mean. */
  law: string
  /** Values with which a stroke of it begins. */
  starts: Partial<TipSettings>
  /**
   * How much each pixel of a square of `side` px covers, 0–1, row by row; it covers nothing at its border. Without it the tip is a
   * disc, whole out to its hardness.
   */
  raster?(side: number, chance: Chance): Float32Array
}

/** Between what the numbers of a tip's settings lie. */
export const TIP_RANGES = {
  ...{ hardness: [0, 100], flow: [0, 100], opacity: [0, 100], pressSize: [0, 100], pressFlow: [0, 100] },
  ...{ spacing: [1, 1000], scatter: [0, 1000], turn: [-36_000, 36_000], turnBy: [0, 180] },
} as const satisfies Partial<Record<keyof TipSettings, readonly [number, number]>>

/** What a stroke begins with where its tip does not say otherwise. */
export const USUAL: TipSettings = {
  ...{ hardness: 100, spacing: 10, scatter: 0, along: false, turn: 0, turnBy: 0 },
  ...{ flow: 100, opacity: 100, pressSize: 60, pressFlow: 0 },
}
