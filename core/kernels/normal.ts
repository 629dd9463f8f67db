import { exp } from './exact'

/** Distribution function of the standard normal; error below 1.5e-7 (Abramowitz & Stegun 7.1.26). */
export function normal(z: number): number {
  const x = Math.abs(z) / Math.SQRT2
  const t = 1 / (1 + 0.3275911 * x)
  const poly = ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t
  const half = (poly * exp(-x * x)) / 2
  return z > 0 ? 1 - half : half
}

/** The z at which the distribution function of the standard normal is p; cut to ±8. */
export function normalQuantile(p: number): number {
  let [low, high] = [-8, 8]
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2
    if (normal(middle) < p) low = middle
    else high = middle
  }
  return (low + high) / 2
}
