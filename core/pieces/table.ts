import { box } from './box'
import type { PieceDefinition } from './definition'
import { ellipse } from './ellipse'
import { group } from './group'
import { line } from './line'
import { painting } from './painting'
import { path } from './path'
import { picture } from './picture'
import { polygon } from './polygon'
import { sequence } from './sequence'
import { twin } from './twin'
import { type } from './type'
import { wash } from './wash'

const TABLE = { type, box, ellipse, polygon, line, path, painting, picture, sequence, group, twin, wash }

export type PieceKind = keyof typeof TABLE

/**
 * All kinds of piece. A new kind is one file and one line in this table. Each definition takes values of its own kind alone;
 * whoever goes through the table gives each the values of its kind.
 */
export const PIECE_KINDS = TABLE as unknown as Readonly<Record<PieceKind, PieceDefinition>>
