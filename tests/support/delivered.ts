import type { Card } from '#core/card/schema'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import { expectOptions } from '#core/formats/deliveries/render-options'
import { deliveryOf } from '#core/formats/deliveries/table'
import type { FramePicture } from '#core/frame/engine'
import { Engine } from '#core/frame/engine'
import type { FilePlan } from '#server/renders/encoders/encoder'
import { encoderOf } from '#server/renders/encoders/table'
import type { RenderPlan } from '#server/renders/plan'
import { planFor } from '#server/renders/plan'
import type { Outcome } from '#server/renders/verify'
import { verifyFile } from '#server/renders/verify'
import { coat, emptyCard, fontBytes, solid, withType } from './engine'

// Deliveries written and read without the queue: the engine's frames, and what somebody makes of them.

export const fonts = new Map([['anton', fontBytes('anton')]])

/** Type with a soft shadow that moves: every value of alpha is in it. 29.97 frames a second unless said otherwise. */
export function softCard(rate = { numerator: 30000, denominator: 1001 }): Card {
  const face = [
    coat('fill', 'f', { paint: solid('#F2A33C') }),
    coat('stroke', 's', { width: 4, paint: solid('#3D0D16') }),
  ]
  const behind = [coat('shadow', 'h', { softness: 50, colour: '#FF9A3C', distance: 8 })]
  const x = {
    keys: [
      { frame: 0, value: 120.25 },
      { frame: 5, value: 200.75 },
    ],
  }
  return {
    ...withType(emptyCard(320, 176, 10), { wording: 'Wax', font: 'anton', size: 110, x }, { face, behind }),
    name: 'Soft',
    rate,
  }
}

export const planned = (card: Card, wish: RenderWish, paths: string[]): RenderPlan =>
  planFor({ document: card, options: expectOptions(wish), programme: null }, { paths, stem: 'soft' })

/** Every frame of the card in the form that a delivery takes. */
export function framesOf(card: Card, { form }: FilePlan): FramePicture[] {
  const engine = new Engine()
  for (const [id, bytes] of fonts) engine.fonts.add(id, bytes)
  return Array.from({ length: card.length }, (_, frame) => engine.render(card, frame, form))
}

/** Writes pictures as a delivery. */
export async function written(plan: FilePlan, pictures: readonly FramePicture[]): Promise<void> {
  const encoder = encoderOf(plan.options.format)
  const shown = await encoder.shown?.(plan)
  const writer = await encoder.open(plan)
  try {
    for (const [i, picture] of pictures.entries()) await writer.write((await shown?.of(picture, i)) ?? picture)
    await writer.close()
  } catch (error) {
    await writer.abort()
    throw error
  } finally {
    shown?.end?.()
  }
}

/** Holds what lies at the plan's paths against these frames of the engine. */
export function held({ plan, order, loops }: RenderPlan, frames: readonly FramePicture[]): Promise<Outcome> {
  return verifyFile({
    ...{ plan, order, loops },
    delivery: deliveryOf(plan.options.format),
    encoder: encoderOf(plan.options.format),
    made: {
      // Frames that are the same have the same hash.
      hash: (frame) => Buffer.from(frames[frame]!.pixels).toString('latin1'),
      pixels: (frame) => Promise.resolve(frames[frame]!.pixels),
    },
  })
}
