import { blurReach } from '../kernels/gauss'
import type { Px } from '../units'
import { percent, span, way } from './common-parameters'
import { defineFinish } from './definition'
import { isZero } from './places'

/** Colour comes from as far as opacity goes: the edge's way outward, and a Gaussian of half of `soften` on from there. */
const nearSigma = (by: Px, soften: Px): Px => Math.max(1, Math.max(0, by) + soften) / 2

export const edge = defineFinish({
  kind: 'edge',
  label: 'Edge',
  help: 'Grows or shrinks what is opaque, softens or hardens its edge',
  parameters: {
    grow: way('Grow', 'Moves the edge outward, or (negative) inward; the edge lies where half is opaque', 0),
    soften: span('Soften', 'How far the edge fades', 0, [0, 60]),
    harden: percent('Harden', 'How steep the edge becomes, in %: 100 leaves no half-clear pixel but one', 0),
  },
  headline: 'grow',
  reads: 'neighbours',
  idle: ({ grow, soften, harden }) => isZero(grow) && isZero(soften) && harden === 0,
  reach: ({ grow, soften }, { px }) =>
    Math.max(Math.abs(px(grow)) * 2 + blurReach(px(soften) / 2) + 4, blurReach(nearSigma(px(grow), px(soften)))),
  work({ grow, soften, harden }, { kernels, px }, src, dst) {
    const mark = kernels.mark()
    const by = px(grow)
    let alpha = kernels.alpha(src)
    // Where the edge comes to lie there may be no colour yet: that of what is near.
    const near = { ...kernels.layers(src.w, src.h, false), box: src.box }
    if (by > 0 || px(soften) > 0) kernels.softenInto(src, near, nearSigma(by, px(soften)))
    else kernels.copy(src, near)
    if (by !== 0) alpha = kernels.ramped(kernels.fieldDistance(alpha, Math.abs(by) + 2), by + 0.5, -1)
    if (px(soften) > 0) alpha = kernels.blurred(alpha, px(soften) / 2)
    if (harden > 0) {
      // About one half, up to one step in a hundredth of the range.
      const steep = 1 / (1.01 - harden / 100)
      alpha = kernels.ramped(alpha, 0.5 - 0.5 / steep, steep)
    }
    kernels.withAlpha(src, near, alpha, dst)
    kernels.release(mark)
  },
})
