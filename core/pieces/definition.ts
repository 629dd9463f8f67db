import type { z } from 'zod'
import type { Parameters } from '../values/parameter-kinds'
import type { EvaluatedValues } from '../values/evaluated'
import type { PathCommand, Ring } from '../outline/contour'
import type { LineForm } from '../outline/mould'
import type { LineStyle } from '../outline/stroked'
import type { Clock } from '../values/moment'

/** What a kind makes its outline with. All of it in the piece's own px. */
export interface OutlineWork {
  /** A path as closed rings of straight pieces that keep close to its curves. */
  flat(path: readonly PathCommand[]): Ring[]
  /** Rings that may overlap, as those that are left of them. */
  united(rings: readonly Ring[], rule?: 'nonzero' | 'evenodd'): Ring[]
  /** A path as a line of some thickness. */
  line(path: readonly PathCommand[], style: LineStyle): LineForm
  /** SVG path data. Throws a WaxError that names the place. */
  path(data: string): PathCommand[]
}

/** Schemas that kinds put into their documents. */
export interface PieceSchemas {
  id: z.ZodType
  range: z.ZodType
  picture: z.ZodType
  pieces: z.ZodType
  /** A list without entries. */
  withoutKinds: z.ZodType
}

/** A kind of piece: the one source of its schema, panel, outline, documents and generic tests. */
export interface PieceDefinition<T extends Parameters = Parameters> {
  kind: string
  label: string
  /** What it is, in one sentence. */
  help: string
  parameters: T
  /** What it has in the document beside its parameters. */
  own?(schemas: PieceSchemas): Record<string, z.ZodType>
  /** Values with which a new one begins, where they are others than the defaults. */
  starts?: object
  /** What its coats are computed from: an outline of its own, set words, or the alpha of what it holds; nothing has none. */
  coatsFrom: 'outline' | 'words' | 'alpha' | 'nothing'
  /** What that alpha comes from. */
  holds?: 'pieces' | 'pixels' | 'another'
  /** The piece that it shows again; null for none. */
  shows?(piece: object): string | null
  /** The clock that it gives what it holds; by default none. */
  clock?(piece: object): Clock | null
  /** Values for its outline that are no parameters: they follow from what it has beside them. */
  also?(piece: object): Record<string, unknown>
  /** Its outline around its place: an area, or a line that gets its thickness after the outline steps. */
  outline?(values: EvaluatedValues<T>, work: OutlineWork): Ring[] | LineForm
  /** Px that 100 % stands for; by default the smaller side of the outline's bounds. */
  reference?(values: EvaluatedValues<T>): number
}

/** Keeps the parameter types while registering. */
export const definePiece = <T extends Parameters>(definition: PieceDefinition<T>): PieceDefinition<T> => definition

/** Whether pieces of a kind have an outline, which steps can change. */
export const hasOutline = ({ coatsFrom }: Pick<PieceDefinition, 'coatsFrom'>): boolean =>
  coatsFrom === 'outline' || coatsFrom === 'words'
