import type { Ground } from '#core/judge/proof/grounds'
import { readColour } from '#core/values/colour'
import type { BackdropId } from '~/composables/backdrops'

/** Pixels across that are enough to tell what type is read over. */
const ACROSS = 1920

/**
 * What the designer looks at the card against, where it is a colour or a picture of their own: the proof holds the type against it
 * too. The application's own backdrops are for the eye alone.
 */
export async function ownGround(backdrop: BackdropId, ownPicture: string | null): Promise<Ground | null> {
  if (backdrop.startsWith('#')) {
    const colour = Uint8Array.from(readColour(backdrop), (value) => Math.round(value * 255))
    return { label: backdrop, over: { width: 1, height: 1, pixels: colour } }
  }
  if (backdrop !== 'own' || !ownPicture) return null
  const whole = new Image()
  whole.src = ownPicture
  await whole.decode()
  const scale = Math.min(1, ACROSS / whole.naturalWidth)
  const [width, height] = [Math.round(whole.naturalWidth * scale), Math.round(whole.naturalHeight * scale)]
  const context = new OffscreenCanvas(width, height).getContext('2d')!
  context.drawImage(whole, 0, 0, width, height)
  const { data } = context.getImageData(0, 0, width, height)
  return { label: 'your picture', over: { width, height, pixels: new Uint8Array(data.buffer) } }
}
