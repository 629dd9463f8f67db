// `npm run demo:sequences`: makes the sequences of the demo data anew, by the engine itself. They are checked in: the demo
// starts without this.
import { readFileSync, writeFileSync } from 'node:fs'
import { zipSync } from 'fflate'
import sharp from 'sharp'
import { createCard, createCoat, createFinish, createPiece, createStep } from '../core/card/create'
import { expectCard } from '../core/card/read'
import type { Card, Piece } from '../core/card/schema'
import { Engine } from '../core/frame/engine'
import { toLinear } from '../core/values/oklab'

const RATE = { numerator: 25, denominator: 1 }
/** ZIP files count from 1980. */
const TIME = new Date(1980, 0, 2)

const solid = (colour: string) => ({ type: 'solid', colour })
const keys = (...all: [frame: number, value: number, easing?: string][]) => ({
  keys: all.map(([frame, value, easing]) => ({ frame, value, ...(easing ? { easing } : {}) })),
  loop: false,
})

function card(width: number, height: number, length: number, values: object, pieces: (card: Card) => object[]): Card {
  const blank = { ...createCard('Sequence', { width, height, rate: RATE, length }), ...values } as Card
  return expectCard(JSON.parse(JSON.stringify({ ...blank, pieces: pieces(blank) })))
}

function piece(on: Card, kind: Piece['kind'], id: string, values: object): object {
  const made = { ...createPiece(kind, on), id, name: id, ...values }
  return made
}

/** The torn edge of a sheet comes in from the left: white where it covers, its fibres grey. */
function paperEdge(): { frames: Card; count: number } {
  const frames = card(640, 360, 28, { background: solid('#000000') }, (blank) => {
    const sheet = (id: string, ahead: number, colour: string, seed: number, rough: object) =>
      piece(blank, 'box', id, {
        ...{ width: 900, height: 520, y: 180, rotation: 4, radius: 0 },
        x: keys([0, -500 + ahead, 'cubic-bezier(0.45, 0.2, 0.6, 0.85)'], [27, 330 + ahead]),
        coats: { face: [{ ...createCoat('fill', `${id}-fill`), paint: solid(colour) }], behind: [] },
        outlineSteps: [{ ...createStep('rough', `${id}-rough`), seed, ...rough }],
      })
    return [
      sheet('sheet', 0, '#FFFFFF', 3, { amount: 26, size: 90, detail: 5 }),
      sheet('fibres', 9, '#9A9A9A', 4, { amount: 30, size: 46, detail: 6 }),
    ]
  })
  return { frames, count: 28 }
}

/** Ink runs out from some drops: white where it is. */
function inkSpreading(): { frames: Card; count: number } {
  const drops = [
    [310, 170, 0, 420],
    [150, 100, 4, 300],
    [480, 250, 6, 330],
    [560, 80, 9, 300],
    [80, 300, 10, 330],
    [260, 320, 14, 250],
    [380, 40, 15, 230],
  ] as const
  const count = 36
  const frames = card(640, 360, count, { background: solid('#000000') }, (blank) => [
    {
      ...piece(blank, 'group', 'ink', { x: 0, y: 0 }),
      pieces: drops.map(([x, y, from, size], i) =>
        piece(blank, 'ellipse', `drop-${i}`, {
          ...{ x, y, width: 100, height: 92 },
          scale: keys([from, 0.1, 'cubic-bezier(0.35, 0.15, 0.65, 0.6)'], [count - 1, size * 1.3]),
          coats: { face: [{ ...createCoat('fill', `drop-${i}-fill`), paint: solid('#FFFFFF') }], behind: [] },
          outlineSteps: [{ ...createStep('rough', `drop-${i}-rough`), seed: i + 1, amount: 11, size: 34, detail: 6 }],
        }),
      ),
      finishes: [
        { ...createFinish('edge', 'edge'), soften: 10, harden: 70 },
        { ...createFinish('turbulence', 'run'), amount: 26, size: 60, detail: 4 },
      ],
    },
  ])
  return { frames, count }
}

/** A word that twists round an upright axis, for longer than its period. */
function twistingWord(): { frames: Card; count: number } {
  const [period, count] = [40, 58]
  const turn = (frame: number) => Math.round(Math.cos((2 * Math.PI * frame) / period) * 1000) / 10
  const frames = card(480, 150, period, { light: { azimuth: 120, elevation: 40 } }, (blank) => [
    piece(blank, 'type', 'word', {
      ...{ wording: 'LANTERN', font: 'bebas-neue', size: 132, tracking: 20, align: 'centre', x: 240, y: 76 },
      stretchX: {
        keys: Array.from({ length: period }, (_, frame) => ({ frame, value: turn(frame) || 0.5, easing: 'linear' })),
      },
      coats: {
        face: [
          { ...createCoat('bevel', 'bevel'), side: 'inside', width: 5 },
          {
            ...createCoat('fill', 'fill'),
            paint: {
              type: 'linear',
              angle: 90,
              stops: [
                { at: 0, colour: '#B8324A' },
                { at: 100, colour: '#F6C667' },
              ],
            },
          },
        ],
        behind: [],
      },
    }),
  ])
  return { frames, count }
}

const engine = new Engine()
engine.fonts.add('bebas-neue', new Uint8Array(readFileSync('public/fonts/bebas-neue.ttf')))

/** Numbered PNG files in one ZIP file. */
function write(name: string, files: Buffer[]): void {
  const entries = files.map((file, i) => [`${name}-${String(i).padStart(4, '0')}.png`, new Uint8Array(file)] as const)
  const bytes = zipSync(Object.fromEntries(entries), { level: 0, mtime: TIME })
  writeFileSync(`demo/sequences/${name}.zip`, bytes)
  console.log(`${name}: ${files.length} pictures, ${Math.round(bytes.length / 1024)} KB`)
}

const PNG = { compressionLevel: 9, adaptiveFiltering: true }

for (const [name, { frames, count }] of [
  ['paper-edge', paperEdge()],
  ['ink-spreading', inkSpreading()],
] as const) {
  const files: Buffer[] = []
  for (let frame = 0; frame < count; frame++) {
    const { width, height, pixels } = engine.render(frames, frame)
    // Sixteen greys do for a matte, and pack well.
    const grey = Uint8Array.from({ length: width * height }, (_, i) => Math.round(pixels[i * 4]! / 17) * 17)
    files.push(
      await sharp(grey, { raw: { width, height, channels: 1 } })
        .toColourspace('b-w')
        .png(PNG)
        .toBuffer(),
    )
  }
  write(name, files)
}

{
  const { frames, count } = twistingWord()
  const files: Buffer[] = []
  const table = Uint8Array.from({ length: 256 }, (_, v) => Math.round(toLinear(v / 255) * 255))
  for (let frame = 0; frame < count; frame++) {
    const { width, height, pixels } = engine.render(frames, frame)
    // Linear light that does not say so, as some programs write it.
    const linear = pixels.map((v, i) => (i % 4 === 3 ? v : table[v]!))
    files.push(
      await sharp(linear, { raw: { width, height, channels: 4 } })
        .png(PNG)
        .toBuffer(),
    )
  }
  write('twisting-word', files)
}
