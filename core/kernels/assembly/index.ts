// The pixel loops. Compiled by scripts/build-kernels.mjs into one WebAssembly module;
// core/kernels/kernels.ts is its typed face. Pointers are byte addresses; planes are rows of f32.
export { rasterSegments, integrateCoverage } from './coverage'
export { nearestSegment, windAtCentres, signDistance } from './distance'
export { halve, double, convolveColumns, convolveRows } from './blur'
export { fillPlane, bandMask, insideMask, complement } from './mask'
export * from './lay'
export * from './blend'
export { straight8, straight16, ditherTile } from './output'
export { exp, pow, sin, cos, cbrt } from './exact'
