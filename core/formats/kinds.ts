import type { Parameter } from '../values/parameter-kinds'
import {
  GRADIENT_CHOICES,
  GRADIENT_PARAMETERS,
  PAINT_KINDS,
  PATTERNS,
  STOP_PARAMETERS,
  TEXTURE_PARAMETERS,
} from '../values/paints'
import { COMMON_COAT_PARAMETERS } from '../coats/definition'
import { COATS } from '../coats/table'
import { COMMON_FINISH_PARAMETERS } from '../finishes/definition'
import { FINISHES } from '../finishes/table'
import { CURVE_SHAPES } from '../curves/curve'
import { BLEND_MODES } from '../kernels/blend-modes'
import { PLACE_PARAMETERS } from '../pieces/place'
import { PIECE_KINDS } from '../pieces/table'
import { TIPS } from '../brushes/table'
import { COMMON_MASK_PARAMETERS, ownOfMask } from '../masks/definition'
import { MASKS } from '../masks/table'
import { MOTORS } from '../values/motors/table'
import { COMMON_STEP_PARAMETERS } from '../steps/definition'
import { STEPS } from '../steps/table'
import { RANGE_PARAMETERS } from '../type/ranges'
import { RANGE_STARTS } from '../type/range-starts'
import { DELIVERIES } from './deliveries/table'

/** An entry of a table: what it is called, what it is for, and its values by name. */
export interface ListedKind {
  kind: string
  label: string
  help?: string
  parameters?: Readonly<Record<string, object>>
}

/** Every table of kinds with its entries: what documents and scripts from outside are made from. */
export function allKinds(): Record<string, { common?: Record<string, Parameter>; kinds: ListedKind[] }> {
  return {
    pieces: { common: PLACE_PARAMETERS, kinds: Object.values(PIECE_KINDS).map(listed) },
    coats: { common: COMMON_COAT_PARAMETERS, kinds: COATS.map(listed) },
    finishes: { common: COMMON_FINISH_PARAMETERS, kinds: FINISHES.map(listed) },
    outlineSteps: { common: COMMON_STEP_PARAMETERS, kinds: STEPS.map(listed) },
    masks: {
      common: COMMON_MASK_PARAMETERS,
      kinds: MASKS.map((mask) => listed({ ...mask, parameters: ownOfMask(mask) })),
    },
    tips: { kinds: TIPS.map(({ kind, label, help }) => ({ kind, label, help })) },
    motors: { kinds: MOTORS.map(listed) },
    letterMotion: {
      common: RANGE_PARAMETERS,
      kinds: RANGE_STARTS.map(({ id, label, help }) => ({ kind: id, label, help })),
    },
    paints: {
      common: { ...GRADIENT_PARAMETERS, ...STOP_PARAMETERS, ...TEXTURE_PARAMETERS, ...GRADIENT_CHOICES },
      kinds: [
        ...PAINT_KINDS.map(({ type, label, help }) => ({ kind: type, label, help })),
        ...PATTERNS.map(({ value, label }) => ({ kind: `texture/${value}`, label })),
      ],
    },
    curves: { kinds: CURVE_SHAPES.map(({ name, label, help }) => ({ kind: name, label, help })) },
    blendModes: { kinds: BLEND_MODES.map(({ value, label }) => ({ kind: value, label })) },
    deliveries: {
      kinds: DELIVERIES.map(({ format, options, ...rest }) => ({ kind: format, ...rest, parameters: options })),
    },
  }
}

const listed = ({ kind, label, help, parameters }: Required<ListedKind>): ListedKind => ({
  ...{ kind, label, help, parameters },
})
