import type { Piece } from '../card/schema'
import type { Picture } from '../kernels/kernels'
import type { Moment } from '../values/moment'
import { movedTo, stepped } from '../values/moment'
import type { Frames, Rect } from '../units'
import type { Elsewhere } from './finish-bench'
import { finishBench } from './finish-bench'
import { washScale } from './finish-scale'
import { workFinishes } from './finishing'
import { BOX_GRID } from '../kernels/gauss'
import type { Canvas } from './canvas'
import type { GridBox } from './grid-box'
import { common, joined } from './grid-box'
import type { Stratum } from './ground'
import { isolated, isolatedOn } from './isolated'
import type { LaidFinish } from './laid-finishes'
import { finishedBounds, looksElsewhere, momentsOf, washFinishes } from './laid-finishes'
import { pieceAlone } from './map-picture'
import { isThere, movedFor } from './moments'
import { namingPiece } from './naming'
import type { Drawing } from './piece'
import type { LaidPicture } from './shelf'
import type { PlannedPiece } from './still-runs'
import { standsStill } from './still-runs'
import { layWash } from './wash'

/** What lies behind a wash at a moment. */
export interface Behind {
  strata(drawing: Drawing, at: Moment): Stratum[]
  touched(drawing: Drawing, at: Moment): Rect | null
  /** The part of the canvas that is looked at after a wash in front of it; null for all. */
  seen(drawing: Drawing, at: Moment): GridBox | null
}

/** A wash, as it will be worked on what lies behind it. */
export function planWash(drawing: Drawing, piece: Piece, behind: Behind, place: string, at: Moment): PlannedPiece {
  const finishes = washFinishes(piece, at)
  const touched = () => washedBounds(drawing, piece, at, behind.touched(drawing, at), behind.touched)
  return {
    piece,
    still: standsStill(piece) && !looksElsewhere(piece),
    touched,
    spans: touched,
    // Beyond what is looked at it leaves what came in.
    name: () => `${drawing.contents.of(drawing, piece, at, false)} ${JSON.stringify(behind.seen(drawing, at))}`,
    lay: (canvas) =>
      namingPiece(piece, place, () =>
        layWash(
          ...([drawing, piece, finishes, stepped(at, piece.steps), canvas] as const),
          (finish, box) => around(drawing, piece, behind, at, finish, box),
          behind.seen(drawing, at) ?? canvas.box,
        ),
      ),
  }
}

/** What a wash can touch of what lies behind it. */
export function washedBounds(
  drawing: Drawing,
  wash: Piece,
  at: Moment,
  behind: Rect | null,
  behindAt: (drawing: Drawing, at: Moment) => Rect | null,
): Rect | null {
  return finishedBounds(washFinishes(wash, at), washScale(drawing), behind, (frames, finish) => {
    const there = movedFor(drawing, finish, frames)
    return there && behindAt(there, movedTo(at, at.frame + frames))
  })
}

/** What a finish of a wash is given beside what lies behind it now. */
function around(
  drawing: Drawing,
  wash: Piece,
  behind: Behind,
  at: Moment,
  finish: LaidFinish,
  whole: GridBox,
  box = whole,
): Elsewhere {
  return {
    at(frames: Frames, across, part) {
      const there = isThere(at, frames, across) ? movedFor(drawing, finish, frames) : null
      return there && sceneAt(there, wash, behind, movedTo(at, at.frame + frames), finish.rank, whole, part ?? box)
    },
    changes: (frames, across) => changesOf(drawing, wash, behind, at, finish, frames, across, box),
    piece: (id) => pieceAlone(drawing, wash, id, box),
  }
}

/** The part of a box outside of which all that lies behind a wash is the same at some frames as it is now; null for nowhere. */
function changesOf(
  drawing: Drawing,
  wash: Piece,
  behind: Behind,
  at: Moment,
  finish: LaidFinish,
  frames: readonly Frames[],
  across: boolean,
  box: GridBox,
): GridBox | null {
  const now = behind.strata(drawing, at)
  const names = now.map((stratum) => stratum.name())
  let changes: Rect | null = null
  /** All that is other at a moment, and at those that finishes before this one look at from there. */
  const look = (there: Drawing, then: Moment): boolean => {
    const before = washFinishes(wash, then).filter(({ rank }) => rank < finish.rank)
    if (!before.every(({ definition, values }) => definition.keepsStill?.(values))) return false
    const strata = behind.strata(there, then)
    const same = strata.findIndex((stratum, i) => stratum.name() !== names[i])
    const from = same < 0 ? strata.length : same
    for (const stratum of [...strata.slice(from), ...now.slice(from)]) changes = joined(changes, stratum.spans())
    return before.every((earlier) =>
      momentsOf(earlier).every((by) => {
        const moved = movedFor(there, earlier, by)
        return !moved || look(moved, movedTo(then, then.frame + by))
      }),
    )
  }
  const known = [0, ...frames].every((by) => {
    const there = isThere(at, by, across) ? movedFor(drawing, finish, by) : null
    return !there || look(there, movedTo(at, at.frame + by))
  })
  return known ? changes && onGrid(changes, box) : box
}

/** The part of a box that holds some bounds, on the blur's grid; null for nothing. */
function onGrid(bounds: Rect, box: GridBox): GridBox | null {
  const down = (value: number, low: number) => (value > low ? Math.floor(value / BOX_GRID) * BOX_GRID : low)
  const [x, y] = [down(bounds.left, box.x), down(bounds.top, box.y)]
  const [right, bottom] = [Math.min(bounds.right, box.x + box.w), Math.min(bounds.bottom, box.y + box.h)]
  const part = common({ x, y, w: (Math.ceil(right - x) + 15) & ~15, h: Math.ceil(bottom - y) }, box)
  return part.w > 0 && part.h > 0 ? part : null
}

/**
 * All that lies behind a wash at a moment, after those of its finishes that rank below `upTo`: `box`, of the `whole` that the
 * wash treats.
 */
function sceneAt(
  drawing: Drawing,
  wash: Piece,
  behind: Behind,
  at: Moment,
  upTo: number,
  whole: GridBox,
  box: GridBox,
): Picture {
  const { kernels, contents, finished } = drawing
  const finishes = washFinishes(wash, at).filter(({ rank }) => rank < upTo)
  const made = finishes.length > 0 ? { ...kernels.layers(box.w, box.h, false), box } : null
  const mark = kernels.mark()
  const strata = behind.strata(drawing, at)
  const moving = strata.findIndex(({ still }) => !still)
  const still = strata.slice(0, moving < 0 ? strata.length : moving)
  const pictureOf = (what: string, some: readonly Stratum[], { x, y, w, h }: GridBox, make: () => LaidPicture) =>
    finished.of(contents.name(`${what} ${some.map((stratum) => stratum.name()).join(' ')} ${x} ${y} ${w} ${h}`), make)
  const plan = (of: GridBox) => ({ box: of, visible: of, name: null })
  const lay = (some: readonly Stratum[]) => (canvas: Canvas) => some.forEach((stratum) => stratum.lay(canvas))
  // What stands still is laid once for all scenes, and taken as it lies.
  const scene = pictureOf('scene', strata, box, () =>
    still.length === 0
      ? isolated(drawing, plan(box), lay(strata))
      : isolatedOn(
          drawing,
          pictureOf('still', still, whole, () => isolated(drawing, plan(whole), lay(still))),
          box,
          lay(strata.slice(still.length)),
        ),
  )
  if (!made) return scene
  const moment = { frame: stepped(at, wash.steps).frame, hook: null }
  const benchOf = (finish: LaidFinish) =>
    finishBench(drawing, washScale(drawing), finish, moment, around(drawing, wash, behind, at, finish, whole, box))
  workFinishes(kernels, finishes, benchOf, scene, made)
  kernels.release(mark)
  return made
}
