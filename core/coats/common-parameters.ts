import type { CurveName } from '../curves/curve'
import { curve, length, number, toggle } from '../values/parameter-kinds'

// Parameters that several kinds of coat share.

export const falloff = (help: string, standard: CurveName = 'linear') =>
  curve({ label: 'Falloff', help, default: standard })

export const firmness = number({
  label: 'Firmness',
  help: 'How much of the softness becomes solid spread instead of blur, in %',
  default: 0,
  min: 0,
  max: 100,
  step: 1,
  unit: '%',
})

export const knockOut = (help: string) =>
  toggle({ label: 'Knock out', help, default: true, when: { parameter: 'side', is: ['outside'] } })

export const grain = number({
  label: 'Grain',
  help: 'Breaks the soft part into grains, in %; the mean stays',
  default: 0,
  min: 0,
  max: 100,
  step: 1,
  unit: '%',
})

export const angle = (help: string, standard: number) =>
  number({
    label: 'Direction',
    help,
    default: standard,
    min: -36_000,
    max: 36_000,
    step: 1,
    unit: '°',
    slider: [-180, 180],
  })

/** A direction that counts only while `ownDirection` is on. */
export const direction = (help: string, standard: number) => ({
  ...angle(help, standard),
  when: { parameter: 'ownDirection', is: [true] },
})

export const ownDirection = toggle({
  label: 'Own direction',
  help: 'Off: away from the key light of the card. On: in the direction set here',
  default: false,
})

export const distance = (label: string, help: string, standard: number) =>
  length({ label, help, default: standard, min: 0, max: 2000, step: 0.5, slider: [0, 120] })

export const softness = (label: string, help: string, standard: number) =>
  length({ label, help, default: standard, min: 0, max: 1000, step: 0.5, slider: [0, 160] })

/** A light of the coat's own, in place of the key light. */
export const OWN_LIGHT = {
  ownLight: toggle({
    label: 'Own light',
    help: 'Off: the key light of the card. On: the light set here',
    default: false,
  }),
  azimuth: number({
    label: 'Light from',
    help: 'Where the light comes from, in degrees anticlockwise: 0 is right, 90 above',
    default: 120,
    min: -36_000,
    max: 36_000,
    step: 1,
    unit: '°',
    slider: [-180, 180],
    when: { parameter: 'ownLight', is: [true] },
  }),
  elevation: number({
    label: 'Light height',
    help: 'Height of the light above the page, in degrees',
    default: 45,
    min: 0,
    max: 90,
    step: 1,
    unit: '°',
    when: { parameter: 'ownLight', is: [true] },
  }),
} as const
