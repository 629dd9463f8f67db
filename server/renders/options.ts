import { z } from 'zod'

/** What a person chooses for a render. Frames are half-open: `to` is not rendered. */
export const renderOptionsSchema = z.strictObject({
  format: z.enum(['png', 'prores4444']),
  /** Bits a channel; ProRes 4444 is always made from 16. */
  bits: z.union([z.literal(8), z.literal(16)]).default(8),
  from: z.number().int().min(0),
  to: z.number().int().min(1),
})

export type RenderOptions = z.infer<typeof renderOptionsSchema>
export type RenderFormat = RenderOptions['format']
