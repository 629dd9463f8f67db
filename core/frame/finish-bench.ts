import type { FinishBench, FinishScale } from '../finishes/definition'
import type { Picture, PlaceWindow } from '../kernels/kernels'
import type { EvaluatedPaint } from '../values/evaluated'
import type { Frames, Rgba } from '../units'
import { rampColours } from '../paint/ramp'
import type { LaidFinish } from './laid-finishes'
import { seedOf } from './laid-coats'
import type { Drawing } from './piece'
import type { Hook } from './prepared-paint'
import { isLinear, preparePaint } from './prepared-paint'

/** What a finish is given of the world beyond its own picture. */
export interface Elsewhere {
  /** What came in, so many frames away, in a part of the picture. */
  at(frames: Frames, across: boolean, part?: PlaceWindow): Picture | null
  /** The part outside of which what came in is the same at all those frames as now; null for nowhere. */
  changes(frames: readonly Frames[], across: boolean): PlaceWindow | null
  /** Another piece, as it stands on the card. */
  piece(id: string): Picture | null
}

const EVERYWHERE = { mask: null, gate: null }
/** A large odd number: seeds of neighbouring frames have nothing in common (the golden ratio of 32 bits). */
const GOLDEN = 0x9e3779b9

/** The bench of one finish. `frame` is that of the piece, on the ring. */
export function finishBench(
  drawing: Drawing,
  scale: FinishScale,
  { id, address }: LaidFinish,
  { frame, hook }: { frame: Frames; hook: Hook | null },
  { at, changes, piece }: Elsewhere,
): FinishBench {
  const { kernels, card } = drawing
  const linear = isLinear(card)
  return {
    ...scale,
    ...{ kernels, linear, at, changes, piece },
    seed(every, own) {
      const held = every > 0 ? Math.floor(frame / every + 1e-9) + 1 : 0
      return (seedOf(card, { id }) ^ Math.imul(held, GOLDEN) ^ Math.imul(own + 1, 0x85ebca6b)) >>> 0
    },
    colours: rampOf,
    painter(paint: EvaluatedPaint) {
      const ready = preparePaint(drawing, paint, hook, address)
      return (box) => {
        const window = padded(box)
        const layers = kernels.layers(window.w, window.h)
        const mark = kernels.mark()
        if ('solid' in ready) kernels.laySolid('normal', layers, EVERYWHERE, ready.solid, 1)
        else if ('sample' in ready) kernels.layPicture('normal', layers, EVERYWHERE, ready.sample(window), 1)
        else {
          // Without an edge to measure from, everything lies at the gradient's start.
          const places = 'places' in ready ? ready.places(window) : kernels.plane(window.w, window.h, 0)
          kernels.layRamp('normal', layers, EVERYWHERE, places, ready.ramp, 1)
        }
        kernels.release(mark)
        return { ...kernels.window(layers, 0, 0, box.w, box.h), box }
      }
    },
  }
}

/** Kernels take four pixels at once. */
const padded = ({ x, y, w, h }: PlaceWindow): PlaceWindow => ({ x, y, w: (w + 3) & ~3, h })

/** The colours of a paint, display-encoded: a solid one is its colour everywhere. */
function rampOf(paint: EvaluatedPaint): Float32Array {
  if (paint.type !== 'solid' && paint.type !== 'texture') return rampColours(paint, false)
  const [r, g, b, a]: Rgba = paint.colour
  const colour = [r * a, g * a, b * a, a]
  return Float32Array.from([...colour, ...colour])
}
