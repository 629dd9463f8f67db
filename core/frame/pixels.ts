import type { PicturePiece, SequencePiece } from '../card/schema'
import type { Layers } from '../kernels/kernels'
import { fromPixels } from '../paint/gradient'
import { PICTURE_PARAMETERS } from '../pieces/picture'
import { SEQUENCE_PARAMETERS, shownPictures } from '../pieces/sequence'
import { valuesAt } from '../values/evaluated'
import type { Canvas } from './canvas'
import { formOf } from './form'
import type { GridBox } from './grid-box'
import type { Drawing, Standing } from './piece'
import { isLinear, pictureSampler } from './prepared-paint'
import { halvingsFor, readyOnce, readySampler } from './ready-picture'

/** The pixels of a picture or of a sequence, their edges as exact as those of a box. */
export function drawPixels(
  drawing: Drawing,
  standing: Standing,
  piece: PicturePiece | SequencePiece,
  { layers, box }: Canvas,
  place: string,
): void {
  const { kernels } = drawing
  const form = formOf(drawing, standing, place)
  if (!form) return
  const mark = kernels.mark()
  const sample =
    piece.kind === 'picture' ? pictureOf(drawing, standing, piece, place) : sequenceOf(drawing, standing, piece, place)
  if (sample) {
    const mask = kernels.coverage(kernels.segments(form.segments, -box.x, -box.y), box.w, box.h)
    kernels.layPicture('normal', layers, { mask, gate: null }, sample(box), 1)
  }
  kernels.release(mark)
}

type Sample = (window: GridBox) => Layers

function pictureOf(drawing: Drawing, { at, placement }: Standing, piece: PicturePiece, place: string): Sample | null {
  const { picture } = piece
  if (!picture) return null
  const { width, height, linear } = valuesAt(PICTURE_PARAMETERS, piece, at)
  const pixels = drawing.pictures.get(picture, `${place}.picture`)
  const map = fromPixels(placement, { x: 0, y: 0 }, pixels.width / width, pixels.height / height)
  return pictureSampler(drawing, { picture, linear, repeated: false }, map, `${place}.picture`)
}

function sequenceOf(drawing: Drawing, { at, placement }: Standing, piece: SequencePiece, place: string): Sample | null {
  const { kernels, sequences, card } = drawing
  const { sequence } = piece
  if (!sequence) return null
  const { width, height, linear: inLinear, alpha } = valuesAt(SEQUENCE_PARAMETERS, piece, at)
  // All of them are asked for before any is made ready.
  const shown = shownPictures(piece, at).map(({ index, share }) => {
    return { share, picture: sequences.get(sequence.id, index, `${place}.sequence`) }
  })
  const [first] = shown
  if (!first) return null
  const { picture } = first
  const map = fromPixels(placement, { x: 0, y: 0 }, picture.width / width, picture.height / height)
  const halvings = halvingsFor(picture, map)
  const ready = shown.map(({ share, picture }) => ({
    share,
    layers: readyOnce(kernels, picture, { inLinear, alpha }, isLinear(card), halvings),
  }))
  const { share, layers } = ready[0]!
  ready.slice(1).forEach((other, i) => kernels.mixInto(other.layers, layers, i === 0 ? share : 1, other.share))
  return readySampler(kernels, layers, picture, map, false)
}
