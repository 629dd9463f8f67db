import { changePiece, addPiece } from '#core/edit/stack'
import type { Piece } from '#core/card/schema'
import { svgPieces } from '#core/formats/svg-in'
import { WaxError } from '#core/errors'
import type { Point } from '#core/units'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { usePictures } from '~/stores/pictures'
import { faultOf } from './api'

/** Files dropped on the stage or pasted: pictures become pieces, SVG files become groups of paths. */
export function useBringFiles() {
  const bench = useBench()
  const notices = useNotices()
  const pictures = usePictures()

  async function bringIn(files: readonly File[], at?: Point) {
    for (const file of files) {
      try {
        if (/\.svg$/i.test(file.name) || file.type === 'image/svg+xml') await svg(file, at)
        else await picture(file, at)
      } catch (error) {
        notices.fault(error instanceof WaxError ? error.fault : faultOf(error))
      }
    }
  }

  async function svg(file: File, at?: Point) {
    const text = await file.text()
    let made = ''
    bench.edit(`Bring in ${file.name}`, (card) => {
      const added = svgPieces(card, text, file.name)
      made = added.id
      return at ? changePiece(added.card, added.id, at) : added.card
    })
    bench.select(made)
  }

  async function picture(file: File, at?: Point) {
    const id = await pictures.bringIn(file)
    const found = pictures.list.find((other) => other.id === id)!
    let made = ''
    bench.edit(`Bring in ${file.name}`, (card) => {
      const added = addPiece(card, 'picture')
      made = added.id
      const fit = Math.min(1, card.frame.width / found.width, card.frame.height / found.height)
      const values = {
        name: file.name.replace(/\.[^.]+$/, '').slice(0, 200) || 'Picture',
        picture: id,
        width: Math.max(1, Math.round(found.width * fit)),
        height: Math.max(1, Math.round(found.height * fit)),
      }
      return changePiece(added.card, added.id, { ...values, ...at } as Partial<Piece>)
    })
    bench.select(made)
  }

  return { bringIn }
}
