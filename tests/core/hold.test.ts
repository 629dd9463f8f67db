import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { RowHolder } from '#core/kernels/hold'
import { SQUARE_ROWS, SquareHolder } from '#core/kernels/hold-squares'
import { PlaneRows } from '#core/kernels/plane-rows'

const WIDTH = 37

test.each([
  [Uint8Array, 255],
  [Uint16Array, 65_535],
  [Float32Array, 1],
] as const)('%p: rows are held as plain arithmetic holds them', (Values, top) => {
  const rows = new RowHolder(WIDTH)
  const value = fc.integer({ min: 0, max: 255 })
  const row = fc.array(value, { minLength: WIDTH * 4, maxLength: WIDTH * 4 })
  fc.assert(
    fc.property(row, row, (made, read) => {
      const meant = Values.from(made.map((one) => (one < 40 ? 0 : (one / 255) * top)))
      const found = Float32Array.from(read.map((one) => one / 255))
      const most = [0, 0, 0, 0]
      const sum = [0, 0, 0, 0]
      let inked = 0
      for (let x = 0; x < WIDTH; x++) {
        const isInked = meant[x * 4 + 3] !== 0
        if (isInked) inked++
        for (let c = isInked ? 0 : 3; c < 4; c++) {
          const off = Math.abs(meant[x * 4 + c]! / top - found[x * 4 + c]!)
          most[c] = Math.max(most[c]!, off)
          sum[c]! += off
        }
      }
      const held = rows.hold(meant, 0, 1 / top, found)
      expect(held.inked).toBe(inked)
      for (let c = 0; c < 4; c++) {
        expect(held.most[c]).toBeCloseTo(most[c]!, 5)
        expect(held.sum[c]).toBeCloseTo(sum[c]!, 4)
      }
    }),
    { numRuns: 60 },
  )
})

test.each([
  [Uint8Array, 255, 8],
  [Uint16Array, 65_535, 10],
  [Float32Array, 1, 10],
] as const)('%p: what rounding to luma and chromas alone gives is that of BT.709', (Values, top, depth) => {
  const rows = new RowHolder(WIDTH)
  const row = fc.array(fc.integer({ min: 0, max: 255 }), { minLength: WIDTH * 4, maxLength: WIDTH * 4 })
  // ITU-R BT.709-6 §3.2 and §5: luma has 219 steps of 8 bits, chromas 224.
  const rounded = (value: number, steps: number) =>
    Math.round(value * steps * 2 ** (depth - 8)) / (steps * 2 ** (depth - 8))
  fc.assert(
    fc.property(row, (made) => {
      const meant = Values.from(made.map((one) => (one < 40 ? 0 : (one / 255) * top)))
      let sum = 0
      for (let x = 0; x < WIDTH; x++) {
        const [r, g, b, a] = [0, 1, 2, 3].map((c) => meant[x * 4 + c]! / top) as [number, number, number, number]
        if (a === 0) continue
        const y = 0.2126 * r + 0.7152 * g + 0.0722 * b
        const [luma, cb, cr] = [rounded(y, 219), rounded((b - y) / 1.8556, 224), rounded((r - y) / 1.5748, 224)]
        const found = [luma + 1.5748 * cr, luma - 0.187_324 * cb - 0.468_124 * cr, luma + 1.8556 * cb]
        sum += [r, g, b].reduce((all, value, c) => all + Math.abs(value - found[c]!), 0)
      }
      rows.hold(meant, 0, 1 / top, new Float32Array(WIDTH * 4))
      // Halves of a step may go either way in 32 bits: seldom, and by a step.
      expect(Math.abs(rows.rounding(meant, 1 / top, depth) - sum)).toBeLessThan(2e-4 + 6 / (219 * 2 ** (depth - 8)))
    }),
    { numRuns: 60 },
  )
})

describe('planes to RGB', () => {
  const levels = { from: 0, zero: 16, scale: 1 / 219, middle: 128, chromaScale: 1 / 224, top: 1 / 255 }

  test('the bars of 75 % and white are those of BT.709 in 8 bits', () => {
    // ITU-R BT.709-6 §5 with 16 to 235 and 16 to 240: white, yellow, cyan, green, magenta, red, blue, as handbooks round them.
    const bars: [number, number, number, readonly number[]][] = [
      [235, 128, 128, [1, 1, 1]],
      [168, 44, 136, [0.75, 0.75, 0]],
      [145, 147, 44, [0, 0.75, 0.75]],
      [133, 63, 52, [0, 0.75, 0]],
      [63, 193, 204, [0.75, 0, 0.75]],
      [51, 109, 212, [0.75, 0, 0]],
      [28, 212, 120, [0, 0, 0.75]],
    ]
    const part = (at: 0 | 1 | 2) => Uint8Array.from(bars.map((bar) => bar[at]))
    const rows = new PlaneRows(bars.length)
    const made = rows.convert({ y: part(0), chromas: [part(1), part(2)], alpha: null }, { ...levels, across: 0 })
    bars.forEach(([, , , colour], i) => {
      colour.forEach((value, c) => expect(Math.abs(made[i * 4 + c]! - value)).toBeLessThan(0.01))
      expect(made[i * 4 + 3]).toBe(1)
    })
  })

  test('chromas that are shared stand for both of their pixels; greys have none', () => {
    const rows = new PlaneRows(5)
    const y = Uint16Array.of(16, 70, 124, 178, 235)
    const alpha = Uint16Array.of(0, 51, 102, 204, 255)
    const chromas = [Uint16Array.of(128, 60, 200), Uint16Array.of(140, 128, 90)] as const
    const made = rows.convert({ y, chromas, alpha }, { ...levels, across: 1 }).slice()
    for (let x = 0; x < 5; x++) {
      const luma = (y[x]! - 16) / 219
      const [b, r] = chromas.map((values) => (values[x >> 1]! - 128) / 224) as [number, number]
      const wanted = [luma + 1.5748 * r, luma - 0.1873 * b - 0.4681 * r, luma + 1.8556 * b, alpha[x]! / 255]
      wanted.forEach((value, c) => expect(made[x * 4 + c]).toBeCloseTo(value, 5))
    }
    const grey = rows.convert({ y, chromas: null, alpha: null }, { ...levels, across: 0 })
    expect(grey[4 * 4]).toBeCloseTo(1, 5)
    expect(grey[4 * 4 + 2]).toBe(grey[4 * 4])
  })

  test.each([Uint8Array, Uint16Array])('of any width, in %p, are what plain arithmetic makes of them', (Values) => {
    const value = fc.integer({ min: 0, max: 255 })
    fc.assert(
      fc.property(fc.array(value, { minLength: 4, maxLength: 120 }), fc.constantFrom(0, 1), (all, across) => {
        const width = all.length >> 2
        const plane = (i: number, count = width) => Values.from(all.slice(i * width, i * width + count))
        const shared = (width + across) >> across
        const part = { y: plane(0), chromas: [plane(1, shared), plane(2, shared)] as const, alpha: plane(3) }
        const made = new PlaneRows(width).convert(part, { ...levels, across })
        for (let x = 0; x < width; x++) {
          const luma = (part.y[x]! - 16) / 219
          const [b, r] = part.chromas.map((values) => (values[x >> across]! - 128) / 224) as [number, number]
          const wanted = [luma + 1.5748 * r, luma - 0.1873 * b - 0.4681 * r, luma + 1.8556 * b, part.alpha[x]! / 255]
          wanted.forEach((one, c) => expect(made[x * 4 + c]).toBeCloseTo(one, 5))
        }
      }),
      { numRuns: 100 },
    )
  })
})

test.each([
  [Uint8Array, 255],
  [Uint16Array, 65_535],
] as const)('%p: squares amid even colours, and no others, are held as plain arithmetic holds them', (Values, top) => {
  const width = 22
  const holder = new SquareHolder(width)
  const apart = (12 * top) / 255
  // Mostly even, with an edge here and there, and clear places.
  const count = SQUARE_ROWS * width * 4
  const noise = fc.array(fc.integer({ min: 0, max: 12 }), { minLength: count, maxLength: count })
  const spots = fc.array(fc.tuple(fc.nat(count - 1), fc.constantFrom(0, 13, 80)), { maxLength: 6 })
  const read = fc.array(fc.integer({ min: 0, max: 255 }), { minLength: width * 8, maxLength: width * 8 })
  let seen = 0
  fc.assert(
    fc.property(noise, spots, read, (even, apartAt, found) => {
      const meant = Values.from(even.map((one) => ((100 + one) / 255) * top))
      for (const [at, one] of apartAt) meant[at] = (one / 255) * top
      const rows = [0, 1].map((row) =>
        Float32Array.from(found.slice(row * width * 4, (row + 1) * width * 4), (one) => one / 255),
      )
      const at = (x: number, y: number, c: number) => meant[(y * width + x) * 4 + c]!
      let [most, sum, squares] = [0, 0, 0]
      for (let x = 2; x + 3 < width; x += 2) {
        const isEven = [0, 1, 2, 3].every((c) =>
          [-2, -1, 0, 1, 2, 3].every((dx) =>
            [0, 1, 2, 3, 4, 5].every((y) => {
              const there = at(x + dx, y, c)
              return Math.abs(there - at(x, 2, c)) <= apart && (c < 3 || there > 0)
            }),
          ),
        )
        if (!isEven) continue
        squares++
        for (let c = 0; c < 3; c++) {
          const made = (at(x, 2, c) + at(x + 1, 2, c) + at(x, 3, c) + at(x + 1, 3, c)) / top
          const off = rows.reduce((left, row) => left - row[x * 4 + c]! - row[x * 4 + 4 + c]!, made)
          most = Math.max(most, Math.abs(off) / 4)
          sum += Math.abs(off) / 4
        }
      }
      const held = holder.hold(meant, 0, { top, apart }, (row) => rows[row]!)
      expect(held.count).toBe(squares)
      expect(held.most).toBeCloseTo(most, 5)
      expect(held.sum).toBeCloseTo(sum, 4)
      seen += squares
    }),
    { numRuns: 80 },
  )
  expect(seen).toBeGreaterThan(100)
})
