import type { BrushStroke } from '../brushes/stroke'
import type { CardField } from './fields'
import type { BlendMode } from '../kernels/blend-modes'
import type { Rate } from '../values/rate'
import type { TypeAxis } from '../type/axes'
import type { LetterRange } from '../type/ranges'
import type { TypeRun } from '../type/runs'
import type { Movable, StoredPaint, StoredValue } from '../values/moving'
import { number } from '../values/parameters'

// Version 3 of the card file. Its types, written out for readers; what checks.ts says is the authority.

export const CARD_FORMAT = 'wax-ribbon-card'
export const CARD_VERSION = 3
/** Larger frames are refused: 8192 × 8192 float pixels are 1 GB. */
export const LARGEST_SIDE = 8192
/** An hour at 60 frames a second. */
export const LONGEST_LOOP = 216_000

interface PlacedPiece {
  id: string
  name: string
  on: Movable<boolean>
  /** The stage leaves a locked piece alone. */
  locked: boolean
  /** The frames in which it is seen, [in, out); null for all. Its motion is the card's, seen or not. */
  span: { in: number; out: number } | null
  /** Each picture of it is held for so many frames. */
  steps: number
  /** Takes part in the card's motion blur. */
  blurred: boolean
  /** The seal that was pressed on it last, by its id on the server; its coats may have been changed since. */
  seal: { id: string; variant: string } | null
  x: Movable<number>
  y: Movable<number>
  /** The point of the piece that stands at (x, y), from its own origin. */
  anchorX: Movable<number>
  anchorY: Movable<number>
  rotation: Movable<number>
  scale: Movable<number>
  /** In %: acts on the outline, and in a group on all that it holds. */
  stretchX: Movable<number>
  stretchY: Movable<number>
  skew: Movable<number>
  /** The words that it is woven through, and the letters that it passes behind, counted from 1. */
  weave: string | null
  weaveLetters: Movable<string>
  opacity: Movable<number>
  blend: BlendMode
  /** Both lists are front first. */
  coats: { face: Coat[]; behind: Coat[] }
  /** What is done to its finished picture, front first: the last one works first. */
  finishes: Finish[]
  /** What changes its outline, front first: the last one works first. None on what has no outline. */
  outlineSteps: OutlineStep[]
  /** What of its picture is seen, front first: the last one works first. */
  masks: Mask[]
}

export interface TypePiece extends PlacedPiece {
  kind: 'type'
  wording: Movable<string>
  /** The type piece whose words it shows instead of its own. */
  linked: string | null
  /** Id of a shipped font, or of one that the user brought. */
  font: string
  size: Movable<number>
  tracking: Movable<number>
  leading: Movable<number>
  align: 'left' | 'centre' | 'right' | 'justify'
  width: Movable<number>
  wide: 'break' | 'smaller' | 'closer'
  least: Movable<number>
  closest: Movable<number>
  letterCase: 'typed' | 'upper' | 'lower' | 'title'
  shift: Movable<number>
  features: Movable<string>
  /** In no file: the letters that are drawn, counted from 0; all where left out. */
  only?: readonly number[]
  /** The piece along whose outline the words stand. */
  along: string | null
  start: Movable<number>
  pathSide: 'left' | 'right'
  overflow: 'hide' | 'straight'
  /** Letter motion: each range on what the one before it gives. */
  ranges: LetterRange[]
  /** Where its variable font stands on its axes. */
  axes: TypeAxis[]
  /** Stretches of the wording that are set otherwise. */
  runs: TypeRun[]
  /** Two characters, and the space between them by hand, in thousandths of the size. */
  pairs: { pair: string; by: number }[]
  /** Fonts for what its own has no glyph for, by their ids. */
  fallbacks: string[]
}

/** A shape whose size and place follow what other pieces span. */
interface FittingPiece extends PlacedPiece {
  width: Movable<number>
  height: Movable<number>
  fitTo: string[]
  fitBy: 'lines' | 'ink'
  fitWidth: Movable<boolean>
  fitHeight: Movable<boolean>
  fitX: 'left' | 'middle' | 'right' | 'free'
  fitY: 'top' | 'middle' | 'foot' | 'free'
  padLeft: Movable<number>
  padRight: Movable<number>
  padTop: Movable<number>
  padFoot: Movable<number>
}

export interface BoxPiece extends FittingPiece {
  kind: 'box'
  ownCorners: Movable<boolean>
  radius: Movable<number>
  topLeft: Movable<number>
  topRight: Movable<number>
  bottomRight: Movable<number>
  bottomLeft: Movable<number>
}

export interface PolygonPiece extends FittingPiece {
  kind: 'polygon'
  sides: Movable<number>
  /** 0 for a polygon; for a star how far its inner corners are drawn in, in %. */
  inset: Movable<number>
  radius: Movable<number>
}

export interface EllipsePiece extends FittingPiece {
  kind: 'ellipse'
}

export interface LinePiece extends PlacedPiece {
  kind: 'line'
  length: Movable<number>
  thickness: Movable<number>
  cap: 'butt' | 'round' | 'square'
}

export interface PathPiece extends PlacedPiece {
  kind: 'path'
  /** SVG path data around the piece's place. */
  path: Movable<string>
  thickness: Movable<number>
  cap: 'butt' | 'round' | 'square'
  join: 'round' | 'mitre' | 'bevel'
  rule: 'nonzero' | 'evenodd'
  /** How hard it was drawn, 0–1, at even distances along it; empty where it was not drawn freehand. */
  pressure: number[]
}

export interface PicturePiece extends PlacedPiece {
  kind: 'picture'
  /** Id of a picture that was brought in; null shows nothing. */
  picture: string | null
  width: Movable<number>
  height: Movable<number>
  linear: Movable<boolean>
}

/** Pictures over time. */
export interface SequencePiece extends Omit<ClockedPiece, 'clock'> {
  kind: 'sequence'
  /** What was brought in; null shows nothing. */
  sequence: { id: string; frames: number } | null
  /** The rate at which it plays; null for a picture each frame of the card. */
  rate: Rate | null
  width: Movable<number>
  height: Movable<number>
  linear: Movable<boolean>
  alpha: 'straight' | 'black' | 'white'
  between: 'nearest' | 'mixed'
  dissolve: Movable<number>
  clock: 'own' | 'keyed'
}

/** How the time within a piece follows from the time around it. */
interface ClockedPiece extends PlacedPiece {
  clock: 'around' | 'own' | 'keyed'
  clockStart: Movable<number>
  clockSpeed: Movable<number>
  clockFrom: Movable<number>
  clockTo: Movable<number>
  clockEnd: 'stop' | 'hold' | 'again' | 'fro'
  clockBackward: Movable<boolean>
  clockFrame: Movable<number>
}

/** What brushes painted. */
export interface PaintingPiece extends PlacedPiece {
  kind: 'painting'
  /** In the order in which they were painted. */
  strokes: BrushStroke[]
  /** How much of them is there, in %. */
  painted: Movable<number>
}

/** Pieces together: they move as one, and its coats lie around them all. */
export interface GroupPiece extends ClockedPiece {
  kind: 'group'
  /** Front first; their places count from the group's. */
  pieces: Piece[]
}

/** Shows another piece again, in step with it. */
export interface TwinPiece extends ClockedPiece {
  kind: 'twin'
  source: string | null
  way: 'own' | 'with'
  /** In frames. */
  delay: Movable<number>
}

/** Treats all that lies behind it in its list by its finishes; it has no coats. */
export interface WashPiece extends PlacedPiece {
  kind: 'wash'
}

export type Piece =
  | TypePiece
  | BoxPiece
  | EllipsePiece
  | PolygonPiece
  | LinePiece
  | PathPiece
  | PaintingPiece
  | PicturePiece
  | SequencePiece
  | GroupPiece
  | TwinPiece
  | WashPiece

/** A coat: what all have in common, and the parameters of its kind under their own names. */
export interface Coat {
  id: string
  kind: string
  /** Given by hand; empty for the name of its kind. */
  name: string
  on: Movable<boolean>
  opacity: Movable<number>
  blend: BlendMode
  [parameter: string]: StoredValue
}

/** A finish: what all have in common, and the parameters of its kind under their own names. */
export interface Finish {
  id: string
  kind: string
  /** Given by hand; empty for the name of its kind. */
  name: string
  on: Movable<boolean>
  strength: Movable<number>
  [parameter: string]: StoredValue
}

/** An outline step: what all have in common, and the parameters of its kind under their own names. */
export interface OutlineStep {
  id: string
  kind: string
  /** Given by hand; empty for the name of its kind. */
  name: string
  on: Movable<boolean>
  each: 'whole' | 'letters'
  [parameter: string]: StoredValue
}

/** A mask; its other parameters are those of its kind. */
export interface Mask {
  id: string
  kind: string
  name: string
  on: Movable<boolean>
  mode: 'add' | 'take' | 'keep'
  stage: 'before' | 'after'
  [parameter: string]: StoredValue
}

export interface Card {
  format: typeof CARD_FORMAT
  version: typeof CARD_VERSION
  name: string
  frame: { width: number; height: number }
  rate: Rate
  /** Loop length in frames; frame `length` is frame 0 again. */
  length: number
  background: StoredPaint | null
  /** Frames where a lower third has come in and where it begins to go out; what lies between is its hold. */
  zones: { hold: number; out: number } | null
  /** Each picture is held for so many frames. */
  steps: number
  /** Motion blur: when the shutter opens after the frame and for how long, in degrees (360 is a frame); null for none. */
  shutter: { angle: number; phase: number } | null
  /** Easings that were kept under a name. */
  easings: { name: string; easing: string }[]
  /** In which light pixels are blended: display-encoded sRGB, or linear. */
  blending: 'display' | 'linear'
  /** The key light: where the light comes from. */
  light: { azimuth: Movable<number>; elevation: Movable<number> }
  /** Hex colours that the card is made of. */
  palette: string[]
  /** Seeds the dithering. */
  seed: number
  /** What rows of a roster fill, in the order in which they are asked for. */
  fields: CardField[]
  /** Front first. */
  pieces: Piece[]
}

export const LIGHT_PARAMETERS = {
  azimuth: number({
    label: 'Light from',
    help: 'Where the key light comes from, in degrees anticlockwise: 0 is right, 90 above',
    default: 120,
    min: -36_000,
    max: 36_000,
    step: 1,
    unit: '°',
    slider: [-180, 180],
  }),
  elevation: number({
    label: 'Light height',
    help: 'Height of the key light above the page, in degrees',
    default: 45,
    min: 0,
    max: 90,
    step: 1,
    unit: '°',
  }),
} as const
