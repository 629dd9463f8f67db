import type { PixelForm } from '../../../core/kernels/pixel-form'
import { readColour } from '../../../core/values/colour'
import { isClear } from '../encoders/clear-rows'
import type { SeenPicture } from '../encoders/encoder'

/** How colours lie in a file: as the edit is told. `matte`: what premultiplied ones are laid over. */
export interface StoredForm extends Pick<PixelForm, 'alpha' | 'light'> {
  matte?: string | undefined
}

/** A picture as it is stored, as straight RGBA of 8 bits for the display, as an edit lays it over footage. */
export function straightPicture(
  seen: SeenPicture,
  { width, height }: { width: number; height: number },
  { alpha, light, matte = '#000000' }: StoredForm,
): Buffer {
  const made = Buffer.alloc(width * height * 4)
  const under = alpha === 'premultiplied' ? readColour(matte) : null
  for (let y = 0, at = 0; y < height; y++) {
    const stored = seen.alpha?.(y)
    if (stored && isClear(stored, width)) {
      at += width * 4
      continue
    }
    const row = seen.row(y, 0, width)
    for (let i = 0; i < width * 4; i += 4, at += 4) {
      const cover = Math.min(1, Math.max(0, row[i + 3]!))
      if (cover === 0) continue
      for (let c = 0; c < 3; c++) {
        const value = under ? (row[i + c]! - under[c]! * (1 - cover)) / cover : row[i + c]!
        made[at + c] = toByte(light === 'linear' ? forDisplay(value) : value)
      }
      made[at + 3] = toByte(cover)
    }
  }
  return made
}

const toByte = (value: number): number => Math.round(255 * Math.min(1, Math.max(0, value)))

/** IEC 61966-2-1: light to what a display is given. */
export const forDisplay = (light: number): number =>
  light <= 0.0031308 ? 12.92 * light : 1.055 * Math.pow(light, 1 / 2.4) - 0.055
