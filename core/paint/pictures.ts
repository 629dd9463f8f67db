import { WaxError } from '../errors'

/** Pictures with more pixels than this are refused before they are decoded. */
export const MOST_PIXELS = 24_000_000

/** A decoded picture: RGBA, 8 or 16 bits a channel, display-encoded sRGB, straight unless something else is said. */
export interface Picture {
  width: number
  height: number
  pixels: Uint8Array | Uint16Array
}

/** The pictures that an engine has at hand, by the id that cards name them with. */
export class PictureBook {
  private readonly pictures = new Map<string, Picture>()

  add(id: string, picture: Picture): void {
    const { width, height, pixels } = picture
    if (width * height > MOST_PIXELS || pixels.length !== width * height * 4) {
      throw new WaxError(
        'picture-too-large',
        id,
        `The picture has ${width}×${height} px.`,
        `Pictures may have up to ${MOST_PIXELS / 1_000_000} million pixels: make it smaller.`,
      )
    }
    this.pictures.set(id, picture)
  }

  has(id: string): boolean {
    return this.pictures.has(id)
  }

  /** Throws a WaxError that names the place where the picture is not there. */
  get(id: string, place: string): Picture {
    const picture = this.pictures.get(id)
    if (!picture) {
      throw new WaxError(
        'missing-picture',
        place,
        `The picture “${id}” is not here.`,
        'Bring the picture in, or choose another paint.',
      )
    }
    return picture
  }
}
