import type { CardSize } from '../card/create'
import { expectCard } from '../card/read'
import type { Card } from '../card/schema'
import { CARD_FORMAT, CARD_VERSION } from '../card/schema'
import { fillCard } from '../rosters/fill'
import { fieldKind } from '../rosters/kinds/table'
import { contrastRatio, relativeLuminance } from '../judge/measures/contrast'
import { readColour } from '../values/colour'
import type { StartColours, StartingPoint } from './definition'
import { roomOf } from './room'

export interface StartAnswers {
  /** By the ids of what is asked for; what is left out is as in the design. */
  words?: Readonly<Record<string, string>>
  colours?: StartColours
}

/** Words on a ground below this contrast are hard to read (WCAG 2.2, 1.4.3). */
export const LEAST_CONTRAST = 4.5

/** A card that begins from a design, drawn for its frame. Its length is that of the design. */
export function cardFrom(
  start: StartingPoint,
  name: string,
  { width, height, rate }: Omit<CardSize, 'length'>,
  { words = {}, colours = {} }: StartAnswers = {},
): Card {
  const room = roomOf({ width, height }, rate, start.lasts)
  const chosen = { ...start.palettes[0].colours, ...colours }
  const { pieces, background = null } = start.draw(room, chosen)
  const card = expectCard({
    ...{ format: CARD_FORMAT, version: CARD_VERSION, name, frame: { width, height }, rate, length: room.length },
    zones: { hold: room.at(start.hold[0]), out: room.at(start.hold[1]) },
    shutter: start.shutter ? { angle: 180, phase: 0 } : null,
    ...{ background, light: { azimuth: 120, elevation: 45 }, palette: [...new Set(Object.values(chosen))], seed: 7 },
    fields: [
      ...start.words.map(({ id, label, at }) => ({ id, label, kind: 'wording', at })),
      ...start.colours.map(({ id, label, at }) => ({
        id: `${id}-colour`,
        label: `${label} colour`,
        kind: 'colour',
        at,
      })),
      { id: 'hold', label: 'Hold', kind: 'hold', at: ['hold'] },
    ],
    pieces,
  })
  return fillCard(card, words).card
}

/** What a card that began from a design says, by the ids of its words. */
export const wordsOf = ({ words }: StartingPoint, card: Card): Record<string, string> =>
  Object.fromEntries(
    card.fields
      .filter(({ id }) => words.some((one) => one.id === id))
      .map((field) => [field.id, fieldKind(field.kind).written(card, field)]),
  )

/** Contrast of two colours, 1–21 (WCAG 2.2). */
export function contrastOf(one: string, other: string): number {
  return contrastRatio(luminanceOf(one), luminanceOf(other))
}

function luminanceOf(hex: string): number {
  const [red, green, blue] = readColour(hex)
  return relativeLuminance(red, green, blue)
}

/** How well the words of a design are read in these colours, pair by pair. */
export const contrastsOf = ({ read }: StartingPoint, colours: StartColours) =>
  read.map(([words, on]) => {
    const ratio = contrastOf(colours[words]!, colours[on]!)
    return { words, on, ratio, low: ratio < LEAST_CONTRAST }
  })
