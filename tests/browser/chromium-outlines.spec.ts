import type { EllipsePiece, PathPiece, Piece, TypePiece } from '../../core/card/schema'
import { expectCard } from '../../core/card/read'
import { Engine } from '../../core/frame/engine'
import { flattenStretches } from '../../core/outline/contour'
import { lengthOf, MeasuredStrand } from '../../core/outline/strand'
import { readPathData } from '../../core/outline/svg-path'
import { coat, emptyCard, fontBytes, solid, step, withPiece } from '../support/engine'
import { expect, test } from './bench-page'

// Chromium as a second implementation of what outline steps and type along a path follow.

const PATHS = [
  'M 10 80 C 40 10 65 10 95 80 S 150 150 180 80',
  'M 20 20 Q 120 10 140 90 T 60 170',
  'M 100 20 A 70 50 20 1 1 60 150 L 30 60',
  'M 20 100 C 20 20 180 20 180 100 C 180 180 20 180 20 100 Z',
]

test('lengths along paths and the points at them are those of getTotalLength and getPointAtLength', async ({
  page,
}) => {
  await page.goto('/mark.svg')
  const shares = [0, 0.1, 0.33, 0.5, 0.9, 1]
  const theirs = await page.evaluate(
    ([paths, at]) =>
      paths.map((d) => {
        const path = document.createElementNS('http://www.w3.org/2000/svg', 'path')
        path.setAttribute('d', d)
        const length = path.getTotalLength()
        return { length, points: at.map((share) => path.getPointAtLength(length * share)).map(({ x, y }) => [x, y]) }
      }),
    [PATHS, shares] as const,
  )
  PATHS.forEach((d, k) => {
    const [strand] = flattenStretches(readPathData(d, 'path'), 0.001)
    const { length, points } = theirs[k]!
    // Chromium adds up chords of its own.
    expect(Math.abs(lengthOf(strand!) - length) / length, d).toBeLessThan(3e-4)
    const measured = new MeasuredStrand(strand!)
    shares.forEach((share, i) => {
      const { x, y } = measured.at(measured.length * share)
      const [tx, ty] = points[i]!
      // At its end a closed path is at its start.
      expect(Math.hypot(x - tx!, y - ty!), `${d} at ${share}`).toBeLessThan(0.15)
    })
  })
})

const SIDE = 200

test('dashes and parts that are drawn on are those of Chromium’s canvas at 16 times the size', async ({ page }) => {
  await page.goto('/mark.svg')
  const cases = PATHS.flatMap((d) =>
    [
      { dash: [26, 14], shift: 0, cap: 'butt' },
      { dash: [18, 12, 5, 9], shift: 31, cap: 'round' },
    ].map((own) => ({ d, ...own })),
  )
  for (const { d, dash, shift, cap } of cases) {
    const theirs = await page.evaluate(
      ({ d, dash, shift, cap, side }) => {
        const K = 16
        const context = new OffscreenCanvas(side * K, side * K).getContext('2d', { willReadFrequently: true })!
        context.scale(K, K)
        Object.assign(context, { lineWidth: 7, lineCap: cap, lineJoin: 'round', lineDashOffset: shift })
        context.setLineDash(dash)
        context.stroke(new Path2D(d))
        const { data } = context.getImageData(0, 0, side * K, side * K)
        const out = new Array<number>(side * side).fill(0)
        for (let i = 0; i < side * K * side * K; i++) {
          const [x, y] = [Math.floor((i % (side * K)) / K), Math.floor(i / (side * K) / K)]
          out[y * side + x]! += data[i * 4 + 3]! / (K * K)
        }
        return out
      },
      { d, dash, shift, cap, side: SIDE },
    )
    const [a, b, c = 0, e = 0] = dash
    const steps = [step('dashes', { dash: a, gap: b, dash2: c, gap2: e, shift })]
    const values = { id: 'p', path: d, x: 0, y: 0, thickness: 7, cap, join: 'round', outlineSteps: steps }
    const ours = alphaOf(withPiece<PathPiece>(emptyCard(SIDE, SIDE), 'path', values as Partial<PathPiece>))
    const off = ours.map((v, i) => Math.abs(v - theirs[i]!))
    expect(
      off.reduce((most, v) => Math.max(most, v), 0),
      `${d} ${dash.join()}`,
    ).toBeLessThan(24)
    expect(off.reduce((sum, v) => sum + v, 0) / off.length).toBeLessThan(0.2)
  }
})

test('type along a path stands where Chromium’s textPath puts it', async ({ page }) => {
  // Light, and at the address of the fonts.
  await page.goto('/sign-in')
  const d = PATHS[0]!
  const words = 'LANTERN'
  const theirs = await page.evaluate(
    async ({ d, words }) => {
      document.fonts.add(await new FontFace('along', 'url(/fonts/anton.ttf)').load())
      const holder = document.createElement('div')
      holder.innerHTML = `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="300"><path id="way" d="${d}"/>
        <text style="font: 24px along; font-variant-ligatures: none; font-kerning: normal"><textPath href="#way" startOffset="12">${words}</textPath></text></svg>`
      document.body.append(holder)
      await document.fonts.ready
      const text = holder.querySelector('text')!
      return Array.from({ length: words.length }, (_, i) => {
        const { x, y } = text.getStartPositionOfChar(i)
        return { x, y, turn: text.getRotationOfChar(i) }
      })
    },
    { d, words },
  )
  const [strand] = flattenStretches(readPathData(d, 'path'), 0.001)
  const start = (12 / lengthOf(strand!)) * 100
  let card = withPiece<PathPiece>(emptyCard(300, 300), 'path', { id: 'way', path: d, x: 0, y: 0, thickness: 1 })
  const type = { id: 'words', wording: words, font: 'anton', size: 24, x: 0, y: 0, align: 'left', along: 'way', start }
  card = expectCard(withPiece<TypePiece>(card, 'type', type as Partial<TypePiece>, { face: [coat('fill', 'wf')] }))
  const engine = new Engine()
  engine.fonts.add('anton', fontBytes('anton'))
  const { letters } = engine.outlook(card, 0).find(({ id }) => id === 'words')!.type!
  letters.forEach(({ corners }, i) => {
    const [, , right, left] = corners
    expect(Math.hypot(left!.x - theirs[i]!.x, left!.y - theirs[i]!.y), `${i}`).toBeLessThan(0.35)
    const turn = (Math.atan2(right!.y - left!.y, right!.x - left!.x) * 180) / Math.PI
    expect(Math.abs(((turn - theirs[i]!.turn + 540) % 360) - 180), `${i}`).toBeLessThan(1.5)
  })
})

function alphaOf(card: { pieces: Piece[] } & ReturnType<typeof emptyCard>): number[] {
  const white = { ...card, pieces: card.pieces.map((piece) => ({ ...piece, coats: FILLED }) as Piece) }
  const { pixels } = new Engine().render(expectCard(white), 0, { bits: 16 })
  const values = new Uint16Array(pixels.buffer)
  return Array.from({ length: values.length / 4 }, (_, i) => values[i * 4 + 3]! / 257)
}
const FILLED: EllipsePiece['coats'] = { face: [coat('fill', 'f', { paint: solid('#FFFFFF') })], behind: [] }
