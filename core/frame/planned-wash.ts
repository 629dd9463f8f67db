import type { Piece } from '../card/schema'
import type { Picture } from '../kernels/kernels'
import { stepped } from '../values/moment'
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
import { pieceAlone } from './other-piece'
import { isThere, movedFor } from './moments'
import { namingPiece } from './naming'
import type { Drawing } from './piece'
import type { LaidPicture } from './shelf'
import type { PlannedPiece } from './still-runs'
import { standsStill } from './still-runs'
import { layWash } from './wash'

/** What lies behind a wash at a moment. */
export interface Behind {
  strata(drawing: Drawing): Stratum[]
  touched(drawing: Drawing): Rect | null
  /** The part of the canvas that is looked at after a wash in front of it; null for all. */
  seen(drawing: Drawing): GridBox | null
}

/** A wash, as it will be worked on what lies behind it. */
export function planWash(drawing: Drawing, piece: Piece, behind: Behind, place: string): PlannedPiece {
  const { at } = drawing.list
  const finishes = washFinishes(piece, at)
  const touched = () => washedBounds(drawing, piece, behind.touched(drawing), behind.touched)
  return {
    piece,
    still: standsStill(drawing.card, piece) && !looksElsewhere(piece),
    touched,
    spans: touched,
    // Beyond what is looked at it leaves what came in.
    name: () => `${drawing.contents.of(drawing, piece, false)} ${JSON.stringify(behind.seen(drawing))}`,
    lay: (canvas) =>
      namingPiece(piece, place, () =>
        layWash(
          ...([drawing, piece, finishes, stepped(at, piece.steps), canvas] as const),
          (finish, box) => around({ drawing, wash: piece, behind }, finish, box),
          place,
          behind.seen(drawing) ?? canvas.box,
        ),
      ),
  }
}

/** What a wash can touch of what lies behind it. */
export function washedBounds(
  drawing: Drawing,
  wash: Piece,
  behind: Rect | null,
  behindAt: (drawing: Drawing) => Rect | null,
): Rect | null {
  return finishedBounds(washFinishes(wash, drawing.list.at), washScale(drawing), behind, (frames, finish) => {
    const there = movedFor(drawing, finish, frames)
    return there && behindAt(there)
  })
}

/** A wash at the moment of its list. */
interface WashWork {
  drawing: Drawing
  wash: Piece
  behind: Behind
}

/** The same wash so many frames away, as one of its finishes looks at it; null where it is one copy too many. */
function movedWork({ drawing, ...work }: WashWork, finish: LaidFinish, frames: Frames): WashWork | null {
  const there = movedFor(drawing, finish, frames)
  return there && { ...work, drawing: there }
}

/** What a finish of a wash is given beside what lies behind it now, in a part of the `whole` that the wash treats. */
function around(work: WashWork, finish: LaidFinish, whole: GridBox, box = whole): Elsewhere {
  return {
    at(frames: Frames, across, part) {
      const there = isThere(work.drawing.list.at, frames, across) ? movedWork(work, finish, frames) : null
      return there && sceneAt(there, finish.rank, whole, part ?? box)
    },
    changes: (frames, across) => changesOf(work, finish, frames, across, box),
    piece: (id) => pieceAlone(work.drawing, work.wash.id, id, box),
  }
}

/** The part of a box outside of which all that lies behind a wash is the same at some frames as it is now; null for nowhere. */
function changesOf(
  work: WashWork,
  finish: LaidFinish,
  frames: readonly Frames[],
  across: boolean,
  box: GridBox,
): GridBox | null {
  // As those moments see it: exposed as often, and whole.
  const here = movedWork(work, finish, 0)
  if (!here) return box
  const now = strataBehind(here)
  const names = now.map((stratum) => stratum.name())
  let changes: Rect | null = null
  /** Adds all that is other at a moment, and at those that finishes before this one look at from there; false for anything. */
  const add = (there: WashWork): boolean => {
    const before = washFinishes(there.wash, there.drawing.list.at).filter(({ rank }) => rank < finish.rank)
    if (!before.every(({ definition, values }) => definition.keepsStill?.(values))) return false
    const strata = strataBehind(there)
    const other = strata.findIndex((stratum, i) => stratum.name() !== names[i])
    const from = other < 0 ? strata.length : other
    for (const stratum of [...strata.slice(from), ...now.slice(from)]) changes = joined(changes, stratum.spans())
    const further = before.flatMap((earlier) => momentsOf(earlier).map((by) => movedWork(there, earlier, by)))
    return further.every((moved) => !moved || add(moved))
  }
  const looked = frames
    .filter((by) => isThere(work.drawing.list.at, by, across))
    .map((by) => movedWork(work, finish, by))
  const isKnown = [here, ...looked].every((there) => !there || add(there))
  return isKnown ? changes && onGrid(changes, box) : box
}

const strataBehind = ({ drawing, behind }: WashWork): Stratum[] => behind.strata(drawing)

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
function sceneAt(work: WashWork, upTo: number, whole: GridBox, box: GridBox): Picture {
  const { drawing, wash } = work
  const { kernels, contents, finished } = drawing
  const { at } = drawing.list
  const finishes = washFinishes(wash, at).filter(({ rank }) => rank < upTo)
  const made = finishes.length > 0 ? { ...kernels.layers(box.w, box.h, false), box } : null
  const mark = kernels.mark()
  const strata = strataBehind(work)
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
    finishBench(drawing, washScale(drawing), finish, moment, around(work, finish, whole, box))
  workFinishes(kernels, finishes, benchOf, scene, made)
  kernels.release(mark)
  return made
}
