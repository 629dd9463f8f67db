// `npm run footage`: moving footage to lay titles over, made by rule: dusk water with lights, bright fog, crowd lights. Each is a loop.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdirSync } from 'node:fs'

const WIDTH = 1280
const HEIGHT = 720
const RATE = 25
const FRAMES = 200

type Colour = [red: number, green: number, blue: number]

/** Puts the colour of the point x, y (0–1, y down) at a share of the loop into `to`. */
type Footage = (share: number) => (x: number, y: number, to: Colour) => void

const TURN = Math.PI * 2
const mix = (a: number, b: number, t: number) => a + (b - a) * t
const clamp = (value: number) => Math.min(1, Math.max(0, value))
const smooth = (from: number, to: number, value: number) => {
  const t = clamp((value - from) / (to - from))
  return t * t * (3 - 2 * t)
}

/** Colours along a line, by their places. */
function ramp(stops: readonly [place: number, colour: Colour][]) {
  return (at: number, to: Colour) => {
    let i = 1
    while (i < stops.length - 1 && stops[i]![0] < at) i++
    const [low, high] = [stops[i - 1]!, stops[i]!]
    const t = clamp((at - low[0]) / (high[0] - low[0]))
    for (let c = 0; c < 3; c++) to[c] = mix(low[1][c]!, high[1][c]!, t)
  }
}

/** Scattered evenly, the same each time: multiples of the golden ratio. */
const scattered = (i: number, step: number) => (i * step) % 1

const HORIZON = 0.58
const LANTERNS = Array.from({ length: 14 }, (_, i) => ({
  x: scattered(i + 1, 0.618034),
  y: HORIZON - 0.012 - 0.05 * scattered(i, 0.3819) ** 2,
  warm: 0.6 + 0.4 * scattered(i, 0.7548),
  phase: i * 1.7,
}))
const SKY = ramp([
  [0, [30, 22, 50]],
  [0.5, [86, 46, 78]],
  [0.86, [190, 98, 76]],
  [1, [232, 156, 92]],
])
const WATER = ramp([
  [0, [118, 92, 96]],
  [0.2, [48, 62, 90]],
  [1, [13, 22, 34]],
])

const duskWater: Footage = (share) => {
  const now = share * TURN
  const at: Colour = [0, 0, 0]
  return (x, y, to) => {
    if (y < HORIZON) {
      SKY(y / HORIZON, to)
    } else {
      const depth = (y - HORIZON) / (1 - HORIZON)
      // Waves are long near by and short far away.
      const wave =
        Math.sin(x * 40 + 26 / (depth + 0.12) + 3 * now) +
        Math.sin(x * 91 - 44 / (depth + 0.1) - 4 * now) +
        Math.sin(x * 17 + 13 / (depth + 0.2) + 2 * now)
      WATER(clamp(depth + wave * 0.05 * (0.3 + depth)), to)
      SKY(1 - depth * 0.8, at)
      const shine = smooth(1.2, 2.8, wave) * (0.55 - 0.4 * depth)
      for (let c = 0; c < 3; c++) to[c]! += at[c]! * shine
    }
    for (const { x: lx, y: ly, warm, phase } of LANTERNS) {
      const dx = (x - lx) * (WIDTH / HEIGHT)
      // Further away there is nothing to be seen of it.
      if (Math.abs(dx) > 0.09) continue
      const flicker = warm * (0.86 + 0.14 * Math.sin(3 * now + phase) * Math.sin(5 * now + 2 * phase))
      let light: number
      if (y < HORIZON) light = flicker * Math.min(0.8, Math.exp(-(dx * dx + (y - ly) ** 2) / 0.00016))
      else {
        const depth = y - HORIZON
        // Broken by the waves: pieces that are wide and flat, and wider near by.
        const far = 34 * Math.log(1 + depth * 40)
        const sway =
          0.006 * (Math.sin(far - 6 * now + phase) + Math.sin(2.3 * far + 4 * now - phase)) * (0.3 + 5 * depth)
        const broken = 0.55 + 0.45 * Math.sin(1.7 * far + 5 * now + 2 * phase)
        const width = (0.005 + 0.05 * depth) * broken + 0.002
        light = flicker * Math.exp(-(((dx + sway) / width) ** 2)) * Math.exp(-depth * 6) * 0.6 * broken
      }
      if (light < 0.004) continue
      to[0] = mix(to[0], 255, light)
      to[1] = mix(to[1], 214, light)
      to[2] = mix(to[2], 142, light)
    }
  }
}

const brightFog: Footage = (share) => {
  const now = share * TURN
  return (x, y, to) => {
    let banks = 0
    for (let i = 1; i <= 4; i++) {
      const drift = (i % 2 === 0 ? 1 : -1) * share * TURN
      banks +=
        (Math.sin(x * (2.3 + i * 1.9) + drift + i) * Math.cos(y * (1.9 + i * 1.3) - i + 0.5 * Math.sin(now + i))) / i
    }
    const light = 0.84 + 0.075 * banks - 0.14 * y
    // Masts of boats that are hardly seen.
    const mast = [0.18, 0.31, 0.67, 0.86].reduce((dark, place, i) => {
      const sway = place + 0.004 * Math.sin(now + i * 2)
      return dark + Math.exp(-(((x - sway) / 0.0022) ** 2)) * smooth(0.2 + 0.08 * i, 0.5, y) * smooth(0.95, 0.7, y)
    }, 0)
    const grey = 255 * clamp(light - 0.13 * mast * (0.7 + 0.3 * banks))
    to[0] = grey * 0.97
    to[1] = grey * 0.99
    to[2] = grey
  }
}

const DISCS = Array.from({ length: 46 }, (_, i) => ({
  x: scattered(i + 3, 0.618034) * 1.1 - 0.05,
  y: 0.1 + 0.85 * scattered(i + 5, 0.754878),
  radius: 0.018 + 0.05 * scattered(i, 0.5698) ** 1.5,
  colour: (
    [
      [255, 196, 96],
      [236, 110, 66],
      [255, 240, 220],
      [96, 184, 178],
    ] as const
  )[i % 4]!,
  turns: 1 + (i % 3),
  phase: i * 2.4,
}))

const crowdLights: Footage = (share) => {
  const now = share * TURN
  const discs = DISCS.map((disc) => ({
    ...disc,
    x: disc.x + 0.02 * Math.sin(now + disc.phase),
    y: disc.y + 0.03 * Math.cos(now * (disc.turns > 2 ? 2 : 1) + disc.phase),
    light: 0.16 + 0.14 * Math.sin(disc.turns * now + disc.phase),
  }))
  let row = -1
  let near: typeof discs = []
  return (x, y, to) => {
    // Points come row by row.
    if (y !== row) {
      row = y
      near = discs.filter((disc) => Math.abs(y - disc.y) < disc.radius)
    }
    const dark = 1 - 0.5 * Math.abs(y - 0.55)
    to[0] = 30 * dark
    to[1] = 20 * dark
    to[2] = 27 * dark
    for (const { x: dx, y: dy, radius, colour, light } of near) {
      const across = (x - dx) * (WIDTH / HEIGHT)
      const down = y - dy
      if (Math.abs(across) > radius) continue
      const away = Math.hypot(across, down) / radius
      if (away >= 1) continue
      // A disc of a lens: even, its rim a little brighter.
      const shine = light * (1 + 0.5 * smooth(0.75, 0.97, away)) * smooth(1, 0.96, away)
      for (let c = 0; c < 3; c++) to[c]! += colour[c]! * shine
    }
  }
}

const ALL: Record<string, Footage> = {
  'dusk-water': duskWater,
  'bright-fog': brightFog,
  'crowd-lights': crowdLights,
}

mkdirSync('public/footage', { recursive: true })
for (const [name, footage] of Object.entries(ALL)) {
  const args = ['-hide_banner', '-loglevel', 'error', '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-s', `${WIDTH}x${HEIGHT}`]
  const encoder = spawn(
    'ffmpeg',
    [
      ...[...args, '-r', String(RATE), '-i', 'pipe:0'],
      ...['-vf', 'scale=out_color_matrix=bt709:out_range=tv,format=yuv420p'],
      ...['-color_primaries', 'bt709', '-color_trc', 'bt709', '-colorspace', 'bt709', '-color_range', 'tv'],
      ...['-c:v', 'libvpx-vp9', '-crf', '36', '-b:v', '0', '-row-mt', '1', '-cpu-used', '2'],
      ...['-y', `public/footage/${name}.webm`],
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  )
  const pixels = Buffer.alloc(WIDTH * HEIGHT * 3)
  const colour: Colour = [0, 0, 0]
  for (let frame = 0; frame < FRAMES; frame++) {
    const paint = footage(frame / FRAMES)
    for (let v = 0, at = 0; v < HEIGHT; v++) {
      for (let u = 0; u < WIDTH; u++, at += 3) {
        paint((u + 0.5) / WIDTH, (v + 0.5) / HEIGHT, colour)
        // A little noise against bands, the same in every loop.
        const noise = ((((u * 7919) ^ (v * 104_729) ^ (frame * 1299)) >>> 3) % 17) / 8 - 1
        for (let c = 0; c < 3; c++) pixels[at + c] = Math.min(255, Math.max(0, Math.round(colour[c]! + noise)))
      }
    }
    if (!encoder.stdin.write(Buffer.from(pixels))) await once(encoder.stdin, 'drain')
  }
  encoder.stdin.end()
  const [code] = (await once(encoder, 'exit')) as [number]
  if (code !== 0) throw new Error(`${name}: ffmpeg stopped with code ${code}.`)
  console.log(`public/footage/${name}.webm`)
}
