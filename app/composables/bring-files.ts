import { changePiece, addPiece } from '#core/edit/stack'
import type { Piece } from '#core/card/schema'
import { showInside } from '#core/edit/inside'
import type { PieceOutlook } from '#core/frame/outlook'
import { unplace } from '#core/outline/outline'
import { svgPieces } from '#core/formats/svg-in'
import { WaxError } from '#core/errors'
import type { Point } from '#core/units'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { usePictures } from '~/stores/pictures'
import { faultOf } from './api'

const nameOf = (file: File) => file.name.replace(/\.[^.]+$/, '').slice(0, 200) || 'Picture'

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
        name: nameOf(file),
        picture: id,
        width: Math.max(1, Math.round(found.width * fit)),
        height: Math.max(1, Math.round(found.height * fit)),
      }
      return changePiece(added.card, added.id, { ...values, ...at } as Partial<Piece>)
    })
    bench.select(made)
  }

  /** Brings in a picture and shows it within the face of a piece that stands somewhere. */
  async function inside(file: File, piece: Piece, stands: PieceOutlook | undefined) {
    const id = await pictures.bringIn(file)
    const { width, height } = pictures.list.find((other) => other.id === id)!
    const brought = { id, width, height, name: nameOf(file) }
    const corners = stands?.corners.map((corner) => unplace(stands.parent, corner)) ?? []
    const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)]
    const around = { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) }
    if (!(around.right > around.left && around.bottom > around.top)) {
      notices.fault({
        message: `${piece.name} has no face at this frame.`,
        remedy: 'Go to a frame at which it is there.',
      })
      return
    }
    let made = ''
    bench.edit(`Picture inside ${piece.name}`, (card) => {
      const shown = showInside(card, piece.id, brought, around)
      made = shown.id
      return shown.card
    })
    bench.select(made)
  }

  return { bringIn, inside }
}
