import * as Comlink from 'comlink'
import type { BestCut, SmallFrame } from '#core/judge/best-cut'
import { bestCut, distancesOf } from '#core/judge/best-cut'

// Compares all pictures of a sequence with each other: of a long one that takes a while.

const face = {
  /** Bytes as the server gives them: of each picture luma and then alpha, `pixels` of each. */
  compare(bytes: Uint8Array, pixels: number): { cut: BestCut; count: number; values: Float32Array } {
    const frames = Array.from({ length: Math.floor(bytes.length / (pixels * 2)) }, (_, i): SmallFrame => {
      const at = i * pixels * 2
      return { luma: bytes.subarray(at, at + pixels), alpha: bytes.subarray(at + pixels, at + pixels * 2) }
    })
    const { count, values } = distancesOf(frames)
    return Comlink.transfer({ cut: bestCut({ count, values }), count, values }, [values.buffer])
  },
}

export type CutFace = typeof face

Comlink.expose(face)
