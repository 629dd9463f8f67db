import { cosDegrees, sinDegrees } from '../kernels/exact'
import { hashed } from '../values/ring-noise'
import type { Chance, TipDefinition } from './definition'

// The tips that ship with the program, made by rules of our own from numbers that are the same on every host.

/** A plane filled by a function of −1 … 1 from its middle. */
function filled(side: number, of: (u: number, v: number, x: number, y: number) => number): Float32Array {
  const plane = new Float32Array(side * side)
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) {
      const [u, v] = [(2 * x + 1) / side - 1, (2 * y + 1) / side - 1]
      plane[y * side + x] = Math.min(1, Math.max(0, of(u, v, x, y)))
    }
  }
  return plane
}

const smooth = (t: number) => {
  const v = Math.min(1, Math.max(0, t))
  return v * v * (3 - 2 * v)
}

/** Value noise on a lattice of `cells` cells a side, smooth between its points. */
function noise(u: number, v: number, cells: number, chance: Chance): number {
  const [x, y] = [((u + 1) / 2) * cells, ((v + 1) / 2) * cells]
  const [i, j] = [Math.floor(x), Math.floor(y)]
  const [fx, fy] = [smooth(x - i), smooth(y - j)]
  const at = (k: number, l: number) => chance((j + l) * 1009 + i + k)
  const upper = at(0, 0) + (at(1, 0) - at(0, 0)) * fx
  const lower = at(0, 1) + (at(1, 1) - at(0, 1)) * fx
  return upper + (lower - upper) * fy
}

const distance = (u: number, v: number) => Math.sqrt(u * u + v * v)

/** Drops of paint as one plane: discs of some radii, a px soft. */
function discs(side: number, all: readonly { x: number; y: number; r: number; cover: number }[]): Float32Array {
  const plane = new Float32Array(side * side)
  for (const { x, y, r, cover } of all) {
    const [cx, cy, radius] = [((x + 1) / 2) * side, ((y + 1) / 2) * side, (r * side) / 2]
    const from = (c: number) => Math.max(0, Math.floor(c - radius - 1))
    const to = (c: number) => Math.min(side, Math.ceil(c + radius + 1))
    for (let py = from(cy); py < to(cy); py++) {
      for (let px = from(cx); px < to(cx); px++) {
        const m = cover * Math.min(1, Math.max(0, radius + 0.5 - distance(px + 0.5 - cx, py + 0.5 - cy)))
        const at = py * side + px
        plane[at] = plane[at]! + m - plane[at]! * m
      }
    }
  }
  return plane
}

export const roundHard: TipDefinition = {
  kind: 'round-hard',
  label: 'Round, hard',
  help: 'A disc with a sharp edge',
  law: '1 out to hardness · R, from there 1 − S of the way to R; where that way is no longer than 1 px: the part of each pixel that a disc of half-way radius covers',
  starts: { hardness: 100, spacing: 8 },
}

export const roundSoft: TipDefinition = {
  kind: 'round-soft',
  label: 'Round, soft',
  help: 'A disc that fades from its middle',
  law: 'As the hard one',
  starts: { hardness: 0, spacing: 8, flow: 40, pressSize: 30, pressFlow: 50 },
}

export const chalk: TipDefinition = {
  kind: 'chalk',
  label: 'Chalk',
  help: 'A rough stick that leaves the ground in its grain',
  law: 'S((0.86 − √((0.9u)² + (1.25v)²) − 0.28(N(9) − ½)) / 0.16) · S((0.6 N(24, 5000) + 0.4 N(48, 90000) − 0.36) / 0.2)',
  starts: { spacing: 14, turnBy: 180, flow: 55, scatter: 4, pressFlow: 40 },
  raster: (side, chance) =>
    filled(side, (u, v) => {
      const edge = distance(u * 0.9, v * 1.25) + 0.28 * (noise(u, v, 9, chance) - 0.5)
      const grain = noise(u, v, 24, (i) => chance(i + 5000)) * 0.6 + noise(u, v, 48, (i) => chance(i + 90_000)) * 0.4
      return smooth((0.86 - edge) / 0.16) * smooth((grain - 0.36) / 0.2)
    }),
}

export const bristle: TipDefinition = {
  kind: 'bristle',
  label: 'Dry bristle',
  help: 'Hairs of a dry brush, each with its own line',
  law: 'Discs i = 0 … 59 at √c(4i) · 0.86 from the middle towards 360° · c(4i + 1); radius 0.02 + 0.045 c(4i + 2), cover 0.35 + 0.65 c(4i + 3)',
  starts: { spacing: 3, flow: 30, along: true, pressSize: 40, pressFlow: 30 },
  raster: (side, chance) =>
    discs(
      side,
      Array.from({ length: 60 }, (_, i) => {
        const [away, around] = [Math.sqrt(chance(i * 4)) * 0.86, chance(i * 4 + 1) * 360]
        return {
          ...{ x: away * cosDegrees(around), y: away * sinDegrees(around) },
          ...{ r: 0.02 + 0.045 * chance(i * 4 + 2), cover: 0.35 + 0.65 * chance(i * 4 + 3) },
        }
      }),
    ),
}

/** A broken line from one point on, thinner to its end. */
function splinter(
  from: { x: number; y: number },
  angle: number,
  length: number,
  thick: number,
  chance: Chance,
): { x: number; y: number; r: number; cover: number }[] {
  const steps = 60
  let [{ x, y }, bent] = [from, 0]
  return Array.from({ length: steps }, (_, i) => {
    if (i % 9 === 0) bent = (chance(i) - 0.5) * 70
    x += (cosDegrees(angle + bent) * length) / steps
    y += (sinDegrees(angle + bent) * length) / steps
    return { x, y, r: thick * (1.05 - i / steps), cover: 1 }
  })
}

export const crack: TipDefinition = {
  kind: 'crack',
  label: 'Crack',
  help: 'A line that breaks along the stroke, with splinters to its sides',
  law: 'Discs i = 0 … 89 at x = −0.93 + 1.86 i/89, y = h · S(3(1 − abs x)) + 0.05(c(i + 300) − ½), where h = 0.34(c(i) − ½) is chosen anew at every eighth; radius 0.016 + 0.022(1 − abs x). From discs 23, 45 and 63, j = 0, 1, 2, a splinter: 60 steps of (0.35 + 0.6 c(j + 60))/60 towards ±(38° + 34° c(j + 40)), + for the even ones, bent at every ninth step k by 70°(c(k + 1000(j + 1)) − ½); radius 0.026(1.05 − k/60). What lies beyond 0.95 sideways or 0.93 up and down is left out',
  starts: { spacing: 84, along: true, turnBy: 14, scatter: 3, pressSize: 60, flow: 100 },
  raster(side, chance) {
    const steps = 90
    let y = 0
    // From side to side, so that each dab goes on where the last one broke off.
    const line = Array.from({ length: steps }, (_, i) => {
      const x = -0.93 + (1.86 * i) / (steps - 1)
      if (i % 8 === 0) y = 0.34 * (chance(i) - 0.5)
      const middle = 1 - Math.abs(x)
      return { x, y: y * smooth(middle * 3) + 0.05 * (chance(i + 300) - 0.5), r: 0.016 + 0.022 * middle, cover: 1 }
    })
    const splinters = [0.26, 0.5, 0.71].flatMap((at, i) => {
      const away = (i % 2 === 0 ? 1 : -1) * (38 + 34 * chance(i + 40))
      const length = 0.35 + 0.6 * chance(i + 60)
      return splinter(line[Math.floor(at * steps)]!, away, length, 0.026, (k) => chance(k + 1000 * (i + 1)))
    })
    return discs(
      side,
      [...line, ...splinters].filter(({ x, y: v }) => Math.abs(x) < 0.95 && Math.abs(v) < 0.93),
    )
  },
}

export const spatter: TipDefinition = {
  kind: 'spatter',
  label: 'Spatter',
  help: 'Drops that fly off a brush, many small and some large',
  law: 'Discs i = 0 … 45 at 0.84 √c(3i) from the middle towards 360° · c(3i + 1), radius 0.012 + 0.11 c(3i + 2)⁵',
  starts: { spacing: 45, scatter: 55, turnBy: 180, flow: 100, pressSize: 70 },
  raster: (side, chance) =>
    discs(
      side,
      Array.from({ length: 46 }, (_, i) => {
        const [away, around, large] = [chance(i * 3), chance(i * 3 + 1) * 360, chance(i * 3 + 2)]
        const far = Math.sqrt(away) * 0.84
        return { x: far * cosDegrees(around), y: far * sinDegrees(around), r: 0.012 + 0.11 * large ** 5, cover: 1 }
      }),
    ),
}

export const snow: TipDefinition = {
  kind: 'snow',
  label: 'Snow',
  help: 'Soft heaps of small flakes',
  law: 'S((0.8 − √(u² + (1.1v)²) − 0.42(N(5) − ½)) / 0.3) · (0.55 + 0.45 S((N(30, 7000) − 0.3) / 0.25)) + S((N(30, 7000) − 0.8) / 0.06) · S((0.9 − √(u² + v²)) / 0.1)',
  starts: { spacing: 16, scatter: 14, turnBy: 180, flow: 80, pressSize: 40 },
  raster: (side, chance) =>
    filled(side, (u, v) => {
      const heap = 0.8 - distance(u, v * 1.1) - 0.42 * (noise(u, v, 5, chance) - 0.5)
      const flakes = noise(u, v, 30, (i) => chance(i + 7000))
      return (
        smooth(heap / 0.3) * (0.55 + 0.45 * smooth((flakes - 0.3) / 0.25)) +
        smooth((flakes - 0.8) / 0.06) * smooth((0.9 - distance(u, v)) / 0.1)
      )
    }),
}

/** Random numbers of a tip: the same ones on every host. */
export const chanceOf =
  (seed: number): Chance =>
  (index) =>
    hashed(index, seed)
