import { motorOf } from '../values/motors/table'
import type { Moving, StoredPaint, StoredValue } from '../values/moving'
import { isMoving } from '../values/moving'
import type { NumberParameter, Parameter, Parameters } from '../values/parameter-kinds'
import { colour } from '../values/parameter-kinds'
import { GRADIENT_PARAMETERS, paintKind, STOP_PARAMETERS, TEXTURE_PARAMETERS } from '../values/paints'
import { PIECE_KINDS } from '../pieces/table'
import { PLACE_PARAMETERS } from '../pieces/place'
import type { PlacedPart } from './parts'
import { partsOf, valuesOf } from './parts'
import type { Card, Piece } from './schema'
import { LIGHT_PARAMETERS } from './schema'
import { allPieces } from './tree'

// A parameter's address says where its value lies in the document, by ids instead of indices, so that it
// stays true while things are reordered: `light/azimuth`, `title/x`, `title/stroke-2/paint/stops/0/colour`,
// `title/x/motors/0/amount`.

export interface ParameterPlace {
  address: string
  /** `Title · glow reach`. */
  label: string
  parameter: Parameter
  value: StoredValue
  /** Ids that the address leads through. */
  piece: string | null
  /** A coat or a finish. */
  part: string | null
}

export const SOLID_COLOUR = colour({
  label: 'Colour',
  help: 'Colour with opacity, as #RRGGBB or #RRGGBBAA',
  default: '#FFFFFF',
})

const listed = new WeakMap<Card, readonly ParameterPlace[]>()

/** Every parameter of a card that has a value of its own, in stack order. Made once for a card, which never changes. */
export function listParameters(card: Card): readonly ParameterPlace[] {
  let places = listed.get(card)
  if (!places) {
    places = placesOf(card)
    listed.set(card, places)
  }
  return places
}

/** Those that are numbers or lengths: motors drive and follow them. */
export const numbersOf = (card: Card): ParameterPlace[] =>
  listParameters(card).filter(({ parameter: { type } }) => type === 'number' || type === 'length')

function placesOf(card: Card): ParameterPlace[] {
  return [
    ...ofTable(LIGHT_PARAMETERS, valuesOf(card.light), 'light', 'Card ·', null, null),
    ...(card.background ? ofPaint(card.background, 'background', 'Background ·', null, null) : []),
    ...allPieces(card.pieces).flatMap(listPieceParameters),
  ]
}

const listedOfPieces = new WeakMap<Piece, readonly ParameterPlace[]>()

/** Those of one piece. Made once for a piece, which never changes: an edit makes new ones of those alone that it changes. */
export function listPieceParameters(piece: Piece): readonly ParameterPlace[] {
  let places = listedOfPieces.get(piece)
  if (!places) {
    places = placesOfPiece(piece)
    listedOfPieces.set(piece, places)
  }
  return places
}

/** The parameter at an address; undefined where there is none. Looks at its piece alone, if it is there. */
export function parameterAt(card: Card, address: string): ParameterPlace | undefined {
  const piece = allPieces(card.pieces).find(({ id }) => address.startsWith(`${id}/`))
  const isIt = (place: ParameterPlace) => place.address === address
  return (piece && listPieceParameters(piece).find(isIt)) ?? listParameters(card).find(isIt)
}

function placesOfPiece(piece: Piece): ParameterPlace[] {
  const values = valuesOf(piece)
  return [
    ...ofTable(PLACE_PARAMETERS, values, piece.id, `${piece.name} ·`, piece.id, null),
    ...ofTable(PIECE_KINDS[piece.kind].parameters, values, piece.id, `${piece.name} ·`, piece.id, null),
    ...partsOf(piece).flatMap((part) => listPartParameters(part, piece)),
  ]
}

/** The parameters of one entry of a list that a piece carries. */
export function listPartParameters(
  { list, entry }: Pick<PlacedPart, 'list' | 'entry'>,
  piece: Pick<Piece, 'id' | 'name'>,
): ParameterPlace[] {
  const label = `${piece.name} · ${list.label(entry)}`
  const part = ['axis', 'run', 'range'].includes(list.family) ? null : entry.id
  return ofTable(list.parameters(entry), valuesOf(entry), `${piece.id}/${entry.id}`, label, piece.id, part)
}

function ofTable(
  parameters: Parameters,
  values: Readonly<Record<string, StoredValue>>,
  address: string,
  label: string,
  piece: string | null,
  part: string | null,
): ParameterPlace[] {
  return Object.entries(parameters).flatMap(([name, parameter]) => {
    const value = values[name]
    const here = `${address}/${name}`
    if (parameter.type === 'paint') return ofPaint(value as StoredPaint, here, label, piece, part)
    return withMotors({
      address: here,
      label: `${label} ${parameter.label.toLowerCase()}`,
      parameter,
      value,
      piece,
      part,
    })
  })
}

/** Whether an address is that of a value of a motor: no motor drives it. */
export const isOfMotor = (address: string): boolean => /\/motors\/\d+\//.test(address)

/** A value, and after it what its motors let move of their own. */
function withMotors(place: ParameterPlace): ParameterPlace[] {
  const { address, label, value, parameter } = place
  const motors = isMoving(value) ? (value as Moving<number>).motors : undefined
  if (!motors) return [place]
  const unit = 'unit' in parameter ? parameter.unit : ''
  const own = motors.flatMap((motor, i) =>
    Object.entries(motorOf(motor.kind).parameters).flatMap(([name, p]): ParameterPlace[] => {
      if ((p.type !== 'amount' && p.type !== 'number') || !p.moves) return []
      const described: NumberParameter = p.type === 'amount' ? { ...p, type: 'number', unit } : p
      const words = `${label} · ${motorOf(motor.kind).label.toLowerCase()} ${p.label.toLowerCase()}`
      const here = `${address}/motors/${i}/${name}`
      return [{ ...place, address: here, label: words, parameter: described, value: motor[name] as StoredValue }]
    }),
  )
  return [place, ...own]
}

function ofPaint(
  paint: StoredPaint,
  address: string,
  label: string,
  piece: string | null,
  part: string | null,
): ParameterPlace[] {
  const at = (name: string, words: string, parameter: Parameter, value: StoredValue): ParameterPlace[] =>
    withMotors({ address: `${address}/${name}`, label: `${label} ${words}`, parameter, value, piece, part })
  if (paint.type === 'solid') return [...at('colour', 'colour', SOLID_COLOUR, paint.colour)]
  if (paint.type === 'texture') {
    return Object.entries(TEXTURE_PARAMETERS).flatMap(([name, parameter]) =>
      at(name, `texture ${parameter.label.toLowerCase()}`, parameter, paint[name as keyof typeof TEXTURE_PARAMETERS]),
    )
  }
  const { stops } = paint
  return [
    ...paintKind(paint.type).numbers.flatMap((name) =>
      at(name, `gradient ${GRADIENT_PARAMETERS[name].label.toLowerCase()}`, GRADIENT_PARAMETERS[name], paint[name]),
    ),
    ...stops.flatMap((stop, i) => [
      ...at(`stops/${i}/at`, `colour ${i + 1} place`, STOP_PARAMETERS.at, stop.at),
      ...at(`stops/${i}/colour`, `colour ${i + 1}`, STOP_PARAMETERS.colour, stop.colour),
      ...(i + 1 < stops.length
        ? [...at(`stops/${i}/middle`, `colour ${i + 1} midpoint`, STOP_PARAMETERS.middle, stop.middle ?? 50)]
        : []),
    ]),
  ]
}
