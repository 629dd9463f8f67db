import { readdirSync, readFileSync } from 'node:fs'
import { expectCard } from '#core/card/read'
import { createCard, createCoat, createFinish, createPiece, createStep } from '#core/card/create'
import type { BoxPiece, Card, Coat, Finish, OutlineStep, Piece, TypePiece, WashPiece } from '#core/card/schema'
import type { FramePicture } from '#core/frame/engine'
import { Engine } from '#core/frame/engine'
import { SHIPPED_FONTS } from '#core/type/families'

export const fontBytes = (id: string) => new Uint8Array(readFileSync(`public/fonts/${id}.ttf`))

/** An engine with all shipped fonts. */
export function engineWithFonts(): Engine {
  const engine = new Engine()
  for (const { id } of SHIPPED_FONTS) engine.fonts.add(id, fontBytes(id))
  return engine
}

export function emptyCard(width: number, height: number, length = 50): Card {
  return createCard('Test', { width, height, rate: { numerator: 25, denominator: 1 }, length })
}

export function coat(kind: string, id: string, values: Record<string, unknown> = {}): Coat {
  return { ...createCoat(kind, id), ...values } as Coat
}

export function finish(kind: string, values: Record<string, unknown> = {}, id = 'finish'): Finish {
  return { ...createFinish(kind, id), ...values } as Finish
}

/** The card with a wash in front of all. */
export function withWash(card: Card, finishes: Finish[], values: Partial<WashPiece> = {}): Card {
  const wash = { ...createPiece('wash', card), ...values, finishes } as WashPiece
  return { ...card, pieces: [wash, ...card.pieces] }
}

/** 256 × 192, black to the left of x = 128, white from there on, treated. */
export function stepCard(finishes: Finish[]): Card {
  const card = { ...emptyCard(256, 192), background: solid('#000000') }
  const half = { width: 4000, height: 4000, x: 2128, y: 96 }
  return withWash(withBox(card, half, { face: [coat('fill', 'f', { paint: solid('#FFFFFF') })] }), finishes)
}

/** Premultiplied RGBA floats of a frame, before anything is rounded. */
export function floatsOf(engine: Engine, card: Card, frame = 0) {
  engine.render(card, frame)
  const { layers, box } = engine['canvas']!
  const values = engine['kernels'].rgba(layers).slice()
  const at = (x: number, y: number) => {
    const i = ((y - box.y) * layers.w + x - box.x) * 4
    return [values[i]!, values[i + 1]!, values[i + 2]!, values[i + 3]!] as const
  }
  return { values, box, at }
}

interface Coats {
  face?: Coat[]
  behind?: Coat[]
}

export function withBox(card: Card, values: Partial<BoxPiece>, { face = [], behind = [] }: Coats): Card {
  const piece = { ...createPiece('box', card), ...values, coats: { face, behind } } as BoxPiece
  return { ...card, pieces: [piece, ...card.pieces] }
}

export function withType(card: Card, values: Partial<TypePiece>, { face = [], behind = [] }: Coats): Card {
  const piece = { ...createPiece('type', card), ...values, coats: { face, behind } } as TypePiece
  return { ...card, pieces: [piece, ...card.pieces] }
}

/** One straight pixel, 0–1. */
export function pixelAt({ width, bits, pixels }: FramePicture, x: number, y: number): [number, number, number, number] {
  const values = bits === 8 ? pixels : new Uint16Array(pixels.buffer)
  const top = bits === 8 ? 255 : 65535
  const at = (y * width + x) * 4
  return [values[at]! / top, values[at + 1]! / top, values[at + 2]! / top, values[at + 3]! / top]
}

export const solid = (colour: string) => ({ type: 'solid' as const, colour })

/** Names of the demo's card files. */
export const DEMO_CARDS = readdirSync('demo/cards')
  .filter((name) => name.endsWith('.card.json'))
  .map((name) => name.replace('.card.json', ''))

export function demoCard(file: string): Card {
  return expectCard(JSON.parse(readFileSync(`demo/cards/${file}.card.json`, 'utf8')))
}

/** An outline step with the values of its definition and others. */
export function step(kind: string, values: Record<string, unknown> = {}, id = `${kind}-step`): OutlineStep {
  return { ...createStep(kind, id), ...values } as OutlineStep
}

/** A piece of any kind in the middle of the card, in front of all. */
export function withPiece<T extends Piece>(
  card: Card,
  kind: T['kind'],
  values: Partial<T>,
  { face = [coat('fill', 'fill')], behind = [] }: Coats = {},
): Card {
  const piece = { ...createPiece(kind, card), ...values, coats: { face, behind } } as Piece
  return { ...card, pieces: [piece, ...card.pieces] }
}

/** Covered area of a picture in px². */
export function coveredArea({ bits, pixels }: FramePicture): number {
  const values = bits === 8 ? pixels : new Uint16Array(pixels.buffer)
  const top = bits === 8 ? 255 : 65535
  let sum = 0
  for (let i = 3; i < values.length; i += 4) sum += values[i]!
  return sum / top
}
