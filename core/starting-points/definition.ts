import type { Room } from './room'

/** What a starting point is for; the order in which they are shown. */
export const START_KINDS = {
  'lower-third': 'Lower thirds',
  title: 'Titles',
  next: 'Next up',
  place: 'Places',
  words: 'Quotes',
  score: 'Scores',
  countdown: 'Countdowns',
  closing: 'Closing cards',
} as const
export type StartKind = keyof typeof START_KINDS

/** How a starting point looks. */
export type StartCharacter = 'quiet' | 'bold' | 'glossy' | 'paper' | 'neon' | 'relief'

/** Colours by the names that a design has for them, as #RRGGBB. */
export type StartColours = Readonly<Record<string, string>>

export interface StartPalette {
  label: string
  colours: StartColours
}

/** A part of a card file: what it leaves out has the defaults of the schema. */
export type Draft = Readonly<Record<string, unknown>>

/** A colour that is asked for: its name, and the addresses of all values that have it. */
export interface StartColour {
  id: string
  label: string
  at: readonly string[]
}

/** Words that are asked for. */
export interface StartWords {
  id: string
  label: string
  /** Addresses of the wordings. */
  at: readonly string[]
}

/** What a design draws in a frame. */
export interface Drawing {
  /** Front first. */
  pieces: readonly Draft[]
  background?: Draft
}

/** A whole design with fields, from which a new card begins. */
export interface StartingPoint {
  id: string
  label: string
  kind: StartKind
  character: StartCharacter
  /** One sentence on what it is good for. */
  tells: string
  /** Seconds: the loop, the beginning of its hold, the end of it. */
  lasts: number
  hold: readonly [from: number, to: number]
  /** Whether what moves is blurred by the shutter. */
  shutter?: boolean
  words: readonly StartWords[]
  colours: readonly StartColour[]
  /** Words and what they are read on, by the names of their colours. */
  read: readonly (readonly [words: string, on: string])[]
  /** The first one is that of the design. */
  palettes: readonly [StartPalette, ...StartPalette[]]
  draw: (room: Room, colours: StartColours) => Drawing
}

interface Design<Colour extends string> extends Omit<StartingPoint, 'palettes' | 'draw'> {
  palettes: readonly [DesignPalette<Colour>, ...DesignPalette<Colour>[]]
  draw: (room: Room, colours: Readonly<Record<Colour, string>>) => Drawing
}

interface DesignPalette<Colour extends string> {
  label: string
  colours: Readonly<Record<Colour, string>>
}

/** A starting point whose drawing knows its colours by their names. */
export const defineStart = <Colour extends string>(design: Design<Colour>): StartingPoint => ({
  ...design,
  // A table of designs forgets their names; make.ts hands on every colour of the first palette.
  draw: (room, colours) => design.draw(room, colours as Record<Colour, string>),
})
