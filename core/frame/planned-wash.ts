import type { Piece } from '../card/schema'
import type { Picture } from '../kernels/kernels'
import type { Moment } from '../values/moment'
import { movedTo, stepped } from '../values/moment'
import type { Frames, Rect } from '../units'
import type { Elsewhere } from './finish-bench'
import { finishBench } from './finish-bench'
import { washScale } from './finish-scale'
import { workFinishes } from './finishing'
import type { GridBox } from './grid-box'
import type { Stratum } from './ground'
import { isolated } from './isolated'
import type { LaidFinish } from './laid-finishes'
import { finishedBounds, washFinishes } from './laid-finishes'
import { pieceAlone } from './map-picture'
import { isThere, movedFor } from './moments'
import { namingPiece } from './naming'
import type { Drawing } from './piece'
import type { PlannedPiece } from './still-runs'
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
  box: GridBox,
): Elsewhere {
  return {
    at(frames: Frames, across) {
      const there = isThere(at, frames, across) ? movedFor(drawing, finish, frames) : null
      return there && sceneAt(there, wash, behind, movedTo(at, at.frame + frames), finish.rank, box)
    },
    piece: (id) => pieceAlone(drawing, wash, id, box),
  }
}

/** All that lies behind a wash at a moment, after those of its finishes that rank below `upTo`. */
function sceneAt(drawing: Drawing, wash: Piece, behind: Behind, at: Moment, upTo: number, box: GridBox): Picture {
  const { kernels, contents, finished } = drawing
  const finishes = washFinishes(wash, at).filter(({ rank }) => rank < upTo)
  const made = finishes.length > 0 ? { ...kernels.layers(box.w, box.h, false), box } : null
  const mark = kernels.mark()
  const strata = behind.strata(drawing, at)
  const { x, y, w, h } = box
  const name = contents.name(`scene ${strata.map((stratum) => stratum.name()).join(' ')} ${x} ${y} ${w} ${h}`)
  const scene = finished.of(name, () =>
    isolated(drawing, { box, visible: box, name }, (canvas) => {
      for (const stratum of strata) stratum.lay(canvas)
    }),
  )
  if (!made) return scene
  const moment = { frame: stepped(at, wash.steps).frame, hook: null }
  const benchOf = (finish: LaidFinish) =>
    finishBench(drawing, washScale(drawing), finish, moment, around(drawing, wash, behind, at, finish, box))
  workFinishes(kernels, finishes, benchOf, scene, made)
  kernels.release(mark)
  return made
}
