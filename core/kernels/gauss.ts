import type { Px } from '../units'
import { exp } from './exact'

/** How a blur of one sigma is carried out. */
export interface BlurPlan {
  /** How often the plane is halved first. */
  levels: number
  /** Sigma left to convolve at the lowest level, in its pixels. */
  sigma: number
  /** Radius of the taps at the lowest level. */
  radius: number
}

/** Half-width of the kernel in sigmas: the Gaussian beyond it weighs 0.05 %. */
const CUT = 3.5
/** Halvings whose grid the boxes keep to. */
const MOST_LEVELS = 6
/** Boxes whose origin lies on multiples of this blur to the same bits wherever they are cut. */
export const BOX_GRID = 2 ** MOST_LEVELS
/** A narrower kernel is the identity to 0.05 of 255. */
const LEAST_SIGMA = 0.02

/**
 * Halving and doubling with [1 3 3 1] each add a variance of ¾ px² of their finer level, so k levels add
 * ½(4^k − 1); what is left is convolved at the lowest level, where one pixel is 2^k.
 */
export function planBlur(sigma: Px): BlurPlan {
  let levels = 0
  let low = sigma
  while (levels < MOST_LEVELS) {
    const finer = 4 ** (levels + 1)
    const left = (sigma * sigma - 0.5 * (finer - 1)) / finer
    // A sampled Gaussian narrower than 2 px would show the grid of the coarse level.
    if (left < 4) break
    levels++
    low = Math.sqrt(left)
  }
  return { levels, sigma: low, radius: low < LEAST_SIGMA ? 0 : Math.ceil(CUT * low) }
}

/** Taps of this sigma and more have its variance without help. */
const SAMPLED_WELL = 1

/**
 * A sampled Gaussian, normalised: taps[0] is the centre. A narrow one falls between the pixels and would hardly blur, so
 * its width is chosen such that the taps have the variance sigma².
 */
export function gaussTaps(sigma: number, radius: number): Float32Array {
  let width = sigma
  if (sigma < SAMPLED_WELL) {
    let [low, high] = [sigma, sigma + 0.5]
    // The variance grows with the width: halved until it is known to float rounding.
    for (let i = 0; i < 40; i++) {
      width = (low + high) / 2
      if (varianceOf(sampled(width, radius)) < sigma * sigma) low = width
      else high = width
    }
  }
  return Float32Array.from(sampled(width, radius))
}

function sampled(width: number, radius: number): Float64Array {
  const weights = Float64Array.from({ length: radius + 1 }, (_, i) =>
    i === 0 ? 1 : exp((-i * i) / (2 * width * width)),
  )
  const sum = weights.reduce((all, weight, i) => all + (i === 0 ? weight : 2 * weight), 0)
  return weights.map((weight) => weight / sum)
}

const varianceOf = (taps: Float64Array) => taps.reduce((sum, tap, i) => sum + 2 * tap * i * i, 0)

/** Px beyond which the blur of a shape is exactly 0; also what a cut-off plane must hold around its visible part. */
export function blurReach(sigma: Px): Px {
  const { levels, radius } = planBlur(sigma)
  const low = 2 ** levels
  return radius === 0 ? 0 : (radius + (levels > 0 ? 4 : 0)) * low
}
