// The pixel loops. Compiled by scripts/build-kernels.mjs into one WebAssembly module;
// core/kernels/kernels.ts is its typed face. Pointers are byte addresses; planes are rows of f32.
export { rasterSegments, integrateCoverage } from './coverage'
export { nearestSegment, nearestSegmentNamed, nearestSegmentCut, windAtCentres, signDistance } from './distance'
export { measureCorners, offsetMask } from './offset'
export { fieldDistance } from './field'
export { halve, double, convolveColumns, convolveRows } from './blur'
export {
  fillPlane, fillNames, firstRow, lastRow, bandMask, complement, rampMask, absolute, addCover, overlapMask, besideMask, product, difference, mapTable, smoothStep, grainMask, cropPlane,
  shiftPlane, smearPlane,
} from './mask'
export { diffuse } from './light'
export { sweepSides } from './sweep'
export {
  placeLinear, placeRounded, placeRadial, placeConic, placeScaled, placeTile, placeLines, samplePicture, addNoise,
} from './places'
export * from './lay-solid'
export * from './lay-ramp'
export * from './lay-picture'
export * from './blend'
export { transferRows, alphaPlane, wholeColours } from './transfer'
export { whole8, whole16, numbers32, numbers16, ditherTile } from './output'
export { halveRgba, doubleRgba, convolveRowsRgba } from './rgba-blur'
export { smearAcross, smearDown } from './smear'
export { zoomRays } from './zoom'
export { ringPixels, spinRings } from './spin'
export { mixRows, lighterRows, plusRows, addShareRows, keepRows } from './mix-rows'
export {
  tableRows, matrixRows, oklabRows, rampRows, stepRows, fadeRows, colourRows, lightRows, brightRows, alphaRows, settleRows,
} from './points'
export { grainRows, coarseGrainRows } from './grain'
export { moveRows, displaceRows, partRows, spreadRows, mapPlane } from './moved-picture'
export { addDisc, addTip } from './brush'
export { readyStraight, readyLaid, halfPicture, mixInto } from './ready-picture'
export { addFlowNoise } from './flow-noise'
export { holdRow, roundRow } from './hold'
export { planeRow } from './plane-row'
export { holdSquares } from './squares'
export { exp, pow, sin, cos, cbrt, log, acos } from './exact'
