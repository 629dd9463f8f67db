import { WaxError } from '../errors'
import { Font } from './font'

/** The fonts that an engine has at hand, by the id that cards name them with. */
export class FontBook {
  private readonly fonts = new Map<string, Font>()

  add(id: string, bytes: Uint8Array): Font {
    const font = new Font(bytes, id)
    this.fonts.set(id, font)
    return font
  }

  has(id: string): boolean {
    return this.fonts.has(id)
  }

  /** Throws a WaxError that names the piece where the font is not there. */
  get(id: string, place: string): Font {
    const font = this.fonts.get(id)
    if (!font) {
      throw new WaxError(
        'missing-font',
        place,
        `The font “${id}” is not here.`,
        'Bring the font file in, or choose another font.',
      )
    }
    return font
  }
}
