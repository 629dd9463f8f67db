/** What a stand-in edit shows: the file, the file beside the engine's frame, their difference, or the engine's frame. */
export const EDIT_LOOKS = [
  { id: 'file', label: 'The file', help: 'The delivered file over the footage, as an edit shows it' },
  { id: 'split', label: 'Split', help: 'Left of the line the file, right of it what the engine made' },
  {
    id: 'difference',
    label: 'Difference ×16',
    help: 'How far the file is from what the engine made: black is the same',
  },
  { id: 'engine', label: 'The engine', help: 'What the engine made, over the same footage' },
] as const
export type EditLook = (typeof EDIT_LOOKS)[number]['id']

/** How much stronger differences are shown. */
const STRONGER = 16

interface Layers {
  footage: HTMLVideoElement | null
  file: ImageBitmap | null
  engine: ImageBitmap | null
}

let tables: OffscreenCanvas[] = []

/** A canvas to work on, of a size; there are two. */
function table(index: number, width: number, height: number): OffscreenCanvasRenderingContext2D {
  if (tables[0]?.width !== width || tables[0].height !== height) {
    tables = [new OffscreenCanvas(width, height), new OffscreenCanvas(width, height)]
  }
  return tables[index]!.getContext('2d', { willReadFrequently: true })!
}

type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D

/** A title over footage. */
function laid(context: Context, footage: HTMLVideoElement | null, title: ImageBitmap | null) {
  const { width, height } = context.canvas
  context.globalCompositeOperation = 'source-over'
  context.fillStyle = '#000'
  context.fillRect(0, 0, width, height)
  if (footage && footage.readyState >= 2) cover(context, footage)
  if (title) context.drawImage(title, 0, 0, width, height)
}

/** Footage fills the frame, whatever its shape. */
function cover(context: Context, footage: HTMLVideoElement) {
  const { width, height } = context.canvas
  const scale = Math.max(width / footage.videoWidth, height / footage.videoHeight)
  const [w, h] = [footage.videoWidth * scale, footage.videoHeight * scale]
  context.drawImage(footage, (width - w) / 2, (height - h) / 2, w, h)
}

/** Draws a moment; gives the largest difference of a channel, 0–255, where the look is that of differences. */
export function drawEdit(
  context: CanvasRenderingContext2D,
  look: EditLook,
  { footage, file, engine }: Layers,
  split: number,
): number | null {
  const { width, height } = context.canvas
  if (look === 'difference' && engine) return drawDifference(context, { footage, file, engine })
  laid(context, footage, look === 'engine' ? engine : file)
  if (look !== 'split' || !engine) return null
  const from = Math.round(split * width)
  const other = table(0, width, height)
  laid(other, footage, engine)
  context.drawImage(other.canvas, from, 0, width - from, height, from, 0, width - from, height)
  context.fillStyle = '#fff'
  context.fillRect(from - 1, 0, 2, height)
  return null
}

function drawDifference(context: CanvasRenderingContext2D, { footage, file, engine }: Layers): number {
  const { width, height } = context.canvas
  const [one, other] = [table(0, width, height), table(1, width, height)]
  laid(one, footage, file)
  laid(other, footage, engine)
  const picture = one.getImageData(0, 0, width, height)
  const a = picture.data
  const b = other.getImageData(0, 0, width, height).data
  let most = 0
  for (let at = 0; at < a.length; at++) {
    if (at % 4 === 3) continue
    const off = Math.abs(a[at]! - b[at]!)
    if (off > most) most = off
    a[at] = off * STRONGER
  }
  context.putImageData(picture, 0, 0)
  return most
}
