import * as Comlink from 'comlink'
import type { Engine, View } from '#core/frame/engine'
import type { PieceOutlook } from '#core/frame/outlook'
import type { CardPatch } from '#core/card/patch'
import { patched } from '#core/card/patch'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { WaxError } from '#core/errors'
import type { UnseenReason } from '#core/help/unseen-words'
import { pictureDifference } from '#core/judge/ring-difference'
import type { Section } from '#core/frame/section'
import type { FontAxis } from '#core/type/font'
import type { Point } from '#core/units'
import { sequencesOf } from '#core/card/tree'
import { fetchAhead, withPictures } from '#core/frame/fetching'
import { loadAssets, pictureOfSequence } from './card-assets'

/** A rendered frame for the screen, or why there is none; `engines` have shared it. */
export type Shown = { bitmap: ImageBitmap; milliseconds: number; engines: number } | { fault: Fault }

/** How a frame is to be rendered for the screen; see View. */
export type Look = Required<Pick<View, 'scale'>> & Pick<View, 'draft' | 'region'>

/** Steps between neighbouring pictures, or why there are none. */
export type Differences = { steps: number[] } | { fault: Fault }

// The engine's module waits for the shaping library to load. Messages that arrive before the worker listens
// would be lost, so it listens at once and loads the engine beside it.
let starting = import('#core/frame/engine').then(({ Engine }) => new Engine())
const cards = new Map<string, Card>()
let pixels: Uint8Array<ArrayBuffer> | undefined

const face = {
  /** Makes a card known under a name; it says what is other than in the one before it. */
  setCard(name: string, patch: CardPatch): void {
    cards.set(name, patched(cards.get(name) ?? null, patch))
  },

  forgetCard(name: string): void {
    cards.delete(name)
  },

  async render(name: string, frame: number, { scale, draft, region }: Look): Promise<Shown> {
    const card = cards.get(name)
    if (!card) return { fault: goneFault(name) }
    try {
      await engineFor(card, frame)
      const start = performance.now()
      const bitmap = await atWork((engine) => {
        const picture = engine.render(card, frame, {
          ...{ scale, draft: draft ?? false },
          ...(region ? { region } : {}),
          ...(pixels ? { reuse: pixels } : {}),
        })
        pixels = picture.pixels
        // At once: with the next wait another picture may be made in the same pixels. They are copied as the call is made.
        return createImageBitmap(new ImageData(new Uint8ClampedArray(pixels.buffer), picture.width, picture.height))
      })
      return Comlink.transfer({ bitmap, milliseconds: performance.now() - start, engines: 1 }, [bitmap])
    } catch (error) {
      await shrink()
      return { fault: faultOf(error) }
    }
  },

  /** SHA-256 of a frame at full size, straight 8-bit RGBA: what the command line and the server must also make. */
  async hash(card: Card, frame: number): Promise<string> {
    await engineFor(card, frame)
    const { pixels: full } = await atWork((engine) => engine.render(card, frame))
    const digest = await crypto.subtle.digest('SHA-256', full)
    return [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  },

  /** See Engine.pick; null as well while the card cannot be rendered. */
  async pick(name: string, frame: number, point: Point, group: string | null): Promise<string | null> {
    const card = cards.get(name)
    try {
      if (!card) return null
      await engineFor(card, frame)
      return await atWork((engine) => engine.pick(card, frame, point, group))
    } catch {
      return null
    }
  },

  /** See Engine.section; null for a piece that has none. */
  async section(name: string, piece: string, frame: number, facing?: number): Promise<Section | null> {
    const card = cards.get(name)
    try {
      if (!card) return null
      await engineFor(card, frame)
      return await atWork((engine) => engine.section(card, piece, frame, facing))
    } catch {
      return null
    }
  },

  /** Why a piece is not to be seen at a frame; null where it is, or while the card cannot be rendered. */
  async unseen(name: string, piece: string, frame: number): Promise<UnseenReason | null> {
    const card = cards.get(name)
    try {
      if (!card) return null
      await engineFor(card, frame)
      const { whyUnseen } = await import('#core/judge/unseen')
      return await atWork((engine) => whyUnseen(engine, card, piece, frame))
    } catch {
      return null
    }
  },

  /** The straight colour of one pixel of the card at a frame, as RGBA of 255. */
  async colourAt(name: string, frame: number, { x, y }: Point): Promise<number[] | null> {
    const card = cards.get(name)
    if (!card) return null
    const [left, top] = [Math.floor(x / 64) * 64, Math.floor(y / 64) * 64]
    const region = {
      ...{ x: left, y: top },
      ...{ w: Math.min(64, card.frame.width - left), h: Math.min(64, card.frame.height - top) },
    }
    if (left < 0 || top < 0 || region.w <= 0 || region.h <= 0) return null
    await engineFor(card, frame)
    const { pixels: cell } = await atWork((engine) => engine.render(card, frame, { region }))
    const at = ((Math.floor(y) - top) * region.w + Math.floor(x) - left) * 4
    return [...cell.subarray(at, at + 4)]
  },

  /** The mean difference of each frame's picture to the next one's, from `from` up to, not with, `to`. */
  async differences(name: string, from: number, to: number, scale: number): Promise<Differences> {
    const card = cards.get(name)
    if (!card) return { fault: goneFault(name) }
    try {
      const pictureAt = async (frame: number) => {
        await engineFor(card, frame)
        return atWork((engine) => engine.render(card, frame, { scale }))
      }
      const steps: number[] = []
      let before = await pictureAt(from)
      for (let frame = from + 1; frame <= to; frame++) {
        const after = await pictureAt(frame)
        steps.push(pictureDifference(before, after).mean)
        before = after
      }
      return { steps }
    } catch (error) {
      return { fault: faultOf(error) }
    }
  },

  /** What a font of the card can do: its axes, and the OpenType features that it has; null where it is not here. */
  async fontOf(name: string, id: string): Promise<{ axes: FontAxis[]; features: string[] } | null> {
    const card = cards.get(name)
    if (!card) return null
    const { fonts } = await engineFor(card)
    if (!fonts.has(id)) return null
    const { axes, features } = fonts.get(id, id)
    return { axes: [...axes], features: [...features] }
  },

  /** See Engine.beforeStep; null also while the card cannot be rendered. */
  async beforeStep(name: string, piece: string, step: string, frame: number) {
    const card = cards.get(name)
    try {
      if (!card) return null
      await engineFor(card, frame)
      return await atWork((engine) => engine.beforeStep(card, piece, step, frame))
    } catch {
      return null
    }
  },

  async outlook(name: string, frame: number): Promise<PieceOutlook[]> {
    const card = cards.get(name)
    if (!card) return []
    try {
      await engineFor(card, frame)
      return await atWork((engine) => engine.outlook(card, frame))
    } catch {
      // The picture tells the fault; without it there are no handles.
      return []
    }
  },
}

export type EngineFace = typeof face

/** How many frames ahead the pictures of sequences are fetched while one frame is made. */
const AHEAD = 3

/** The engine, with the card's fonts and pictures loaded, and those of sequences that a frame shows. */
async function engineFor(card: Card, frame?: number): Promise<Engine> {
  const engine = await starting
  await Promise.all([
    loadAssets(engine, card),
    ...(frame === undefined ? [] : [fetchAhead(engine.sequences, pictureOfSequence, card, frame)]),
  ])
  // In the order of play, while this frame is made.
  if (frame !== undefined && sequencesOf(card).length > 0) {
    for (let i = 1; i <= AHEAD; i++)
      void fetchAhead(engine.sequences, pictureOfSequence, card, frame + i).catch(() => {})
  }
  return engine
}

/** Lets the engine work; what of sequences it has not been given is fetched. */
async function atWork<T>(work: (engine: Engine) => T): Promise<T> {
  const engine = await starting
  return withPictures(engine.sequences, pictureOfSequence, () => work(engine))
}

/** Bytes of an engine above which another one takes its place after a picture that could not be made. */
const LARGE = 1024 * 1024 * 1024

/** Memory of pixels never shrinks: an engine that took much for nothing is given up, its fonts and pictures go on. */
async function shrink(): Promise<void> {
  const { memory, fonts, pictures, sequences } = await starting
  if (memory < LARGE) return
  starting = import('#core/frame/engine').then(({ Engine }) => new Engine(fonts, pictures, { sequences }))
}

const goneFault = (name: string): Fault => ({
  ...{ code: 'no-card', place: name, message: 'The card is gone.', remedy: 'Open it again.' },
})

function faultOf(error: unknown): Fault {
  if (error instanceof WaxError) return error.fault
  const message = error instanceof Error ? error.message : String(error)
  return { code: 'engine', place: 'engine', message, remedy: 'Undo the last step; report this with the card file.' }
}

Comlink.expose(face)
