// One-channel work: masks made from distance and coverage. `count` is a number of floats, a multiple of 4.

export function fillPlane(p: usize, count: i32, value: f32): void {
  if (value == 0) {
    memory.fill(p, 0, <usize>count << 2)
    return
  }
  const v = f32x4.splat(value)
  for (let i = 0; i < count; i += 4) {
    v128.store(p, v)
    p += 16
  }
}

@inline
function ramp(edge: v128, distance: v128): v128 {
  return f32x4.pmin(f32x4.splat(1), f32x4.pmax(f32x4.splat(0), f32x4.sub(edge, distance)))
}

/**
 * How much of each pixel lies between the offset edges `inner` and `outer` (px, outward positive). Where a
 * neighbour of the given opacity lies above on the inner side, the band is strengthened in the pixels they
 * share, so that "neighbour over band" adds up to whole cover and no hairline of backdrop shows between.
 */
export function bandMask(distance: usize, dst: usize, count: i32, inner: f32, outer: f32, above: f32): void {
  const outerEdge = f32x4.splat(outer + <f32>0.5), innerEdge = f32x4.splat(inner + <f32>0.5)
  const one = f32x4.splat(1), tiny = f32x4.splat(1e-6), va = f32x4.splat(above)
  for (let i = 0; i < count; i += 4) {
    const d = v128.load(distance)
    const inside = ramp(innerEdge, d)
    const band = f32x4.pmax(f32x4.splat(0), f32x4.sub(ramp(outerEdge, d), inside))
    v128.store(dst, f32x4.pmin(one, f32x4.div(band, f32x4.pmax(tiny, f32x4.sub(one, f32x4.mul(va, inside))))))
    distance += 16
    dst += 16
  }
}

/** How much of each pixel lies inside the edge moved outward by `edge` px. */
export function insideMask(distance: usize, dst: usize, count: i32, edge: f32): void {
  const e = f32x4.splat(edge + <f32>0.5)
  for (let i = 0; i < count; i += 4) {
    v128.store(dst, ramp(e, v128.load(distance)))
    distance += 16
    dst += 16
  }
}

/** dst = 1 − src. */
export function complement(src: usize, dst: usize, count: i32): void {
  const one = f32x4.splat(1)
  for (let i = 0; i < count; i += 4) {
    v128.store(dst, f32x4.sub(one, v128.load(src)))
    src += 16
    dst += 16
  }
}
