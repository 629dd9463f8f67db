import { createCanvas } from '@napi-rs/canvas'
import { USUAL } from '../core/brushes/definition'
import { dabsOf } from '../core/brushes/dabs'
import type { BrushStroke } from '../core/brushes/stroke'
import { tipOf } from '../core/brushes/table'
import { createCard, createCoat, createPiece } from '../core/card/create'
import { expectCard } from '../core/card/read'
import type { Card, PaintingPiece, Piece } from '../core/card/schema'
import { Engine } from '../core/frame/engine'
import type { Row } from './measure'
import { median } from './measure'

// A painting of two thousand dabs: painted the first time, kept while something else moves, and while one more stroke grows.

const [W, H] = [1920, 1080]
const DABS = 2000
const SIZE = 60
const STROKES = 20

/** A stroke right across, so long that it has its share of the dabs. */
function stroke(k: number, tip: string, seed: number, points = 40): BrushStroke {
  const starts = { ...USUAL, ...tipOf(tip).starts }
  const y = 80 + ((H - 160) * k) / STROKES
  const at = Array.from({ length: points }, (_, i) => [60 + (i / 39) * (W - 120), y + 30 * Math.sin(i / 4), 0.8]).flat()
  const spacing = ((W - 120) / (DABS / STROKES) / SIZE) * 100
  return { id: `s-${k}`, tip, erase: false, colour: '#F6C667', size: SIZE, ...starts, spacing, seed, points: at }
}

function card(strokes: BrushStroke[]): Card {
  const base = createCard('Paint', { width: W, height: H, rate: { numerator: 25, denominator: 1 }, length: 100 })
  const painting = { ...(createPiece('painting', base) as PaintingPiece), x: 0, y: 0, strokes }
  const x = {
    keys: [
      { frame: 0, value: 200 },
      { frame: 50, value: 1700 },
    ],
  }
  const box = { ...createPiece('box', base), x, y: 500, width: 90, height: 90 }
  const fill = createCoat('fill', 'f')
  const pieces = [{ ...box, coats: { face: [fill], behind: [] } }, ...(strokes.length > 0 ? [painting] : [])]
  return expectCard({ ...base, pieces: pieces as unknown as Piece[] })
}

export async function brushRows(): Promise<Row[]> {
  const rows: Row[] = []
  for (const tip of ['round-soft', 'chalk']) {
    const all = (seed: number) => Array.from({ length: STROKES }, (_, k) => stroke(k, tip, seed))
    const dabs = all(1).reduce((sum, one) => sum + dabsOf(one).length, 0)
    const engine = new Engine()
    engine.render(card(all(0)), 0)
    let seed = 1
    const first = await median(() => engine.render(card(all(seed++)), 0), undefined, 5)
    const theirs = tip === 'round-soft' ? await median(skia, undefined, 5) : null
    rows.push({
      ...{ name: `${dabs} dabs of ${SIZE} px, ${tip}: first time`, ours_ms: first },
      ...{ peer: theirs === null ? '' : '@napi-rs/canvas (Skia, u8), radial gradients', peer_ms: theirs },
      ratio: theirs === null ? null : theirs / first,
    })
    const kept = await framesOf(card(all(0)))
    const bare = await framesOf(card([]))
    rows.push({
      name: 'kept, what it adds to a frame',
      ours_ms: kept - bare,
      peer: `${kept.toFixed(1)} ms with all`,
      peer_ms: null,
      ratio: null,
    })
    const before = all(0)
    let n = 2
    engine.render(card(before), 0)
    const grown = await median(() => engine.render(card([...before, stroke(9, tip, 77, n++)]), 0), undefined, 25)
    rows.push({
      name: 'one stroke more, while it grows',
      ours_ms: grown,
      peer: 'the whole frame',
      peer_ms: null,
      ratio: null,
    })
  }
  return rows
}

/** As many soft dabs by a canvas. */
function skia() {
  const context = createCanvas(W, H).getContext('2d')
  for (let k = 0; k < STROKES; k++) {
    for (const { x, y, radius } of dabsOf(stroke(k, 'round-soft', 1))) {
      const paint = context.createRadialGradient(x, y, 0, x, y, radius)
      paint.addColorStop(0, '#F6C66766')
      paint.addColorStop(1, '#F6C66700')
      context.fillStyle = paint
      context.fillRect(x - radius, y - radius, 2 * radius, 2 * radius)
    }
  }
  return context.getImageData(0, 0, W, H)
}

function framesOf(shown: Card): Promise<number> {
  const engine = new Engine()
  let frame = 10
  // As it is played: each picture is written over the one before.
  let { pixels } = engine.render(shown, frame)
  return median(() => ({ pixels } = engine.render(shown, frame++, { reuse: pixels })), undefined, 25)
}
