import type { Piece } from '../card/schema'
import { even } from '../coats/definition'
import type { FinishScale } from '../finishes/definition'
import type { Picture } from '../kernels/kernels'
import type { Frames, Rect } from '../units'
import { Canvas } from './canvas'
import { finishBench } from './finish-bench'
import { finishScale } from './finish-scale'
import { workFinishes } from './finishing'
import type { GridBox } from './grid-box'
import { isolated, planIsolated } from './isolated'
import type { LaidFinish } from './laid-finishes'
import { finishedBounds, laidFinishes, looksOf } from './laid-finishes'
import { pieceAlone } from './other-piece'
import { heldBounds, heldCover, shared } from './masks'
import { isThere, movedFor } from './moments'
import { namingPiece } from './naming'
import type { Drawing, Standing } from './piece'
import { isSeen, standingOf } from './piece'
import { planPlain } from './plain-piece'
import { laidMasks, worksAt } from './placed-masks'
import type { Hook } from './prepared-paint'
import type { PlannedPiece } from './still-runs'
import { standsStill } from './still-runs'
import { weaveInto, weaveOf } from './woven'

// A piece with finishes: its coats on a canvas of its own, the finishes one after the other on that picture, and the whole laid
// on the card.

/** A piece with finishes at a moment. */
export interface Shot {
  drawing: Drawing
  piece: Piece
  place: string
  standing: Standing
  /** The piece without finishes, whole and normally laid. */
  bare: PlannedPiece
  bounds: Rect | null
  finishes: readonly LaidFinish[]
  scale: FinishScale
  hook: Hook | null
  /** The letters that pass in front of it. */
  weave: ReturnType<typeof weaveOf>
  /** Whether masks work after its finishes. */
  masked: boolean
}

export function shotOf(drawing: Drawing, piece: Piece, place: string): Shot | null {
  const { parent, at } = drawing.list
  const standing = standingOf({ ...piece, on: true, span: null }, parent, at)
  if (!standing) return null
  const bare = planPlain(drawing, bareOf(piece), place)
  const bounds = bare.spans()
  const { scale, hook } = finishScale(drawing, standing, bounds, place)
  return {
    drawing,
    piece,
    place,
    standing,
    bare,
    bounds,
    finishes: laidFinishes(piece, standing.at),
    scale,
    hook,
    weave: weaveOf(drawing, piece, standing.at),
    masked: laidMasks(piece, standing.at, 'after').length > 0,
  }
}

const bares = new WeakMap<Piece, Piece>()

/** The piece without finishes and what works after them; its opacity and blend mode count after them. */
function bareOf(piece: Piece): Piece {
  const masks = piece.masks.filter((mask) => worksAt(piece, mask, 'before'))
  const found = bares.get(piece) ?? { ...piece, finishes: [], masks, opacity: 100, blend: 'normal' as const }
  bares.set(piece, found)
  return found
}

/** The same piece so many frames away, for one of its finishes; null where it is not seen then. */
function earlier({ drawing, piece, place }: Shot, frames: Frames, finish: LaidFinish): Shot | null {
  const there = movedFor(drawing, finish, frames)
  return there && isSeen(piece, there.list.at) ? shotOf(there, piece, place) : null
}

/** What a shot can touch after those of its finishes that rank below `upTo`. */
export function boundsOf(shot: Shot, upTo = Infinity): Rect | null {
  const finishes = shot.finishes.filter(({ rank }) => rank < upTo)
  const all = finishedBounds(finishes, shot.scale, shot.bounds, (frames, finish) => {
    const other = earlier(shot, frames, finish)
    return other && boundsOf(other, finish.rank)
  })
  if (upTo < Infinity || !shot.masked) return all
  return shared(all, heldBounds(shot.drawing, { ...shot.standing, percent: shot.scale.px }, 'after', shot.place))
}

export function planFinished(shot: Shot): PlannedPiece {
  const { drawing, piece, place, standing, finishes, scale, bare } = shot
  const { kernels, contents, finished, world } = drawing
  const spans = () => boundsOf(shot)
  return {
    piece,
    still: standsStill(drawing.card, piece),
    touched: spans,
    spans,
    name: () => `${contents.of(drawing, piece, false)} ${bare.name()}`,
    lay: (canvas) =>
      namingPiece(piece, place, () => {
        // Finishes look beyond what masks leave after them.
        const bounds = boundsOf({ ...shot, masked: false })
        // The opacity and the blend mode are not in the picture.
        const name = contents.name(`finished ${contents.of(drawing, wholeOf(piece), false)} ${bare.name()}`)
        const plan = bounds && planIsolated(name, bounds, even(0), looksOf(finishes, scale), canvas, world)
        if (!plan) return
        const mark = kernels.mark()
        const picture = finished.of(plan.name!, () => finishedPicture(shot, plan.box, Infinity))
        canvas.touch(plan.visible)
        const seen = new Canvas(kernels, picture, plan.box).window(plan.visible)
        kernels.blend(standing.blend, seen, canvas.window(plan.visible), standing.opacity)
        kernels.release(mark)
      }),
  }
}

const wholes = new WeakMap<Piece, Piece>()

function wholeOf(piece: Piece): Piece {
  const found = wholes.get(piece) ?? { ...piece, opacity: 100, blend: 'normal' as const }
  wholes.set(piece, found)
  return found
}

/** The picture of a shot in a box, after those of its finishes that rank below `upTo`. */
function finishedPicture(shot: Shot, box: GridBox, upTo: number): Picture & { box: GridBox } {
  const { drawing, bare, finishes, scale, hook, standing, piece, weave } = shot
  const { kernels, contents, finished } = drawing
  const working = finishes.filter(({ rank }) => rank < upTo)
  const woven = weave && upTo === Infinity
  if (woven) return weaveInto(drawing, piece, weave, finishedPicture({ ...shot, weave: null }, box, upTo), box)
  if (shot.masked && upTo === Infinity) {
    const cut = { ...kernels.layers(box.w, box.h), box }
    const mark = kernels.mark()
    const whole = finishedPicture({ ...shot, masked: false }, box, upTo)
    const mask = heldCover(drawing, { ...standing, percent: scale.px }, 'after', box, shot.place)
    kernels.layPicture('normal', cut, { mask, gate: null }, whole, 1)
    kernels.release(mark)
    return cut
  }
  const made = working.length > 0 ? { ...kernels.layers(box.w, box.h, false), box } : null
  const mark = kernels.mark()
  const { x, y, w, h } = box
  const name = contents.name(`bare ${bare.name()} ${x} ${y} ${w} ${h}`)
  const plain = finished.of(name, () => isolated(drawing, { box, visible: box, name }, (canvas) => bare.lay(canvas)))
  if (!made) return plain
  const benchOf = (finish: LaidFinish) => {
    return finishBench(
      drawing,
      scale,
      finish,
      { frame: standing.at.frame, hook },
      {
        at(frames, across) {
          const other = isThere(drawing.list.at, frames, across) ? earlier(shot, frames, finish) : null
          return other && finishedPicture(other, box, finish.rank)
        },
        changes: () => box,
        piece: (id) => pieceAlone(drawing, piece.id, id, box),
      },
    )
  }
  workFinishes(kernels, working, benchOf, plain, made)
  kernels.release(mark)
  return made
}
