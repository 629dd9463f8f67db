import { z } from 'zod'
import { RENDER_FORMATS } from '../../core/formats/deliveries'

/** What a person chooses for a render. Frames are half-open: `to` is not rendered. */
export const renderOptionsSchema = z.strictObject({
  format: z.enum(RENDER_FORMATS),
  /** Bits a channel, where the format leaves a choice. */
  bits: z.union([z.literal(8), z.literal(16)]).default(8),
  from: z.number().int().min(0),
  to: z.number().int().min(1),
  /** How often the hold of a card with zones is played; frames are counted in the run that comes of it. */
  holds: z.number().int().min(1).max(10_000).default(1),
})

export type RenderOptions = z.infer<typeof renderOptionsSchema>
/** As it comes in: what was queued by an older application has one hold. */
export type RenderWish = z.input<typeof renderOptionsSchema>
