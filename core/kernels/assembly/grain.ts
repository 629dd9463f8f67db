// Film grain: noise on straight colours. Random numbers come from a place on the card and a seed, never from where a window
// begins.

/** Four random words from four: two rounds of multiply and xorshift (as `noiseAt` in mask.ts). */
@inline
function scrambled(v: v128): v128 {
  v = v128.xor(v, i32x4.shr_u(v, 16))
  v = i32x4.mul(v, i32x4.splat(0x7feb352d))
  v = v128.xor(v, i32x4.shr_u(v, 15))
  v = i32x4.mul(v, i32x4.splat(0x846ca68b))
  return v128.xor(v, i32x4.shr_u(v, 16))
}

/** −1 to 1 from random words: evenly, or (`bell`) the sum of four of their bytes; the variance is ⅓ in both. */
@inline
function noise(words: v128, bell: bool): v128 {
  if (!bell) {
    return f32x4.sub(
      f32x4.mul(f32x4.convert_i32x4_s(i32x4.shr_u(words, 8)), f32x4.splat(1.0 / 8388608.0)),
      f32x4.splat(1.0 - 1.0 / 16777216.0))
  }
  const byte = i32x4.splat(255)
  const sum = i32x4.add(
    i32x4.add(v128.and(words, byte), v128.and(i32x4.shr_u(words, 8), byte)),
    i32x4.add(v128.and(i32x4.shr_u(words, 16), byte), i32x4.shr_u(words, 24)))
  // Each byte has the variance (256² − 1)/12, the sum four times that: √(⅓ / 21845) = 0.0039063.
  return f32x4.mul(f32x4.sub(f32x4.convert_i32x4_s(sum), f32x4.splat(510)), f32x4.splat(0.00390622))
}

/** Four random numbers for the lattice point (x, y): one a channel, or (grey) four times the same. */
@inline
function pointNoise(x: i32, y: i32, seed: u32, bell: bool, coloured: bool): v128 {
  const v: u32 = <u32>x * 0x9e3779b1 ^ (<u32>y * 0x85ebca77 + seed)
  const word = i32x4.splat(v)
  return noise(scrambled(coloured ? v128.xor(word, i32x4(0, 0x68bc21eb, 0x02e5be93, 0)) : word), bell)
}

/** What a lightness of 0–1 takes of the grain: all of it in the middle tones, with `by` less towards black and white. */
@inline
function taken(v: v128, alpha: f32, by: f32): f32 {
  if (by == 0) return 1
  const k = f32x4.mul(v, f32x4(0.2126, 0.7152, 0.0722, 0))
  const l: f32 = min<f32>(1, (f32x4.extract_lane(k, 0) + f32x4.extract_lane(k, 1) + f32x4.extract_lane(k, 2)) / alpha)
  return <f32>1 - by + by * <f32>4 * l * (<f32>1 - l)
}

@inline
function put(p: usize, v: v128, n: v128, alpha: f32, amount: f32): void {
  const out = f32x4.add(v, f32x4.mul(n, f32x4.splat(amount * alpha)))
  v128.store(p, f32x4.replace_lane(f32x4.pmin(f32x4.splat(alpha), f32x4.pmax(f32x4.splat(0), out)), 3, alpha))
}

/** One number for each of four pixels from p on. */
@inline
function putFour(p: usize, n: v128, amount: f32, by: f32): void {
  const v0 = v128.load(p), v1 = v128.load(p, 16), v2 = v128.load(p, 32), v3 = v128.load(p, 48)
  const n0 = v128.shuffle<f32>(n, n, 0, 0, 0, 0), n1 = v128.shuffle<f32>(n, n, 1, 1, 1, 1)
  const n2 = v128.shuffle<f32>(n, n, 2, 2, 2, 2), n3 = v128.shuffle<f32>(n, n, 3, 3, 3, 3)
  const a0 = f32x4.extract_lane(v0, 3), a1 = f32x4.extract_lane(v1, 3)
  const a2 = f32x4.extract_lane(v2, 3), a3 = f32x4.extract_lane(v3, 3)
  if (by == 0 && a0 == 1 && a1 == 1 && a2 == 1 && a3 == 1) {
    // Whole alpha stays what it is.
    const k = f32x4.replace_lane(f32x4.splat(amount), 3, 0), zero = f32x4.splat(0), one = f32x4.splat(1)
    v128.store(p, f32x4.pmin(one, f32x4.pmax(zero, f32x4.add(v0, f32x4.mul(n0, k)))))
    v128.store(p, f32x4.pmin(one, f32x4.pmax(zero, f32x4.add(v1, f32x4.mul(n1, k)))), 16)
    v128.store(p, f32x4.pmin(one, f32x4.pmax(zero, f32x4.add(v2, f32x4.mul(n2, k)))), 32)
    v128.store(p, f32x4.pmin(one, f32x4.pmax(zero, f32x4.add(v3, f32x4.mul(n3, k)))), 48)
    return
  }
  if (a0 > 0) put(p, v0, n0, a0, amount * taken(v0, a0, by))
  if (a1 > 0) put(p + 16, v1, n1, a1, amount * taken(v1, a1, by))
  if (a2 > 0) put(p + 32, v2, n2, a2, amount * taken(v2, a2, by))
  if (a3 > 0) put(p + 48, v3, n3, a3, amount * taken(v3, a3, by))
}

/** Grains of one pixel: `amount` is the farthest that a value is moved, its variance amount²/3. */
export function grainRows(
  at: usize, stride: usize, w: i32, h: i32, x0: i32, y0: i32,
  amount: f32, by: f32, coloured: bool, bell: bool, seed: u32,
): void {
  const lanes = i32x4(0, 1, 2, 3), prime = i32x4.splat(0x9e3779b1)
  for (let y = 0; y < h; y++) {
    let p = at + <usize>y * stride
    if (coloured) {
      for (let x = 0; x < w; x++, p += 16) {
        const v = v128.load(p)
        const alpha = f32x4.extract_lane(v, 3)
        if (alpha > 0) put(p, v, pointNoise(x + x0, y + y0, seed, bell, true), alpha, amount * taken(v, alpha, by))
      }
      continue
    }
    const row = i32x4.splat(<u32>(y + y0) * 0x85ebca77 + seed)
    for (let x = 0; x < w; x += 4, p += 64) {
      const words = v128.xor(i32x4.mul(i32x4.add(i32x4.splat(x + x0), lanes), prime), row)
      const n = noise(scrambled(words), bell)
      putFour(p, n, amount, by)
    }
  }
}

/** The number at a column's place between two points of the lattice, all four channels alike. */
@inline
function between(place: usize): f32 {
  const q = load<usize>(place)
  return load<f32>(place, 8) * load<f32>(q) + load<f32>(place, 4) * load<f32>(q, 16)
}

/**
 * Grains of `size` pixels: random numbers on a lattice that far apart, mixed between its points. A mix of numbers has less
 * variance than each: it is made up for, so that all pixels have the same. row: 3 · (w/size + 4) pixels; places: w pixels.
 */
export function coarseGrainRows(
  at: usize, stride: usize, w: i32, h: i32, x0: i32, y0: i32, size: f64,
  amount: f32, by: f32, coloured: bool, bell: bool, seed: u32, row: usize, places: usize,
): void {
  const first = <i32>floor((<f64>x0 + 0.5) / size)
  const count = <i32>floor((<f64>(x0 + w) + 0.5) / size) - first + 2
  // Where each column lies on the lattice: the point before it, how far beyond that, and what makes up for the mix.
  for (let x = 0; x < w; x++) {
    const across = (<f64>(x + x0) + 0.5) / size
    const i = <i32>floor(across)
    const k = <f32>(across - <f64>i)
    const p = places + (<usize>x << 4)
    store<usize>(p, row + (<usize>(i - first) << 4))
    const even: f32 = <f32>1 / sqrt<f32>(k * k + (<f32>1 - k) * (<f32>1 - k))
    store<f32>(p, k * even, 4)
    store<f32>(p, even - k * even, 8)
  }
  // Numbers of the lattice's rows above and below, and the mix of both.
  let above = row + (<usize>(count + 1) << 4), below = above + (<usize>(count + 1) << 4)
  let known = i32.MIN_VALUE
  let mixed: f32 = -1
  for (let y = 0; y < h; y++) {
    const down = (<f64>(y + y0) + 0.5) / size
    const cell = <i32>floor(down), f = <f32>(down - floor(down))
    if (cell != known) {
      const other = above
      above = below
      below = other
      for (let i = 0; i < count; i++) {
        if (cell != known + 1) v128.store(above + (<usize>i << 4), pointNoise(first + i, cell, seed, bell, coloured))
        v128.store(below + (<usize>i << 4), pointNoise(first + i, cell + 1, seed, bell, coloured))
      }
      known = cell
      mixed = -1
    }
    if (f != mixed) {
      const even: f32 = <f32>1 / sqrt<f32>(f * f + (<f32>1 - f) * (<f32>1 - f))
      for (let i: usize = 0; i < <usize>count << 4; i += 16) {
        const a = v128.load(above + i), b = v128.load(below + i)
        v128.store(row + i, f32x4.mul(f32x4.splat(even), f32x4.add(a, f32x4.mul(f32x4.splat(f), f32x4.sub(b, a)))))
      }
      mixed = f
    }
    let p = at + <usize>y * stride
    if (!coloured) {
      for (let x = 0; x < w; x += 4, p += 64) {
        const c = places + (<usize>x << 4)
        const n = f32x4(between(c), between(c + 16), between(c + 32), between(c + 48))
        putFour(p, n, amount, by)
      }
      continue
    }
    for (let x = 0; x < w; x++, p += 16) {
      const v = v128.load(p)
      const alpha = f32x4.extract_lane(v, 3)
      if (alpha <= 0) continue
      const c = places + (<usize>x << 4)
      const q = load<usize>(c)
      const n = f32x4.add(
        f32x4.mul(v128.load32_splat(c + 8), v128.load(q)), f32x4.mul(v128.load32_splat(c + 4), v128.load(q, 16)))
      put(p, v, n, alpha, amount * taken(v, alpha, by))
    }
  }
}
