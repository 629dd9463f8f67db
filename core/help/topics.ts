import { COATS } from '../coats/table'
import { FINISHES } from '../finishes/table'
import { DELIVERIES } from '../formats/deliveries/table'
import { PROOF_CHECKS } from '../judge/proof/checks'
import { MASKS } from '../masks/table'
import type { PieceKind } from '../pieces/table'
import { PIECE_KINDS } from '../pieces/table'
import { PLACE_PARAMETERS } from '../pieces/place'
import { CLOCK_PARAMETERS } from '../pieces/clock'
import { FIELD_DEFINITIONS } from '../rosters/kinds/table'
import { STEPS } from '../steps/table'
import { RANGE_STARTS } from '../type/range-starts'
import { rangeOf } from '../values/parameter-docs'
import type { Parameter, Parameters } from '../values/parameter-kinds'
import { MOTORS } from '../values/motors/table'
import type { PaintKind } from '../values/paints'
import {
  GRADIENT_CHOICES,
  GRADIENT_PARAMETERS,
  paintKind,
  PATTERNS,
  STOP_PARAMETERS,
  TEXTURE_PARAMETERS,
} from '../values/paints'
import { BEGINNINGS } from './beginnings'
import { deliverySample } from './delivery-sample'
import { EASING_WORDS } from './easing-words'
import { KEY_ACTIONS } from './key-actions'
import { maskSample } from './mask-sample'
import { motorSample } from './motor-sample'
import { pieceSample } from './piece-sample'
import type { HelpSample } from './samples'
import { coatSample, easingSample, finishSample, paintSample, patternSample, rangeSample, stepSample } from './samples'
import { UNSEEN } from './unseen-words'

// The help page: one topic for each kind of everything, made from the tables that the bench and the docs are made from.

/** A value of a kind, as help tells it. */
export interface HelpValue {
  label: string
  /** Range, unit and default. */
  takes: string
  says: string
}

export interface HelpTopic {
  /** In addresses, such as `coat-glow`. */
  id: string
  chapter: string
  title: string
  says: string
  /** More of it, a paragraph each. */
  more: readonly string[]
  values: readonly HelpValue[]
  /** What its values are called, one and many. */
  called: readonly [one: string, many: string]
  /** Cards that show it; made when it is looked at. */
  sample: () => HelpSample | null
}

const NONE = () => null

const topic = (values: Pick<HelpTopic, 'id' | 'chapter' | 'title' | 'says'> & Partial<HelpTopic>): HelpTopic => ({
  ...{ more: [], values: [], called: ['value', 'values'], sample: NONE },
  ...values,
})

const valuesOf = (parameters: Parameters | Readonly<Record<string, Parameter>>): HelpValue[] =>
  Object.values(parameters).map((parameter) => ({
    label: parameter.label,
    takes: rangeOf(parameter).replace(/`/g, ''),
    says: sentence(parameter.help),
  }))

const sentence = (text: string) => (/[.!?]$/.test(text) ? text : `${text}.`)

/** Values of pieces that all share are told once. */
const ownOf = (parameters: Readonly<Record<string, Parameter>>) =>
  valuesOf(Object.fromEntries(Object.entries(parameters).filter(([name]) => !(name in CLOCK_PARAMETERS))))

const GRADIENTS = ['linear', 'radial', 'conic', 'edge'] as const

const gradientValues = ({ numbers, choices }: PaintKind) => [
  ...valuesOf(Object.fromEntries(numbers.map((name) => [name, GRADIENT_PARAMETERS[name]]))),
  ...valuesOf(Object.fromEntries(choices.map((name) => [name, GRADIENT_CHOICES[name]]))),
  ...valuesOf(STOP_PARAMETERS),
]

/** Keys as they ship. */
const KEYS: HelpValue[] = Object.values(KEY_ACTIONS).map(({ keys, does }) => ({
  ...{ label: keys.join(', '), takes: '', says: sentence(does) },
}))

/** All topics, in the order in which the page shows them. */
export const HELP_TOPICS: readonly HelpTopic[] = [
  ...BEGINNINGS.map(({ id, title, says, more }) => topic({ id, chapter: 'To begin with', title, says, more })),
  topic({
    ...{ id: 'keys', chapter: 'To begin with', title: 'Keys', values: KEYS, called: ['key', 'keys'] },
    says: 'Everything on the bench can be done by keys. “?” shows them there, and lets each be another one.',
    more: ['Arrows move the piece, or the handle that has the focus, by 1 px; with Shift by 10 px.'],
  }),
  ...UNSEEN.map(({ id, title, says, remedy }) =>
    topic({ id: `unseen-${id}`, chapter: 'Why does nothing show?', title, says, more: [remedy] }),
  ),
  ...COATS.map(({ kind, label, help, parameters }) =>
    topic({
      ...{ id: `coat-${kind}`, chapter: 'Coats', title: label, says: sentence(help), values: valuesOf(parameters) },
      sample: () => coatSample(kind),
    }),
  ),
  topic({
    ...{ id: 'paint-solid', chapter: 'Paints', title: paintKind('solid').label, says: 'One colour, with its opacity.' },
    more: ['Fills, strokes, glows and all else that has a colour take any of these paints.'],
  }),
  ...GRADIENTS.map((type) =>
    topic({
      ...{ id: `paint-${type}`, chapter: 'Paints', title: paintKind(type).label },
      ...{ says: sentence(paintKind(type).help), values: gradientValues(paintKind(type)) },
      sample: () => paintSample(type),
    }),
  ),
  ...PATTERNS.map(({ value, label, counts }) =>
    topic({
      ...{ id: `texture-${value}`, chapter: 'Paints', title: `Texture: ${label.toLowerCase()}` },
      says: value === 'picture' ? 'A picture that is brought in, repeated.' : 'A pattern that the engine makes.',
      values: valuesOf(Object.fromEntries(counts.map((name) => [name, TEXTURE_PARAMETERS[name]]))),
      sample: () => patternSample(value),
    }),
  ),
  ...STEPS.map(({ kind, label, help, parameters, works }) =>
    topic({
      ...{ id: `step-${kind}`, chapter: 'Outline steps', title: label, says: sentence(help) },
      ...{ values: valuesOf(parameters), sample: () => stepSample(kind, works) },
    }),
  ),
  ...FINISHES.map(({ kind, label, help, parameters }) =>
    topic({
      ...{
        id: `finish-${kind}`,
        chapter: 'Finishes',
        title: label,
        says: sentence(help),
        values: valuesOf(parameters),
      },
      sample: () => finishSample(kind),
    }),
  ),
  ...MASKS.map(({ kind, label, help, parameters }) =>
    topic({
      ...{ id: `mask-${kind}`, chapter: 'Masks and mattes', title: label, says: sentence(help) },
      ...{ values: valuesOf(parameters), sample: () => maskSample(kind) },
    }),
  ),
  ...EASING_WORDS.map(({ id, label, easing, says }) =>
    topic({
      ...{ id: `easing-${id}`, chapter: 'Curves', title: label, says: sentence(says) },
      more: easing.startsWith('cubic-bezier') ? [`Written as ${easing}.`] : [],
      sample: () => easingSample(easing),
    }),
  ),
  ...MOTORS.map(({ kind, label, help }) =>
    topic({
      ...{ id: `motor-${kind}`, chapter: 'Motors', title: label, says: sentence(help) },
      sample: () => motorSample(kind),
    }),
  ),
  ...RANGE_STARTS.map((start) =>
    topic({
      ...{ id: `letters-${start.id}`, chapter: 'Letter motion', title: start.label, says: sentence(start.help) },
      sample: () => rangeSample(start),
    }),
  ),
  topic({
    ...{ id: 'piece-place', chapter: 'Pieces', title: 'What every piece has' },
    ...{ says: 'Its place, turn and size, and how it lies on what is behind it.', values: valuesOf(PLACE_PARAMETERS) },
  }),
  ...Object.values(PIECE_KINDS).map(({ kind, label, help, parameters }) =>
    topic({
      ...{ id: `piece-${kind}`, chapter: 'Pieces', title: label, says: sentence(help), values: ownOf(parameters) },
      sample: () => pieceSample(kind as PieceKind),
    }),
  ),
  topic({
    ...{ id: 'clock', chapter: 'Pieces', title: 'Clock' },
    says: 'Gives what a group holds, a twin shows or a sequence plays a time of its own.',
    values: valuesOf(CLOCK_PARAMETERS),
  }),
  ...FIELD_DEFINITIONS.map(({ kind, label, help }) =>
    topic({ id: `field-${kind}`, chapter: 'Fields and rosters', title: label, says: sentence(help) }),
  ),
  ...DELIVERIES.map(({ format, label, help, loses, takes, alpha }) =>
    topic({
      ...{ id: `delivery-${format}`, chapter: 'Deliveries', title: label, says: sentence(help) },
      sample: () => deliverySample({ alpha }),
      more: [`For: ${sentence(takes)}`, loses ? sentence(loses) : 'Nothing is lost.'],
    }),
  ),
  ...PROOF_CHECKS.map(({ id, label, how, source }) =>
    topic({
      id: `proof-${id}`,
      chapter: 'The proof',
      title: label,
      says: sentence(how),
      more: [`By: ${sentence(source)}`],
    }),
  ),
]

export const HELP_CHAPTERS: readonly string[] = [...new Set(HELP_TOPICS.map(({ chapter }) => chapter))]

/** The topics in which every one of the words is found: first those that are called so, then their chapter, then those that say so. */
export function findTopics(words: string): HelpTopic[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean)
  if (wanted.length === 0) return [...HELP_TOPICS]
  const rank = ({ title, chapter, says, more, values }: HelpTopic) => {
    const name = title.toLowerCase()
    const all = [name, chapter, says, ...more, ...values.flatMap(({ label, says: told }) => [label, told])]
      .join(' ')
      .toLowerCase()
    if (!wanted.every((word) => all.includes(word))) return null
    if (wanted.every((word) => name.startsWith(word))) return 0
    if (wanted.every((word) => name.includes(word))) return 1
    return wanted.every((word) => chapter.toLowerCase().includes(word)) ? 2 : 3
  }
  return HELP_TOPICS.flatMap((one) => {
    const at = rank(one)
    return at === null ? [] : [{ one, at }]
  })
    .sort((a, b) => a.at - b.at)
    .map(({ one }) => one)
}
