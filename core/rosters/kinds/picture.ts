import { WaxError } from '../../errors'
import { isMoving } from '../../values/moving'
import type { PicturePiece } from '../../card/schema'
import { setStored, storedAt } from '../../edit/values'
import { withPiece } from '../../edit/path'
import type { FieldKindDefinition, KnownPicture } from './definition'
import { filledAt, pieceOf } from './definition'

/** `logo/picture`: another picture stands within the same box, as large as it fits; a texture is filled with it. */
export const pictureField: FieldKindDefinition = {
  kind: 'picture',
  label: 'Picture',
  help: 'The file name of a picture that was brought in; it is shown as large as the card’s own has room. An empty cell keeps the card’s',
  empty: 'kept',
  takes: (card, address) => {
    const piece = pieceOf(card, address)
    if (!piece) return false
    if (address === `${piece.id}/picture`) return piece.kind === 'picture'
    if (!address.endsWith('/picture')) return false
    const paint = storedAt(card, address.slice(0, -'/picture'.length)) as { pattern?: string } | undefined
    return typeof paint === 'object' && paint?.pattern === 'picture'
  },
  written: (card, { at }) => (storedAt(card, at[0]!) as string | null) ?? '',
  fill: (filled, field, cell, brought) => {
    const picture = brought.picture(cell.trim())
    if (!picture) {
      throw new WaxError(
        'missing-picture',
        field.label,
        `The picture “${cell.trim()}” is not here.`,
        'Bring its file in, or mend its name.',
      )
    }
    return filledAt(filled, field, (card, address) => {
      const piece = pieceOf(card, address)!
      if (address !== `${piece.id}/picture`) return setStored(card, address, picture.id)
      return withPiece(card, piece.id, (own) => ({ ...(own as PicturePiece), ...within(own as PicturePiece, picture) }))
    })
  },
}

/** The picture in the box that another one had, whole and in its own shape. A box that moves keeps its size. */
function within({ width, height }: PicturePiece, picture: KnownPicture): Partial<PicturePiece> {
  if (isMoving(width) || isMoving(height)) return { picture: picture.id }
  const size = Math.min((width as number) / picture.width, (height as number) / picture.height)
  return { picture: picture.id, width: picture.width * size, height: picture.height * size }
}
