/** The error function from its Maclaurin series (Abramowitz & Stegun 7.1.5), f64. */
export function erf(x: number): number {
  if (Math.abs(x) > 5) return Math.sign(x)
  let term = x
  let sum = x
  for (let n = 1; n < 120; n++) {
    term *= (-x * x) / n
    sum += term / (2 * n + 1)
  }
  return (2 / Math.sqrt(Math.PI)) * sum
}
