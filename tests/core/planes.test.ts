import { describe, expect, test } from '@jest/globals'
import { planeShelf } from '#core/frame/shelf'
import { boxesFor, common, joined, worldAround } from '#core/frame/grid-box'
import { Kernels } from '#core/kernels/kernels'

const kernels = new Kernels()

describe('grain', () => {
  const grained = (value: number, amount: number, x = 0, y = 0) => {
    const mark = kernels.mark()
    const out = kernels.floats(kernels.grained(kernels.plane(256, 256, value), x, y, amount, 77)).slice()
    kernels.release(mark)
    return out
  }

  test('keeps the mean and leaves whole and clear as they are', () => {
    for (const value of [0.1, 0.5, 0.83]) {
      const out = grained(value, 1)
      expect(out.reduce((a, b) => a + b, 0) / out.length).toBeCloseTo(value, 2)
      expect(out.every((v) => v === 0 || v === 1)).toBe(true)
    }
    expect(grained(0, 1).every((v) => v === 0)).toBe(true)
    expect(grained(1, 1).every((v) => v === 1)).toBe(true)
  })

  test('of half an amount goes half the way', () => {
    const out = grained(0.5, 0.5)
    expect([...new Set(out)].sort()).toEqual([0.25, 0.75])
  })

  test('lies on the card, not on the box', () => {
    const [a, b] = [grained(0.4, 1, 100, 40), grained(0.4, 1, 116, 40)]
    for (let y = 0; y < 256; y += 9) for (let x = 16; x < 256; x += 7) expect(a[y * 256 + x]).toBe(b[y * 256 + x - 16])
  })
})

describe('planes moved and cut', () => {
  const ramp = () => {
    const plane = kernels.plane(32, 24)
    kernels.floats(plane).forEach((_, i, all) => (all[i] = (i % 32) + 100 * Math.floor(i / 32)))
    return plane
  }

  test('a move by whole pixels is a copy, by parts a mean; clear comes in from outside', () => {
    const mark = kernels.mark()
    const plane = ramp()
    const whole = kernels.floats(kernels.shifted(plane, 5, -3)).slice()
    expect(whole[10 * 32 + 20]).toBe(15 + 1300)
    expect(whole[10 * 32 + 4]).toBe(0)
    expect(whole[22 * 32 + 20]).toBe(0)
    const part = kernels.floats(kernels.shifted(plane, 0.25, 0.5)).slice()
    expect(part[10 * 32 + 20]).toBeCloseTo(19.75 + 950, 3)
    kernels.release(mark)
  })

  test('a window beyond the plane shows what stands outside', () => {
    const mark = kernels.mark()
    const cut = kernels.floats(kernels.cropped(ramp(), -8, 20, 24, 8, 7)).slice()
    expect(cut[0]).toBe(7)
    expect(cut[8]).toBe(2000)
    expect(cut[3 * 24 + 8]).toBe(2300)
    expect(cut[4 * 24 + 8]).toBe(7)
    kernels.release(mark)
  })

  test('a table is met at its points and linear between', () => {
    const mark = kernels.mark()
    const plane = kernels.planeFrom(8, 1, Float32Array.from([-1, 0, 0.25, 0.5, 0.75, 1, 2, 0.3]))
    const out = kernels.floats(kernels.mapped(plane, (x) => x * x, 2, 1))
    expect([...out].map((v) => Math.round(v * 1e4) / 1e4)).toEqual([2, 2, 2.125, 2.5, 3.125, 4, 4, 2.18])
    kernels.release(mark)
  })
})

describe('the shelf', () => {
  const MB = 1024 * 1024

  test('keeps a plane from its second asking on, and gives it without making it', () => {
    const own = new Kernels()
    const shelf = planeShelf(own, MB)
    let made = 0
    const ask = () => {
      shelf.beginFrame()
      const mark = own.mark()
      const plane = shelf.of('a', () => {
        made++
        return own.plane(64, 64, 0.25 * made)
      })
      const [value] = own.floats(plane)
      own.release(mark)
      return value
    }
    expect([ask(), ask(), ask(), ask()]).toEqual([0.25, 0.5, 0.5, 0.5])
    expect(made).toBe(2)
  })

  test('never takes the place of a plane that the frame uses; older ones make room', () => {
    const own = new Kernels()
    // Room for four planes of 64 KB.
    const shelf = planeShelf(own, 4 * 65_536)
    const ask = (key: string, value: number) => shelf.of(key, () => own.plane(128, 128, value))
    shelf.beginFrame()
    for (let i = 0; i < 8; i++) ask(`p${i}`, i)
    shelf.beginFrame()
    // All eight are asked for again in one frame: only four fit, none of them is overwritten.
    const planes = Array.from({ length: 8 }, (_, i) => ask(`p${i}`, i))
    planes.forEach((plane, i) => expect(own.floats(plane)[5]).toBe(i))
    shelf.beginFrame()
    const again = ask('p6', 6)
    expect(own.floats(again)[5]).toBe(6)
  })
})

describe('boxes', () => {
  const canvas = { x: 0, y: 0, w: 1920, h: 1080 }
  const world = worldAround({ width: 1920, height: 1080 }, 1)
  const reach = { left: 10, top: 10, right: 10, bottom: 10 }

  test('lie on the grid of the blur, hold bounds and reach, and end at the canvas and its margin', () => {
    const found = boxesFor({ left: 300.5, top: 200.2, right: 410, bottom: 260.7 }, reach, 40, canvas, world)!
    expect(found.box.x % 64).toBe(0)
    expect(found.box.y % 64).toBe(0)
    expect(found.box.w % 16).toBe(0)
    expect(found.box.x + found.box.w).toBeGreaterThanOrEqual(420)
    const edge = boxesFor({ left: -5000, top: -5000, right: 9000, bottom: 9000 }, reach, 40, canvas, world)!
    expect(edge.box.x).toBe(-64)
    expect(edge.visible).toEqual(canvas)
    // However wide the blur, it is not computed farther than the world goes, in tiles as in the whole.
    const wide = { left: 9000, top: 9000, right: 9000, bottom: 9000 }
    for (const part of [canvas, { x: 64, y: 64, w: 64, h: 64 }]) {
      const { box } = boxesFor({ left: 0, top: 0, right: 9, bottom: 9 }, wide, 9000, part, world)!
      expect([box.x, box.y, box.w, box.h]).toEqual([-2048, -2048, 1920 + 4096, 1080 + 4096])
    }
  })

  test('are none for what lies beyond the canvas', () => {
    expect(boxesFor({ left: 2000, top: 0, right: 2100, bottom: 50 }, reach, 40, canvas, world)).toBeNull()
    expect(boxesFor({ left: 0, top: -90, right: 50, bottom: -20 }, reach, 40, canvas, world)).toBeNull()
  })

  test('share and join', () => {
    expect(common({ x: 0, y: 0, w: 10, h: 10 }, { x: 5, y: 6, w: 10, h: 10 })).toEqual({ x: 5, y: 6, w: 5, h: 4 })
    const bounds = (left: number, right: number) => ({ left, right, top: 0, bottom: 1 })
    expect(joined(bounds(0, 2), bounds(-1, 1))).toEqual(bounds(-1, 2))
  })
})
