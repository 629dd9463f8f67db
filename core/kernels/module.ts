import type { BlendMode } from '../paint/blend-modes'
import { kernelsWasm } from './generated/kernels-wasm'

/** Byte address in the kernels' memory. */
export type Address = number

/** The exports of the compiled module; see core/kernels/assembly for what each one does. */
export interface KernelExports {
  rasterSegments(segments: Address, count: number, acc: Address, w: number, h: number): void
  integrateCoverage(acc: Address, dst: Address, w: number, h: number): void
  nearestSegment(segments: Address, count: number, squared: Address, w: number, h: number, reach: number): void
  windAtCentres(segments: Address, count: number, acc: Address, w: number, h: number): void
  signDistance(squared: Address, winding: Address, dst: Address, w: number, h: number): void
  halve(src: Address, dst: Address, w: number, h: number, lowW: number, lowH: number, row: Address): void
  double(src: Address, dst: Address, lowW: number, lowH: number, w: number, h: number, rows: Address): void
  convolveColumns(src: Address, dst: Address, w: number, h: number, taps: Address, radius: number): void
  convolveRows(src: Address, dst: Address, w: number, h: number, taps: Address, radius: number, row: Address): void
  fillPlane(p: Address, count: number, value: number): void
  bandMask(distance: Address, dst: Address, count: number, inner: number, outer: number, above: number): void
  insideMask(distance: Address, dst: Address, count: number, edge: number): void
  complement(src: Address, dst: Address, count: number): void
  mixByCoverage(coverage: Address, inside: Address, insideStride: number, outside: Address, ...numbers: number[]): void
  copyRows(src: Address, srcStride: number, dst: Address, dstStride: number, bytes: number, h: number): void
  straight8(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: number[]): void
  straight16(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: number[]): void
  ditherTile(tile: Address, seed: number): void
  exp(x: number): number
  pow(x: number, y: number): number
  sin(x: number): number
  cos(x: number): number
  cbrt(x: number): number
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

/** The three loops that know a blend mode; each has one function a mode, under the mode's name. */
export interface ModeExports {
  blend(src: Address, srcStride: number, dst: Address, dstStride: number, ...numbers: number[]): void
  solid(mask: Address, gate: Address, dst: Address, stride: number, ...numbers: number[]): void
  ramp(mask: Address, gate: Address, dst: Address, stride: number, ...numbers: number[]): void
}

/** The loop of one kind for one mode. */
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
  return new WebAssembly.Instance(compiled, { env: { memory, abort } }).exports as unknown as KernelExports
}
