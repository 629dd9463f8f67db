// Transcendental functions compiled into the module. A host's own Math.exp or Math.sin may differ
// in the last bit from another's; these give the same bits wherever the module runs.
export function exp(x: f64): f64 {
  return NativeMath.exp(x)
}
export function pow(x: f64, y: f64): f64 {
  return NativeMath.pow(x, y)
}
export function sin(x: f64): f64 {
  return NativeMath.sin(x)
}
export function cos(x: f64): f64 {
  return NativeMath.cos(x)
}
export function cbrt(x: f64): f64 {
  return NativeMath.cbrt(x)
}
export function log(x: f64): f64 {
  return NativeMath.log(x)
}
export function acos(x: f64): f64 {
  return NativeMath.acos(x)
}
