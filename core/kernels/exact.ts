import type { Degrees } from '../units'
import { instantiateKernels } from './module'

// Math.sin, Math.exp and their like are implementation-defined in ECMAScript; these are the same bits on
// every host, because they are compiled into the kernels.
const host = instantiateKernels(new WebAssembly.Memory({ initial: 1 }))

export const exp = (x: number): number => host.exp(x)
export const pow = (x: number, y: number): number => host.pow(x, y)
export const cbrt = (x: number): number => host.cbrt(x)
export const log = (x: number): number => host.log(x)

/** Quarter turns are exact. */
export function cosDegrees(angle: Degrees): number {
  const turn = ((angle % 360) + 360) % 360
  if (turn % 90 === 0) return turn === 0 ? 1 : turn === 180 ? -1 : 0
  return host.cos((turn * Math.PI) / 180)
}

export const sinDegrees = (angle: Degrees): number => cosDegrees(angle - 90)

export const acosDegrees = (x: number): Degrees => (host.acos(Math.min(1, Math.max(-1, x))) * 180) / Math.PI
