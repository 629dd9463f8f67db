import type { Draft, StartWords } from './definition'

// Short forms of what the designs are made of: parts of a card file, with what each design says of its own.

/** What lower thirds ask for. */
export const NAME_AND_ROLE: readonly StartWords[] = [
  { id: 'name', label: 'Name', at: ['name/wording'] },
  { id: 'role', label: 'Role', at: ['role/wording'] },
]

export const solid = (colour: string): Draft => ({ type: 'solid', colour })

/** From the first colour to the last along a direction. */
export const ramp = (angle: number, ...stops: (readonly [at: number, colour: string])[]): Draft => ({
  ...{ type: 'linear', angle },
  stops: stops.map(([at, colour]) => ({ at, colour })),
})

/** A piece in coats: front first, those behind the face after those on it. */
export const dressed = (face: readonly Draft[], behind: readonly Draft[] = []): Draft => ({ coats: { face, behind } })

export const fill = (id: string, paint: Draft | string, values: Draft = {}): Draft => ({
  ...{ id, kind: 'fill', paint: typeof paint === 'string' ? solid(paint) : paint },
  ...values,
})

export const stroke = (id: string, width: number, paint: Draft | string, values: Draft = {}): Draft => ({
  ...{ id, kind: 'stroke', width, paint: typeof paint === 'string' ? solid(paint) : paint },
  ...values,
})

export const shadow = (id: string, distance: number, softness: number, values: Draft = {}): Draft => ({
  ...{ id, kind: 'shadow', distance, softness, colour: '#05070B', opacity: 55, grain: 3 },
  ...values,
})

export const glow = (id: string, reach: number, colour: string, values: Draft = {}): Draft => ({
  ...{ id, kind: 'glow', reach, paint: solid(colour) },
  ...values,
})

export const bevel = (id: string, width: number, values: Draft = {}): Draft => ({ id, kind: 'bevel', width, ...values })

export const range = (id: string, values: Draft): Draft => ({ id, name: id, form: 'arrive', spread: 45, ...values })

interface Words {
  id: string
  name: string
  wording: string
  font: string
  size: number
  x: number | Draft
  y: number | Draft
}

/** Fonts that are asked for what the designs' own have no letters for. */
const FALLBACKS = ['inter-semibold']

/** Type that becomes smaller where the words are longer than their room. */
export const type = (words: Words, values: Draft): Draft => ({
  ...{ kind: 'type', wide: 'smaller', least: 40, fallbacks: FALLBACKS, ...words },
  ...values,
})

export const box = (id: string, name: string, values: Draft): Draft => ({ kind: 'box', id, name, ...values })

export const ellipse = (id: string, name: string, diameter: number, values: Draft): Draft => ({
  ...{ kind: 'ellipse', id, name, width: diameter, height: diameter },
  ...values,
})

/** Pieces that go together; their places count from that of the group. */
export const group = (id: string, name: string, pieces: readonly Draft[], values: Draft = {}): Draft => ({
  ...{ kind: 'group', id, name, x: 0, y: 0, coats: { face: [], behind: [] }, pieces },
  ...values,
})

/** A box that follows the bounds of others with room around them. */
export const fits = (
  pieces: readonly string[],
  room: { x: number; y: number; right?: number; foot?: number },
): Draft => ({
  ...{ fitTo: pieces, padLeft: room.x, padRight: room.right ?? room.x },
  ...{ padTop: room.y, padFoot: room.foot ?? room.y },
})
