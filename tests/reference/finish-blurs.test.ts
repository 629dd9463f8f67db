import { describe, expect, test } from '@jest/globals'
import type { Card } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import type { Picture } from '#core/kernels/kernels'
import { Kernels } from '#core/kernels/kernels'
import { erf } from '../support/erf'
import { finish, floatsOf, stepCard } from '../support/engine'

// Blurs of finishes against closed forms.

const engine = new Engine()

const rowOf = (card: Card, y = 96) => {
  const { at } = floatsOf(engine, card)
  return (x: number) => at(x, y)[0]
}

describe('blur', () => {
  test('soft: an edge becomes the error function of half the radius (Abramowitz & Stegun 7.1)', () => {
    for (const radius of [4, 16, 50]) {
      const value = rowOf(stepCard([finish('blur', { radius })]))
      for (let x = 90; x < 166; x += 5) {
        // Samples a pixel apart stand for bins: Sheppard's correction for grouping.
        const spread = Math.sqrt(2 * ((radius / 2) ** 2 - 1 / 12))
        const truth = 0.5 * (1 + erf((x + 0.5 - 128) / spread))
        expect(Math.abs(value(x) - truth) * 255).toBeLessThan(0.25)
      }
    }
  })

  test('box and along: an edge becomes a straight ramp as long as the box', () => {
    for (const [values, length] of [
      [{ form: 'box', radius: 20 }, 40],
      [{ form: 'along', length: 33.5, angle: 0 }, 33.5],
      [{ form: 'along', length: 60, angle: 180 }, 60],
    ] as const) {
      const value = rowOf(stepCard([finish('blur', values)]))
      for (let x = 90; x < 166; x += 3) {
        // A pixel's own width smooths the ends of the ramp.
        const ramp = (at: number) => Math.min(1, Math.max(0, (at - 128) / length + 0.5))
        const truth = (ramp(x) + 4 * ramp(x + 0.5) + ramp(x + 1)) / 6
        expect(Math.abs(value(x) - truth) * 255).toBeLessThan(1.5)
      }
    }
  })

  test('along a slant: the ramp is as long as the smear across the edge', () => {
    const value = rowOf(stepCard([finish('blur', { form: 'along', length: 80, angle: 60 })]))
    for (let x = 100; x < 156; x += 3) {
      const truth = Math.min(1, Math.max(0, (x + 0.5 - 128) / (80 * 0.5) + 0.5))
      expect(Math.abs(value(x) - truth) * 255).toBeLessThan(2.5)
    }
  })

  test('around and towards: what is the same all round, or along every ray, stays as it is', () => {
    const kernels = new Kernels()
    const box = { x: 0, y: 0, w: 256, h: 192 }
    const fill = (of: (dx: number, dy: number) => number) => {
      const src = { ...kernels.layers(256, 192), box }
      const dst = { ...kernels.layers(256, 192), box }
      const values = kernels.rgba(src)
      for (let y = 0; y < 192; y++) {
        for (let x = 0; x < 256; x++)
          values.fill(of(x + 0.5 - 120, y + 0.5 - 90), (y * 256 + x) * 4, (y * 256 + x) * 4 + 4)
      }
      return { src, dst }
    }
    const rings = fill((dx, dy) => 0.5 + 0.5 * Math.sin(Math.hypot(dx, dy) / 6))
    kernels.spinInto(rings.src, rings.dst, 120, 90, 40)
    const rays = fill((dx, dy) => 0.5 + 0.5 * Math.sin(Math.atan2(dy, dx) * 6))
    kernels.zoomInto(rays.src, rays.dst, 120, 90, 0.85, 1.15)
    let worst = 0
    for (const { src, dst } of [rings, rays]) {
      const [before, after] = [kernels.rgba(src).slice(), kernels.rgba(dst).slice()]
      for (let y = 50; y < 130; y++) {
        for (let x = 70; x < 170; x++) {
          if (Math.hypot(x - 120, y - 90) < 12) continue
          worst = Math.max(worst, Math.abs(before[(y * 256 + x) * 4]! - after[(y * 256 + x) * 4]!))
        }
      }
    }
    // What two readings between pixels soften.
    expect(worst * 255).toBeLessThan(7)
  })
})

test('around a point far outside: the arc is a smear across the way to it, in the memory of the window', () => {
  const kernels = new Kernels()
  const box = { x: 0, y: 0, w: 256, h: 192 }
  const [src, turned, smeared] = [0, 1, 2].map(() => ({ ...kernels.layers(256, 192), box })) as [
    Picture,
    Picture,
    Picture,
  ]
  const values = kernels.rgba(src)
  for (let i = 0; i < values.length; i++) values[i] = 0.5 + 0.5 * Math.sin((i >> 2) / 1024 + ((i >> 2) % 256) / 9)
  const away = 40_000
  for (const [x, y, angle] of [
    [-away, 96, 90],
    [128, away, 0],
    [256 + away, 96, 90],
    [128, -away, 180],
  ] as const) {
    kernels.spinInto(src, turned, x, y, (40 / away) * (180 / Math.PI))
    kernels.smearInto(src, smeared, angle, 40)
    const [a, b] = [kernels.rgba(turned), kernels.rgba(smeared)]
    let worst = 0
    for (let row = 30; row < 160; row++)
      for (let i = 30 * 4; i < 226 * 4; i++) worst = Math.max(worst, Math.abs(a[row * 1024 + i]! - b[row * 1024 + i]!))
    expect(worst * 255).toBeLessThan(3)
  }
  // Whole rings there would take a hundred times as much.
  expect(kernels.bytes).toBeLessThan(64 * 1024 * 1024)
})
