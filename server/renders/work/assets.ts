import type { Database } from '../../database/connect'
import type { FontSource } from '../../fonts/shipped'
import { ownFonts } from '../../fonts/own-fonts'
import { pictureFile } from '../../pictures/files'
import { readOwnPicture } from '../../pictures/own-picture'
import type { PictureSource } from '../../pictures/pictures-of'
import type { SequenceSource } from '../../../core/frame/fetching'
import { sequencePicture } from '../../sequences/pictures'

/** Where a worker gets what people brought in. */
export interface Assets {
  font: FontSource
  picture: PictureSource
  sequence: SequenceSource
}

/** From the database and the storage of this machine. */
export const assetsHere = (database: Database, storage: string): Assets => ({
  font: ownFonts(database),
  picture: async (id) => {
    const file = await pictureFile(storage, id)
    return file && (await readOwnPicture(file, id)).picture
  },
  sequence: (id, index) => sequencePicture(storage, id, index),
})
