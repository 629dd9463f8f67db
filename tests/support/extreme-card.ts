import type { BrushStroke } from '#core/brushes/stroke'
import { TIP_KINDS } from '#core/brushes/table'
import { createCard, createCoat, createFinish, createMask, createPiece, createStep } from '#core/card/create'
import type { Card, Coat, Finish, Mask, OutlineStep, Piece } from '#core/card/schema'
import type { Parameter, Parameters } from '#core/values/parameter-kinds'
import { COMMON_COAT_PARAMETERS } from '#core/coats/definition'
import { COAT_KINDS, coatOf } from '#core/coats/table'
import { CURVE_NAMES } from '#core/curves/curve'
import { COMMON_FINISH_PARAMETERS } from '#core/finishes/definition'
import { FINISH_KINDS, finishOf } from '#core/finishes/table'
import { parametersOfMask } from '#core/masks/definition'
import { MASK_KINDS, maskOf } from '#core/masks/table'
import { hasOutline } from '#core/pieces/definition'
import { PLACE_PARAMETERS } from '#core/pieces/place'
import type { PieceKind } from '#core/pieces/table'
import { PIECE_KINDS } from '#core/pieces/table'
import { COMMON_STEP_PARAMETERS } from '#core/steps/definition'
import { STEP_KINDS, stepOf } from '#core/steps/table'
import { AXIS_PARAMETERS } from '#core/type/axes'
import { RUN_PARAMETERS } from '#core/type/runs'
import { createMotor } from '#core/values/motors/schema'
import { MOTORS } from '#core/values/motors/table'
import { SHIPPED_FONTS } from '#core/type/families'
import { letterRange } from './ranges'
import { randomFrom } from './random'

const PATHS = [
  'M0 0',
  'M-40 -40 L40 -40 L40 40 Z',
  `M0 0 ${Array.from({ length: 300 }, (_, i) => `L${(i * 7919) % 400} ${(i * 104_729) % 300}`).join(' ')} Z`,
  'M-9999 0 C-9999 9999 9999 -9999 9999 0',
  'M0 0 Q1 1 0 0 Q-1 -1 0 0',
  'M0 0 L0 0 L0 0 Z',
]
const WORDINGS = ['', 'A', 'Lantern Regatta', '\n\n\n', 'مرحبا world', 'WAVE '.repeat(80), '🙂 \u0301\u0301\u0301']

/** A valid card whose values stand at their ends, or anywhere between: what only a machine would make. */
export function extremeCard(seed: number): Card {
  const random = randomFrom(seed)
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!
  const chance = (share: number) => random() < share
  let ids = 0
  const id = (stem: string) => `${stem}-${++ids}`

  const numberOf = ({ min, max, default: usual }: { min: number; max: number; default: number }): number =>
    pick([usual, usual, usual, min, max, min + (max - min) * random()])
  const moving = (value: () => number, motors: boolean) => ({
    keys: [
      { frame: 0, value: value(), easing: pick(['linear', 'ease-in', 'cubic-bezier(0.2, -4, 0.8, 5)', 'hold']) },
      { frame: 7, value: value() },
    ],
    loop: chance(0.5),
    ...(motors ? { motors: [motor()] } : {}),
  })
  function motor() {
    const definition = pick(MOTORS)
    const values = Object.entries(definition.parameters).map(([name, p]) => {
      if (p.type === 'number' || p.type === 'amount') return [name, numberOf(p)]
      if (p.type === 'choice') return [name, pick(p.options).value]
      if (p.type === 'source') return [name, pick(['', 'box-1/x', 'type-1/x', 'light/azimuth', 'nothing/there'])]
      return [name, pick(['v', '1/(f-3)', 'exp(exp(exp(v)))', 'v + 20*sin(tau*p)'])]
    })
    return { ...createMotor(definition.kind), ...Object.fromEntries(values) }
  }
  const colour = () => pick(['#000000', '#FFFFFF00', '#E2683CC0', '#B8324A'])
  function paint(): unknown {
    const type = pick(['solid', 'solid', 'linear', 'radial', 'conic', 'edge', 'texture'])
    if (type === 'solid') return { type, colour: colour() }
    if (type === 'texture') {
      const pattern = pick(['noise', 'flow', 'grid', 'lines', 'brushed', 'paper'])
      return { type, pattern, scale: pick([1, 100, 10_000]), angle: pick([0, 45, 36_000]) }
    }
    const stops = Array.from({ length: pick([2, 3, 9]) }, () => ({ at: pick([0, 50, 50, 100]), colour: colour() }))
    return { type, stops, scale: pick([1, 100, 1000]), spread: pick(['pad', 'reflect', 'repeat']) }
  }
  function valueOf(name: string, parameter: Parameter): unknown {
    switch (parameter.type) {
      case 'number':
        return chance(0.12) ? moving(() => numberOf(parameter), chance(0.4)) : numberOf(parameter)
      case 'length':
        return chance(0.5) ? { unit: '%', value: numberOf(parameter) } : numberOf(parameter)
      case 'choice':
        return pick(parameter.options).value
      case 'piece':
        return pick([null, 'nobody', 'box-1', 'type-1', 'ellipse-2', 'group-1'])
      case 'pieces':
        return pick([[], [], ['nobody'], ['box-1', 'type-1'], ['ellipse-2'], ['group-1']])
      case 'toggle':
        return name === 'on' ? !chance(0.05) : chance(0.5)
      case 'colour':
        return colour()
      case 'curve':
        return pick(CURVE_NAMES)
      case 'text':
        return pick([...WORDINGS, '1 3', 'smcp -liga']).slice(0, parameter.longest)
      case 'path':
        return pick(PATHS)
      case 'paint':
        return paint()
    }
  }
  const valuesOf = (parameters: Parameters) =>
    Object.fromEntries(Object.entries(parameters).map(([name, parameter]) => [name, valueOf(name, parameter)]))

  const coat = (): Coat => {
    const kind = pick(COAT_KINDS)
    const values = { ...valuesOf(COMMON_COAT_PARAMETERS), ...valuesOf(coatOf(kind).parameters) }
    return { ...createCoat(kind, id(kind)), ...values, id: `${kind}-c${++ids}` } as Coat
  }
  const finish = (): Finish => {
    const kind = pick(FINISH_KINDS)
    const values = { ...valuesOf(COMMON_FINISH_PARAMETERS), ...valuesOf(finishOf(kind).parameters) }
    return { ...createFinish(kind, 'f'), ...values, id: `${kind}-f${++ids}` } as Finish
  }
  const outlineStep = (): OutlineStep => {
    const kind = pick(STEP_KINDS)
    const values = { ...valuesOf(COMMON_STEP_PARAMETERS), ...valuesOf(stepOf(kind).parameters) }
    return { ...createStep(kind, 's'), ...values, id: `${kind}-s${++ids}` } as OutlineStep
  }
  const stroke = (): BrushStroke => {
    const points = Array.from({ length: pick([1, 2, 40]) }, () => [
      ...[side * random() - side / 2, other * random() - other / 2, pick([0, 1, random()])],
    ])
    return {
      ...{ id: id('stroke'), tip: pick(TIP_KINDS), erase: chance(0.3), colour: colour(), points: points.flat() },
      ...{ size: pick([0.5, 20, 2000]), hardness: pick([0, 50, 100]), spacing: pick([1, 30, 1000]) },
      ...{ scatter: pick([0, 1000]), along: chance(0.5), turn: pick([0, 36_000]), turnBy: pick([0, 180]) },
      ...{
        flow: pick([0, 30, 100]),
        opacity: pick([0, 100]),
        pressSize: pick([0, 100]),
        pressFlow: pick([0, 100]),
        seed: 9,
      },
    }
  }
  const strokes = () => Array.from({ length: pick([0, 1, 6]) }, stroke)
  const mask = (): Mask => {
    const kind = pick(MASK_KINDS)
    const values = { ...valuesOf(parametersOfMask(maskOf(kind))) }
    const painted = kind === 'painted' ? { strokes: strokes() } : {}
    return { ...createMask(kind, 'm'), ...values, ...painted, id: id('mask') } as unknown as Mask
  }
  const masks = () => Array.from({ length: pick([0, 0, 0, 1, 2]) }, mask)
  const outlineSteps = () => Array.from({ length: pick([0, 0, 1, 2]) }, outlineStep)
  const finishes = () => Array.from({ length: pick([0, 0, 0, 1, 2]) }, finish)
  const coats = () => Array.from({ length: pick([0, 1, 1, 2, 3, 8]) }, coat)

  const [side, other] = pick([
    [64, 64],
    [320, 180],
    [320, 180],
    [1920, 1080],
    [16, 8192],
  ] as const)
  const card = createCard('Extreme', {
    ...{ width: side, height: other },
    rate: { numerator: 25, denominator: 1 },
    length: pick([1, 10, 216_000]),
  })

  function piece(depth: number): Piece {
    const kind = pick(Object.keys(PIECE_KINDS) as PieceKind[])
    const values = { ...valuesOf(PLACE_PARAMETERS), ...valuesOf(PIECE_KINDS[kind].parameters) }
    const near = { x: chance(0.8) ? side * random() : values.x, y: chance(0.8) ? other * random() : values.y }
    const own =
      kind === 'type'
        ? {
            font: pick(SHIPPED_FONTS).id,
            ranges: chance(0.3) ? [range()] : [],
            axes: chance(0.2) ? [{ id: id('axis'), tag: 'wght', ...valuesOf(AXIS_PARAMETERS) }] : [],
            runs: chance(0.2) ? [{ id: id('run'), font: null, ...valuesOf(RUN_PARAMETERS) }] : [],
          }
        : kind === 'group'
          ? { pieces: depth < 3 ? Array.from({ length: pick([0, 1, 2]) }, () => piece(depth + 1)) : [] }
          : kind === 'painting'
            ? { strokes: strokes() }
            : kind === 'sequence'
              ? { sequence: chance(0.8) ? { id: 'sequence-0123456789abcdef', frames: pick([1, 7, 6000]) } : null }
              : {}
    const made = { ...createPiece(kind, card), ...values, ...near, ...own, id: id(kind) }
    if (kind === 'wash') return { ...made, finishes: [finish(), ...finishes()], masks: masks() } as unknown as Piece
    return {
      ...made,
      steps: pick([1, 1, 2]),
      coats: { face: coats(), behind: coats() },
      finishes: finishes(),
      outlineSteps: hasOutline(PIECE_KINDS[kind]) ? outlineSteps() : [],
      masks: masks(),
    } as unknown as Piece
  }
  const range = () =>
    letterRange({
      id: id('range'),
      ...{ x: pick([0, 20_000]), scale: pick([100, 0, 1000]), blur: pick([0, 100]), sweep: pick([0, 30, 100]) },
    })
  const pieces = Array.from({ length: pick([1, 1, 2, 4]) }, () => piece(0))
  return {
    ...card,
    pieces,
    background: chance(0.3) ? (paint() as Card['background']) : null,
    blending: pick(['display', 'linear']),
    shutter: chance(0.25) ? { angle: pick([1, 180, 720]), phase: pick([-360, 0]) } : null,
  }
}
