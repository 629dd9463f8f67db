import { boundsOf } from '#core/extent'
import { changePiece, addPiece } from '#core/edit/stack'
import type { Card, Piece } from '#core/card/schema'
import type { BroughtPicture } from '#core/edit/inside'
import { showInside } from '#core/edit/inside'
import type { PieceOutlook } from '#core/frame/outlook'
import { unplace } from '#core/outline/outline'
import { svgPieces } from '#core/formats/svg-in'
import { WaxError } from '#core/errors'
import type { Point } from '#core/units'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { usePictures } from '~/stores/pictures'
import type { OwnSequence } from '~/stores/sequences'
import { useSequences } from '~/stores/sequences'
import { lotsOf } from './numbered-files'
import { faultOf } from './api'

const plainName = (fileName: string) => fileName.replace(/\.[^.]+$/, '').slice(0, 200) || 'Picture'
const nameOf = (file: File) => plainName(file.name)

/** What a piece has that shows a sequence: at its own size, or smaller where the frame is, and at its own rate. */
export function sequenceValues({ id, frames, width, height, rate, alpha }: OwnSequence, { frame }: Card) {
  const fit = Math.min(1, frame.width / width, frame.height / height)
  return {
    ...{ sequence: { id, frames }, rate, alpha: alpha ?? 'straight' },
    width: Math.max(1, Math.round(width * fit)),
    height: Math.max(1, Math.round(height * fit)),
  }
}

/** Files dropped on the stage or pasted: pictures and sequences become pieces, SVG files become groups of paths. */
export function useBringFiles() {
  const bench = useBench()
  const notices = useNotices()
  const pictures = usePictures()
  const sequences = useSequences()

  async function bringIn(files: readonly File[], at?: Point) {
    for (const { files: lot, moves } of await lotsOf(files)) {
      const file = lot[0]!
      try {
        if (moves) await sequence(lot, at)
        else if (/\.svg$/i.test(file.name) || file.type === 'image/svg+xml') await svg(file, at)
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

  async function sequence(files: readonly File[], at?: Point) {
    const found = await sequences.bringIn(files)
    let made = ''
    bench.edit(`Bring in ${found.fileName}`, (card) => {
      const added = addPiece(card, 'sequence')
      made = added.id
      const values = { name: plainName(found.fileName), ...sequenceValues(found, card), ...at }
      return changePiece(added.card, added.id, values as Partial<Piece>)
    })
    bench.select(made)
    const [note] = found.notes
    const laid =
      found.alpha === 'black' || found.alpha === 'white'
        ? `Its colours were laid on ${found.alpha}: Alpha is set so.`
        : ''
    if (note || laid) notices.say([note, laid].filter(Boolean).join(' '))
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

  async function brought(files: readonly File[]): Promise<BroughtPicture> {
    const [lot] = await lotsOf(files)
    const file = lot!.files[0]!
    if (lot!.moves) {
      const found = await sequences.bringIn(lot!.files)
      const { width, height, ...values } = sequenceValues(found, bench.card!)
      return { kind: 'sequence', name: plainName(found.fileName), width, height, values }
    }
    const id = await pictures.bringIn(file)
    const { width, height } = pictures.list.find((other) => other.id === id)!
    return { kind: 'picture', name: nameOf(file), width, height, values: { picture: id } }
  }

  /** Brings in a picture, or a sequence, and shows it within the face of a piece that stands somewhere. */
  async function inside(files: readonly File[], piece: Piece, stands: PieceOutlook | undefined) {
    const picture = await brought(files)
    const corners = stands?.corners.map((corner) => unplace(stands.parent, corner)) ?? []
    const around = boundsOf(corners)
    if (!(around.right > around.left && around.bottom > around.top)) {
      notices.fault({
        message: `${piece.name} has no face at this frame.`,
        remedy: 'Go to a frame at which it is there.',
      })
      return
    }
    let made = ''
    bench.edit(`Picture inside ${piece.name}`, (card) => {
      const shown = showInside(card, piece.id, picture, around)
      made = shown.id
      return shown.card
    })
    bench.select(made)
  }

  return { bringIn, inside }
}
