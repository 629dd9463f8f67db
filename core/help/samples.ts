import { createCard, createCoat, createFinish, createPiece, createStep } from '../card/create'
import type { Card, Coat, Finish, OutlineStep, Piece } from '../card/schema'
import { addRanges } from '../edit/ranges'
import { addMotor, changeMotor } from '../edit/motors'
import type { RangeStart } from '../type/range-starts'
import type { StoredPaint } from '../values/moving'
import type { Pattern } from '../values/paints'

// Small cards on which help shows what a kind does: without it, and with it. The engine makes their pictures, as those of any card.

export const SIZE = { width: 480, height: 270, rate: { numerator: 25, denominator: 1 }, length: 50 }
export const WORD = 'sample'
export const solid = (colour: string) => ({ type: 'solid' as const, colour })

/** What a kind is shown on; `before` is null where there is nothing to compare with. */
export interface HelpSample {
  before: Card | null
  after: Card
  /** Whether it moves. */
  plays: boolean
  /** What the two pictures are called, where that is not “without” and “with it”. */
  called?: readonly [before: string, after: string]
}

/** A card with a word in the middle, over a ground that shadows are seen on. */
export function wordCard(values: Partial<Record<string, unknown>> = {}, behind: Coat[] = [], colour = '#B8472E'): Card {
  const card = {
    ...createCard('Sample', SIZE),
    background: { ...solid('#C9C2B4') },
  } as Card
  const piece = {
    ...createPiece('type', card),
    ...{ id: WORD, wording: 'Quay', font: 'archivo-black', size: 150, x: 240, y: 135 },
    ...values,
  } as Piece
  const fill = { ...createCoat('fill', 'sample-fill'), paint: solid(colour) } as unknown as Coat
  return { ...card, pieces: [{ ...piece, coats: { face: [fill], behind } } as Piece] }
}

export const changed = (card: Card, change: (piece: Piece) => Piece): Card => ({
  ...card,
  pieces: card.pieces.map((piece) => (piece.id === WORD ? change(piece) : piece)),
})

export const GRADIENT = {
  ...{ type: 'linear', angle: 90, scale: 100, shift: 0, hang: 'piece', spread: 'pad', mix: 'srgb', x: 50, y: 50 },
  form: 'circle',
}
/** The ends of the gradients that are shown. */
const ENDS = [
  { at: 0, colour: '#7A1F2B' },
  { at: 100, colour: '#F6C667' },
]

/** What of a kind's values is set so that it shows: the defaults of some change nothing until a hand moves them. */
const COATS: Readonly<Record<string, object>> = {
  stroke: { width: 12, paint: solid('#2B2420') },
  fill: {
    paint: { ...GRADIENT, stops: ENDS },
  },
  shadow: { distance: 14, softness: 18 },
  glow: { reach: 40 },
  bevel: { width: 14 },
  sheen: { distance: 18, softness: 22 },
  depth: { length: 26 },
}

export function coatSample(kind: string): HelpSample {
  const before = wordCard()
  const coat = { ...createCoat(kind, 'shown'), ...COATS[kind] } as Coat
  const isBehind = kind === 'depth' || ((kind === 'shadow' || kind === 'glow') && coat.side === 'outside')
  const after = changed(before, (piece) => ({
    ...piece,
    coats: isBehind
      ? { ...piece.coats, behind: [coat] }
      : { ...piece.coats, face: kind === 'fill' ? [coat] : [coat, ...piece.coats.face] },
  }))
  return { before, after, plays: false }
}

/** A gradient on the face of the letters. */
export function paintSample(type: Exclude<StoredPaint['type'], 'solid' | 'texture'>): HelpSample {
  const paint = { ...GRADIENT, type, stops: ENDS }
  return { before: wordCard(), after: changed(wordCard(), (piece) => faced(piece, paint)), plays: false }
}

/** Null for pictures, which are brought in. */
export function patternSample(pattern: Pattern): HelpSample | null {
  if (pattern === 'picture') return null
  const texture = { ...FLOW, pattern, colour: '#F6C667', ground: '#7A1F2B', hang: 'piece' }
  return { before: wordCard(), after: changed(wordCard(), (piece) => faced(piece, texture)), plays: false }
}

const faced = (piece: Piece, paint: object): Piece => ({
  ...piece,
  coats: { ...piece.coats, face: piece.coats.face.map((coat) => ({ ...coat, paint }) as unknown as Coat) },
})

/** A word that goes across by an easing, and waits. */
export function easingSample(easing: string): HelpSample {
  const keys = [
    { frame: 0, value: 110, easing },
    { frame: 20, value: 370, easing: 'hold' },
  ]
  return { before: null, after: wordCard({ size: 76, x: { keys } }), plays: true }
}

const FLOW = {
  ...{ type: 'texture', pattern: 'flow', colour: '#FFFFFF', ground: '#000000', hang: 'card' },
  ...{
    scale: 100,
    angle: 0,
    x: 0,
    y: 0,
    weight: 50,
    seed: 3,
    sizeX: 120,
    sizeY: 60,
    detail: 3,
    brightness: 0,
    evolution: 0,
  },
}
const FINISHES: Readonly<Record<string, object>> = {
  displace: { map: FLOW, x: 40, y: 20 },
  turbulence: { amount: 26 },
  exposure: { stops: 1 },
  tone: { middle: 2.2 },
  curve: { curve: 'reeds' },
  colour: { hue: 150 },
  tint: {
    colours: {
      ...GRADIENT,
      stops: [
        { at: 0, colour: '#10263A' },
        { at: 100, colour: '#F6E3B0' },
      ],
    },
  },
  'colour-steps': { levels: 3 },
  move: { x: 40, turn: 8 },
  fringe: { amount: 10 },
  edge: { grow: 8 },
  grain: { amount: 16 },
  bloom: { threshold: 20, strength: 100 },
  vignette: { amount: 80, radius: 70 },
  lines: { distance: 12 },
  glint: { amount: 90, place: 50 },
}

export function finishSample(kind: string): HelpSample {
  // Grain and bands are thrown anew, frame by frame.
  const plays = ['trails', 'grain', 'bands'].includes(kind)
  const base = wordCard()
  const shaded = changed(base, (piece) => {
    const bevel = { ...createCoat('bevel', 'sample-bevel'), width: 14 } as Coat
    return { ...piece, coats: { ...piece.coats, face: [bevel, ...piece.coats.face] } }
  })
  const before = kind === 'trails' ? swaying(shaded) : shaded
  const finish = { ...createFinish(kind, 'shown'), ...FINISHES[kind] } as Finish
  return { before, after: changed(before, (piece) => ({ ...piece, finishes: [finish] })), plays }
}

/** To and fro over the card. */
const swaying = (card: Card): Card => withMotor(card, `${WORD}/x`, 'sway', { amount: 90 })

export const withMotor = (card: Card, address: string, kind: string, values: object): Card =>
  changeMotor(addMotor(card, address, kind, 0), address, 0, values)

const STEPS: Readonly<Record<string, object>> = {
  line: { thickness: 8 },
  'draw-on': { end: 62 },
  dashes: { dash: 26, gap: 16 },
  rough: { amount: 9, size: 26 },
  round: { outer: 22 },
  grow: { by: 9 },
  slices: { along: 22 },
  warp: { bend: 90 },
  taper: {},
}

/** Steps that work on lines are shown on letters that a line was made of first. */
export function stepSample(kind: string, works: string): HelpSample {
  const onLines = works === 'lines'
  const line = { ...createStep('line', 'sample-line'), thickness: 10 } as unknown as OutlineStep
  const before = changed(wordCard(), (piece) => ({ ...piece, outlineSteps: onLines ? [line] : [] }))
  const step = { ...createStep(kind, 'shown'), ...STEPS[kind] } as unknown as OutlineStep
  // The last of the list works first.
  return {
    before,
    after: changed(before, (piece) => ({ ...piece, outlineSteps: [step, ...piece.outlineSteps] })),
    plays: false,
  }
}

export function rangeSample(start: RangeStart): HelpSample {
  const moved = addRanges(wordCard({ wording: 'Lanterns', size: 84 }), WORD, start)
  const swept = changed(moved, (piece) =>
    piece.kind === 'type'
      ? {
          ...piece,
          ranges: piece.ranges.map((range) => ({
            ...range,
            // Far ways are shortened: the sample is a quarter of a card.
            ...{ x: range.x as number, sweep: { keys: SWEEP } },
          })),
        }
      : piece,
  )
  return { before: null, after: swept, plays: true }
}

const SWEEP = [
  { frame: 0, value: 0, easing: 'linear' },
  { frame: 34, value: 100, easing: 'hold' },
]
