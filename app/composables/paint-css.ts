import { writeColour } from '#core/values/colour'
import type { StoredPaint } from '#core/values/moving'
import type { Moment, EvaluatedTexture } from '#core/values/evaluated'
import { paintValue } from '#core/values/evaluated'
import { writeCssGradient } from '#core/formats/css-gradient'

/** A paint as CSS, for slabs and swatches; a gradient can be shown as a bar from left to right instead. */
export function paintCss(paint: StoredPaint, at: Moment, asBar = false): string {
  const evaluated = paintValue(paint, at)
  if (evaluated.type === 'solid') return `linear-gradient(${writeColour(evaluated.colour)} 0 0)`
  if (evaluated.type === 'texture') return textureCss(evaluated)
  if (!asBar) return writeCssGradient(evaluated)
  return writeCssGradient({ ...evaluated, type: 'linear', angle: 0, scale: 1, shift: 0, spread: 'pad' })
}

/** A hint of a texture: its two colours in stripes or grains. */
function textureCss({ pattern, colour, ground, angle, picture }: EvaluatedTexture): string {
  if (pattern === 'picture' && picture) return `url(/api/pictures/${picture}/file) center / cover`
  const [a, b] = [writeColour(colour), writeColour(ground)]
  if (pattern === 'lines') return `repeating-linear-gradient(${-angle}deg, ${a} 0 3px, ${b} 3px 6px)`
  if (pattern === 'grid') {
    return `repeating-linear-gradient(0deg, ${a} 0 2px, #0000 2px 7px), repeating-linear-gradient(90deg, ${a} 0 2px, ${b} 2px 7px)`
  }
  if (pattern === 'brushed') return `repeating-linear-gradient(${-angle}deg, ${a} 0 1px, ${b} 1px 3px)`
  return `repeating-conic-gradient(${a} 0 12%, ${b} 0 31%) 0 0 / 5px 7px`
}
