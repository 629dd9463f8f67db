import { createCanvas } from '@napi-rs/canvas'
import { createCard, createCoat, createMask, createPiece } from '../core/card/create'
import { expectCard } from '../core/card/read'
import type { Card, Mask, Piece } from '../core/card/schema'
import { Engine } from '../core/frame/engine'
import type { Row } from './measure'
import { median } from './measure'

// A mask over a whole frame that changes at every frame: the time beside that of the same frame without it.

const [W, H] = [1920, 1080]
const POINTS = 50
const FEATHER = 40

/** A star of fifty points that fills the frame. */
function corners(): [number, number][] {
  return Array.from({ length: POINTS }, (_, i) => {
    const [angle, reach] = [(i / POINTS) * 2 * Math.PI, i % 2 ? 0.99 : 0.7]
    return [Math.round(Math.cos(angle) * reach * (W / 2)), Math.round(Math.sin(angle) * reach * (H / 2))]
  })
}

function card(masks: Mask[]): Card {
  const base = createCard('Mask', { width: W, height: H, rate: { numerator: 25, denominator: 1 }, length: 100 })
  const box = { ...createPiece('box', base), x: W / 2, y: H / 2, width: 4000, height: 4000, masks }
  // Its fill moves, so that nothing of the frame is kept.
  const colour = {
    keys: [
      { frame: 0, value: '#F6C667' },
      { frame: 99, value: '#1E6B6A' },
    ],
    loop: false,
  }
  const fill = { ...createCoat('fill', 'f'), paint: { type: 'solid', colour } }
  return expectCard({ ...base, pieces: [{ ...box, coats: { face: [fill], behind: [] } } as unknown as Piece] })
}

export async function maskRows(): Promise<Row[]> {
  const x = {
    keys: [
      { frame: 0, value: 0 },
      { frame: 99, value: 40 },
    ],
    loop: false,
  }
  const path = `M ${corners()
    .map(([px, py]) => `${px} ${py}`)
    .join(' L ')} Z`
  const star = { ...createMask('path', 'm'), path, feather: FEATHER, x } as unknown as Mask
  const [plain, masked] = [await framesOf(card([])), await framesOf(card([star]))]
  const theirs = await median(skia)
  const ours = masked - plain
  return [
    {
      ...{ name: 'mask of 50 points, feather 40', ours_ms: ours, peer: '@napi-rs/canvas (Skia, u8)' },
      ...{ peer_ms: theirs, ratio: theirs / ours },
    },
    {
      name: 'the frame with it',
      ours_ms: masked,
      peer: `${plain.toFixed(1)} ms without it`,
      peer_ms: null,
      ratio: null,
    },
  ]
}

/** The same by a canvas: a blurred star through which a colour is laid. */
function skia() {
  const context = createCanvas(W, H).getContext('2d')
  context.filter = `blur(${FEATHER / 2}px)`
  context.beginPath()
  for (const [px, py] of corners()) context.lineTo(px + W / 2, py + H / 2)
  context.fill()
  context.filter = 'none'
  context.globalCompositeOperation = 'source-in'
  context.fillStyle = '#F6C667'
  context.fillRect(0, 0, W, H)
  return context.getImageData(0, 0, W, H)
}

function framesOf(shown: Card): Promise<number> {
  const engine = new Engine()
  let frame = 10
  return median(() => engine.render(shown, frame++), undefined, 25)
}
