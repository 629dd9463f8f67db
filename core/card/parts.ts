import { COMMON_COAT_PARAMETERS } from '../coats/definition'
import { coatOf } from '../coats/table'
import { COMMON_FINISH_PARAMETERS } from '../finishes/definition'
import { finishOf } from '../finishes/table'
import { parametersOfMask } from '../masks/definition'
import { maskOf } from '../masks/table'
import { hasOutline } from '../pieces/definition'
import { PIECE_KINDS } from '../pieces/table'
import { COMMON_STEP_PARAMETERS } from '../steps/definition'
import { stepOf } from '../steps/table'
import type { TypeAxis } from '../type/axes'
import { AXIS_NAMES, AXIS_PARAMETERS } from '../type/axes'
import type { LetterRange } from '../type/ranges'
import type { TypeRun } from '../type/runs'
import { RUN_PARAMETERS } from '../type/runs'
import { parametersOf } from '../type/ranges'
import type { Movable, StoredValue } from '../values/moving'
import type { Parameters } from '../values/parameter-kinds'
import type { Coat, Finish, Mask, OutlineStep, Piece, TypePiece } from './schema'

// The lists that a piece carries, each in one row of a table. Addresses, paths, ids and their uniqueness, copies, several
// pieces at once, assets and the seam walk the table: a list that is new is one row more.

/** What is in every list: an id of its own, and whether it acts. */
export interface Part {
  id: string
  on: Movable<boolean>
}

export interface PartList {
  /** Lists of one family are one stack to the eye: what is shared between pieces is counted through all of them. */
  family: 'axis' | 'run' | 'range' | 'step' | 'coat' | 'finish' | 'mask'
  /** Where the list lies in the piece. */
  path: readonly [string, ...string[]]
  /** The entries, front or first one first; none where a piece of this kind carries no such list. */
  of(piece: Piece): readonly Part[]
  /** The piece with other entries; as it is where it carries no such list. */
  put(piece: Piece, entries: readonly Part[]): Piece
  parameters(entry: Part): Parameters
  /** What ids of new entries begin with. */
  stem(entry: Part): string
  /** What an entry is called in the label of an address. */
  label(entry: Part): string
  /** Entries of two pieces that stand for the same thing are alike, and of the same number among those alike. */
  likeness(entry: Part): string
}

const coats = (group: 'face' | 'behind'): PartList => ({
  family: 'coat',
  path: ['coats', group],
  of: ({ coats }) => coats[group],
  put: (piece, entries) => ({ ...piece, coats: { ...piece.coats, [group]: entries as Coat[] } }),
  parameters: (entry) => ({ ...coatOf((entry as Coat).kind).parameters, ...COMMON_COAT_PARAMETERS }),
  stem: (entry) => (entry as Coat).kind,
  label: (entry) => coatOf((entry as Coat).kind).label.toLowerCase(),
  likeness: (entry) => JSON.stringify([(entry as Coat).kind, (entry as Coat).side]),
})

const ranges: PartList = {
  family: 'range',
  path: ['ranges'],
  of: (piece) => (piece.kind === 'type' ? piece.ranges : []),
  put: (piece, entries) =>
    piece.kind === 'type' ? ({ ...piece, ranges: entries as LetterRange[] } satisfies TypePiece) : piece,
  parameters: (entry) => parametersOf(entry as LetterRange),
  stem: () => 'range',
  label: (entry) => (entry as LetterRange).name,
  likeness: () => '',
}

const axes: PartList = {
  family: 'axis',
  path: ['axes'],
  of: (piece) => (piece.kind === 'type' ? piece.axes : []),
  put: (piece, entries) => (piece.kind === 'type' ? { ...piece, axes: entries as TypeAxis[] } : piece),
  parameters: () => AXIS_PARAMETERS,
  stem: () => 'axis',
  label: (entry) => AXIS_NAMES[(entry as TypeAxis).tag]?.toLowerCase() ?? (entry as TypeAxis).tag,
  likeness: (entry) => (entry as TypeAxis).tag,
}

const runs: PartList = {
  family: 'run',
  path: ['runs'],
  of: (piece) => (piece.kind === 'type' ? piece.runs : []),
  put: (piece, entries) => (piece.kind === 'type' ? { ...piece, runs: entries as TypeRun[] } : piece),
  parameters: () => RUN_PARAMETERS,
  stem: () => 'run',
  label: () => 'run',
  likeness: () => '',
}

const steps: PartList = {
  family: 'step',
  path: ['outlineSteps'],
  of: ({ outlineSteps }) => outlineSteps,
  put: (piece, entries) =>
    hasOutline(PIECE_KINDS[piece.kind]) ? { ...piece, outlineSteps: entries as OutlineStep[] } : piece,
  parameters: (entry) => ({ ...stepOf((entry as OutlineStep).kind).parameters, ...COMMON_STEP_PARAMETERS }),
  stem: (entry) => (entry as OutlineStep).kind,
  label: (entry) => stepOf((entry as OutlineStep).kind).label.toLowerCase(),
  likeness: (entry) => (entry as OutlineStep).kind,
}

const finishes: PartList = {
  family: 'finish',
  path: ['finishes'],
  of: (piece) => piece.finishes,
  put: (piece, entries) => ({ ...piece, finishes: entries as Finish[] }),
  parameters: (entry) => ({ ...finishOf((entry as Finish).kind).parameters, ...COMMON_FINISH_PARAMETERS }),
  stem: (entry) => (entry as Finish).kind,
  label: (entry) => finishOf((entry as Finish).kind).label.toLowerCase(),
  likeness: (entry) => (entry as Finish).kind,
}

const masks: PartList = {
  family: 'mask',
  path: ['masks'],
  of: (piece) => piece.masks,
  put: (piece, entries) => ({ ...piece, masks: entries as Mask[] }),
  parameters: (entry) => parametersOfMask(maskOf((entry as Mask).kind)),
  stem: () => 'mask',
  // Several of one kind are told apart by the names that they were given.
  label: (entry) => ((entry as Mask).name || maskOf((entry as Mask).kind).label).toLowerCase(),
  likeness: (entry) => (entry as Mask).kind,
}

/** In the order in which their values are listed. */
export const PART_LISTS: readonly PartList[] = [
  axes,
  runs,
  ranges,
  steps,
  coats('face'),
  coats('behind'),
  finishes,
  masks,
]

/** An entry, the list that it is in, and its place there. */
export interface PlacedPart {
  list: PartList
  entry: Part
  index: number
}

/** All entries of all lists of a piece. */
export const partsOf = (piece: Piece): PlacedPart[] =>
  PART_LISTS.flatMap((list) => list.of(piece).map((entry, index) => ({ list, entry, index })))

export const partOf = (piece: Piece, id: string): PlacedPart | undefined =>
  partsOf(piece).find(({ entry }) => entry.id === id)

/** A piece with every entry changed. */
export const withParts = (piece: Piece, change: (entry: Part, list: PartList) => Part): Piece =>
  PART_LISTS.reduce((next, list) => {
    const entries = list.of(next)
    return entries.length === 0
      ? next
      : list.put(
          next,
          entries.map((entry) => change(entry, list)),
        )
  }, piece)

/** The stored values of what has some, by the names of its parameters: the card's check has seen to it that they are there. */
export const valuesOf = (entry: object) => entry as Readonly<Record<string, StoredValue>>
