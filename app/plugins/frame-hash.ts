import type { Card } from '#core/card/schema'
import { onEngine } from '~/workers/engine-pool'

declare global {
  interface Window {
    /** SHA-256 of a frame at full size, made by the bench's own workers: for checks from outside. */
    waxFrameHash?: (card: Card, frame: number) => Promise<string>
  }
}

export default defineNuxtPlugin(() => {
  window.waxFrameHash = (card, frame) =>
    onEngine(
      (face) => face.hash(card, frame),
      ({ message }) => message,
    )
})
