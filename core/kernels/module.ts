import type { BlendMode } from './blend-modes'
import { kernelsWasm } from './generated/kernels-wasm'

/** Byte address in the kernels' memory. */
export type Address = number

/** The exports of the compiled module; see core/kernels/assembly for what each one does. */
export interface KernelExports {
  rasterSegments(segments: Address, count: number, acc: Address, w: number, h: number): void
  integrateCoverage(acc: Address, dst: Address, w: number, h: number): void
  nearestSegment(segments: Address, count: number, squared: Address, w: number, h: number, reach: number): void
  nearestSegmentNamed(segments: Address, count: number, squared: Address, ids: Address, ...numbers: number[]): void
  nearestSegmentCut(segments: Address, count: number, squared: Address, ids: Address, ...numbers: number[]): void
  windAtCentres(segments: Address, count: number, acc: Address, w: number, h: number): void
  signDistance(squared: Address, winding: Address, dst: Address, w: number, h: number): void
  measureCorners(corners: Address, count: number, first: number, distance: Address, ...numbers: number[]): void
  offsetMask(distance: Address, ids: Address, segments: Address, cuts: Address, ...numbers: number[]): void
  fieldDistance(
    alpha: Address,
    dst: Address,
    w: number,
    h: number,
    right: Address,
    down: Address,
    aside: Address,
    below: Address,
    walk: Address,
    reach: number,
  ): void
  halve(src: Address, dst: Address, w: number, h: number, lowW: number, lowH: number, row: Address): void
  double(src: Address, dst: Address, lowW: number, lowH: number, w: number, h: number, rows: Address): void
  convolveColumns(src: Address, dst: Address, w: number, h: number, taps: Address, radius: number): void
  convolveRows(src: Address, dst: Address, w: number, h: number, taps: Address, radius: number, row: Address): void
  fillPlane(p: Address, count: number, value: number): void
  firstRow(src: Address, w: number, h: number): number
  lastRow(src: Address, w: number, h: number): number
  fillNames(p: Address, count: number): void
  bandMask(inner: Address, outer: Address, dst: Address, count: number, above: number): void
  complement(src: Address, dst: Address, count: number): void
  rampMask(src: Address, dst: Address, count: number, from: number, scale: number): void
  absolute(src: Address, dst: Address, count: number): void
  product(a: Address, b: Address, dst: Address, count: number): void
  addCover(src: Address, dst: Address, count: number): void
  overlapMask(own: Address, other: Address, dst: Address, count: number): void
  besideMask(own: Address, other: Address, dst: Address, count: number): void
  difference(a: Address, b: Address, dst: Address, count: number): void
  smoothStep(src: Address, dst: Address, count: number): void
  mapTable(src: Address, dst: Address, count: number, table: Address, steps: number): void
  grainMask(src: Address, dst: Address, w: number, h: number, ...numbers: number[]): void
  cropPlane(src: Address, sw: number, sh: number, dst: Address, ...numbers: number[]): void
  shiftPlane(src: Address, dst: Address, w: number, h: number, ...numbers: number[]): void
  smearPlane(src: Address, cover: Address, depth: Address, w: number, h: number, ...numbers: number[]): void
  diffuse(height: Address, dst: Address, w: number, h: number, ...numbers: number[]): void
  sweepSides(near: Address, far: Address, lights: Address, count: number, ...numbers: number[]): void
  placeLinear(dst: Address, w: number, h: number, x0: number, y0: number, ...numbers: number[]): void
  placeRadial(dst: Address, w: number, h: number, x0: number, y0: number, ...numbers: number[]): void
  placeConic(dst: Address, w: number, h: number, x0: number, y0: number, ...numbers: number[]): void
  placeRounded(dst: Address, w: number, h: number, x0: number, y0: number, ...numbers: number[]): void
  placeScaled(src: Address, dst: Address, count: number, from: number, scale: number): void
  placeTile(dst: Address, w: number, h: number, x0: number, y0: number, ...numbers: number[]): void
  placeLines(dst: Address, w: number, h: number, x0: number, y0: number, ...numbers: number[]): void
  readyStraight(src: Address, wide: boolean, dst: Address, count: number, table: Address): void
  readyLaid(
    src: Address,
    wide: boolean,
    dst: Address,
    count: number,
    table: Address,
    steps: number,
    ground: number,
  ): void
  halfPicture(src: Address, w: number, h: number, dst: Address, hw: number, hh: number): void
  mixInto(src: Address, dst: Address, count: number, keep: number, share: number): void
  samplePicture(dst: Address, w: number, h: number, x0: number, y0: number, ...numbers: number[]): void
  addNoise(tile: Address, size: number, nx: number, ny: number, weight: number, seed: number): void
  mixByCoverage(coverage: Address, inside: Address, insideStride: number, dst: Address, ...numbers: number[]): void
  copyGated(gate: Address, src: Address, srcStride: number, dst: Address, ...numbers: number[]): void
  addRows(src: Address, srcStride: number, sum: Address, sumStride: number, w: number, h: number): void
  meanRows(sum: Address, sumStride: number, count: number, dst: Address, dstStride: number, w: number, h: number): void
  copyRows(src: Address, srcStride: number, dst: Address, dstStride: number, bytes: number, h: number): void
  transferRows(at: Address, stride: number, w: number, h: number, ...table: (number | boolean)[]): void
  alphaPlane(src: Address, stride: number, dst: Address, w: number, h: number): void
  wholeColours(at: Address, stride: number, w: number, h: number): void
  planeRow(y: Address, cb: Address, cr: Address, a: Address, wide: boolean, ...numbers: number[]): void
  holdRow(meant: Address, bits: number, scale: number, found: Address, count: number, sums: Address): number
  roundRow(meant: Address, bits: number, scale: number, count: number, lumas: number, chromas: number): number
  holdSquares(meant: Address, wide: boolean, ...numbers: number[]): number
  whole8(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: (number | boolean)[]): void
  whole16(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: (number | boolean)[]): void
  numbers32(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: (number | boolean)[]): void
  numbers16(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: (number | boolean)[]): void
  ditherTile(tile: Address, seed: number): void
  halveRgba(src: Address, stride: number, dst: Address, w: number, h: number, ...numbers: (number | boolean)[]): void
  doubleRgba(src: Address, dst: Address, stride: number, lowW: number, ...numbers: (number | boolean)[]): void
  convolveRowsRgba(src: Address, dst: Address, w: number, h: number, taps: Address, radius: number, row: Address): void
  smearAcross(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: number[]): void
  smearDown(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: number[]): void
  zoomRays(src: Address, step: number, row: number, dst: Address, ...numbers: (number | boolean)[]): void
  ringPixels(first: number, count: number, span: number): number
  spinRings(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: number[]): void
  mixRows(a: Address, aStride: number, dst: Address, dstStride: number, w: number, h: number, share: number): void
  tableRows(at: Address, stride: number, w: number, h: number, ...tables: (number | boolean)[]): void
  matrixRows(at: Address, stride: number, w: number, h: number, matrix: Address): void
  oklabRows(at: Address, stride: number, w: number, h: number, ...matrices: Address[]): void
  rampRows(at: Address, stride: number, w: number, h: number, ramp: Address, steps: number, invert: boolean): void
  stepRows(at: Address, stride: number, w: number, h: number, ...numbers: (number | boolean)[]): void
  fadeRows(at: Address, stride: number, w: number, h: number, plane: Address, ...numbers: (number | boolean)[]): void
  colourRows(at: Address, stride: number, w: number, h: number, plane: Address, ...numbers: number[]): void
  lightRows(at: Address, stride: number, w: number, h: number, plane: Address, ...numbers: (number | boolean)[]): void
  lighterRows(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: number[]): void
  plusRows(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: number[]): void
  brightRows(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: number[]): void
  alphaRows(src: Address, srcStride: number, soft: Address, softStride: number, ...numbers: number[]): void
  addShareRows(src: Address, srcStride: number, sum: Address, sumStride: number, ...numbers: number[]): void
  keepRows(test: Address, testStride: number, src: Address, srcStride: number, ...numbers: number[]): void
  settleRows(at: Address, stride: number, w: number, h: number): void
  grainRows(at: Address, stride: number, w: number, h: number, ...numbers: (number | boolean)[]): void
  coarseGrainRows(at: Address, stride: number, w: number, h: number, ...numbers: (number | boolean)[]): void
  moveRows(dst: Address, dstStride: number, w: number, h: number, ...numbers: (number | boolean)[]): void
  displaceRows(dst: Address, dstStride: number, w: number, h: number, ...numbers: (number | boolean)[]): void
  partRows(dst: Address, dstStride: number, w: number, h: number, ...numbers: number[]): void
  spreadRows(dst: Address, dstStride: number, w: number, h: number, ...numbers: number[]): void
  mapPlane(src: Address, stride: number, dst: Address, w: number, h: number, ...numbers: number[]): void
  addDisc(plane: Address, w: number, h: number, x0: number, y0: number, ...numbers: number[]): void
  addTip(plane: Address, w: number, h: number, x0: number, y0: number, ...numbers: number[]): void
  addFlowNoise(dst: Address, w: number, h: number, x0: number, y0: number, ...numbers: number[]): void
  exp(x: number): number
  pow(x: number, y: number): number
  sin(x: number): number
  cos(x: number): number
  cbrt(x: number): number
  log(x: number): number
  acos(x: number): number
}

const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'

/** RFC 4648 §4. Hosts have decoders of their own, but none that all of them share. */
function decodeBase64(text: string): Uint8Array<ArrayBuffer> {
  const value = new Uint8Array(128)
  for (let i = 0; i < 64; i++) value[ALPHABET.charCodeAt(i)] = i
  const length = text.endsWith('==') ? text.length - 2 : text.endsWith('=') ? text.length - 1 : text.length
  const bytes = new Uint8Array(Math.floor((length * 3) / 4))
  let bits = 0
  let held = 0
  let at = 0
  for (let i = 0; i < length; i++) {
    held = (held << 6) | value[text.charCodeAt(i)]!
    bits += 6
    if (bits >= 8) {
      bits -= 8
      bytes[at++] = (held >> bits) & 255
    }
  }
  return bytes
}

/** The four loops that know a blend mode; each has one function a mode, under the mode's name. */
export interface ModeExports {
  blend(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: number[]): void
  solid(mask: Address, gate: Address, dst: Address, stride: number, ...numbers: number[]): void
  ramp(mask: Address, gate: Address, dst: Address, stride: number, ...numbers: number[]): void
  picture(mask: Address, gate: Address, dst: Address, stride: number, ...numbers: number[]): void
}

/** The loop of one kind for one mode. The names are made when the kernels are compiled: TypeScript does not know them. */
export function forMode<K extends keyof ModeExports>(run: KernelExports, kind: K, mode: BlendMode): ModeExports[K] {
  return (run as unknown as Record<string, ModeExports[K]>)[`${kind}_${mode.replace('-', '_')}`]!
}

let compiled: WebAssembly.Module | undefined

/** A new instance over the given memory; the code is compiled once. */
export function instantiateKernels(memory: WebAssembly.Memory): KernelExports {
  compiled ??= new WebAssembly.Module(decodeBase64(kernelsWasm))
  const abort = () => {
    throw new Error('The pixel kernels stopped.')
  }
  // What the module exports is what core/kernels/assembly/index.ts does.
  return new WebAssembly.Instance(compiled, { env: { memory, abort } }).exports as unknown as KernelExports
}
