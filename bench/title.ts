import { Engine } from '../core/frame/engine'
import { fontsOf, shippedFonts } from '../server/fonts/shipped'
import type { Row } from './measure'
import { referenceTitle } from './reference-title'
import { canvasTitle } from './title-canvas'

const ALONE = { peer: '', peer_ms: null, ratio: null }

/** Titles of the same twelve letters in other orders: new content each time, so that nothing kept can help. */
const wordings = (count: number) => {
  const letters = [...'LANTERNREGAT']
  return Array.from({ length: count }, (_, k) => {
    const turned = letters.map((_, i) => letters[(i * 5 + k * 7) % 12]!)
    return [...turned.slice(k % 12), ...turned.slice(0, k % 12)].join('')
  })
}

function warmEngine(fonts: Map<string, Uint8Array>): Engine {
  const engine = new Engine()
  for (const [id, bytes] of fonts) engine.fonts.add(id, bytes)
  for (const wording of wordings(8)) engine.render(referenceTitle(wording), 0)
  return engine
}

/** The median of frames, each of another card; building the card is not timed. */
function timed(engine: Engine, cards: ReturnType<typeof referenceTitle>[], skip: number): number {
  let reuse: Uint8Array<ArrayBuffer> | undefined
  const times = cards.map((card) => {
    const start = performance.now()
    reuse = engine.render(card, 0, reuse ? { reuse } : {}).pixels
    return performance.now() - start
  })
  const counted = times.slice(skip).sort((a, b) => a - b)
  return counted[Math.floor(counted.length / 2)]!
}

/** First frames beside the same look on a canvas. */
function peers(ours_ms: number): Row[] {
  return (['shadows', 'filters'] as const).map((bevel) => {
    const title = canvasTitle(bevel)
    const times = wordings(40).map((wording, k) => {
      const start = performance.now()
      title.draw(wording, 960 + (k + 1) * 0.37, '#E23840')
      return performance.now() - start
    })
    const peer_ms = times.slice(4).sort((a, b) => a - b)[18]!
    const peer = `@napi-rs/canvas (Skia, u8), bevel by ${bevel}`
    return { name: 'reference title, 1920×1080, first frame', ours_ms, peer, peer_ms, ratio: peer_ms / ours_ms }
  })
}

/** The reference title: first frames, frames of which only the colours move, other frame sizes, and memory. */
export async function titleRows(): Promise<Row[]> {
  const fonts = await fontsOf([referenceTitle('A')], [shippedFonts])
  const moved = (k: number, wording: string, scale = 1) => {
    const card = referenceTitle(wording, k, scale)
    // Another place to a fraction of a pixel: no plane is the same as before.
    card.pieces[0]!.x = 960 + (k + 1) * 0.37
    return card
  }
  const engine = warmEngine(fonts)
  const first = timed(
    engine,
    wordings(40).map((wording, k) => moved(k, wording)),
    4,
  )
  const recoloured = timed(
    engine,
    Array.from({ length: 60 }, (_, k) => referenceTitle('LANTERNREGAT', k)),
    10,
  )
  const rows: Row[] = [
    ...peers(first),
    { name: 'reference title, 1920×1080, only colours move', ours_ms: recoloured, ...ALONE },
    { name: 'memory of that engine, MB', ours_ms: engine.memory / 1e6, ...ALONE },
  ]
  for (const scale of [0.5, 2]) {
    const other = warmEngine(fonts)
    // The same title in a frame a quarter as large and four times as large: time grows with what is touched.
    const cards = wordings(20).map((wording, k) => {
      const card = moved(k, wording, scale)
      card.pieces[0]!.x = 960 * scale + k * 0.37
      card.pieces[0]!.y = 540 * scale
      return card
    })
    const size = `${1920 * scale}×${1080 * scale}`
    rows.push({ name: `the same title in a frame of ${size}`, ours_ms: timed(other, cards, 4), ...ALONE })
    if (scale === 2) rows.push({ name: `memory of that engine at ${size}, MB`, ours_ms: other.memory / 1e6, ...ALONE })
  }
  return rows
}
