import type { Card } from '#core/card/schema'
import { coat, emptyCard, solid, withBox } from './engine'

/** A box with a soft shadow that goes across 1280 × 720: some work for each of its frames. */
export function movingCard(length: number): Card {
  const keys = [
    { frame: 0, value: 200, easing: 'linear' },
    { frame: length - 1, value: 1000, easing: 'linear' },
  ]
  return withBox(
    { ...emptyCard(1280, 720, length), name: 'Across' },
    { x: { keys } as never, y: 360, width: 300, height: 200 },
    {
      face: [coat('fill', 'f', { paint: solid('#F2A33C') })],
      behind: [coat('shadow', 's', { softness: 60, distance: 30 })],
    },
  )
}
