import type { Card, Piece } from '../card/schema'
import { allPieces, holdersOf, pathTo } from '../card/tree'
import { mapFault } from '../card/maps'
import { lightOf } from '../card/light'
import { even } from '../coats/definition'
import type { FinishScale } from '../finishes/definition'
import type { Picture } from '../kernels/kernels'
import type { Placement } from '../outline/outline'
import { insideOf } from '../time/clock'
import type { Moment } from '../values/moment'
import { movedTo } from '../values/moment'
import type { Frames, Px, Rect } from '../units'
import { Canvas } from './canvas'
import { finishBench } from './finish-bench'
import { finishScale, washScale } from './finish-scale'
import { workFinishes } from './finishing'
import type { GridBox } from './grid-box'
import { joined } from './grid-box'
import type { Stratum } from './ground'
import type { AlphaStanding } from './group'
import { drawFromAlpha, meanStandings, standsByAlpha, touchedByAlpha } from './group'
import { isolated, planIsolated } from './isolated'
import type { LaidFinish } from './laid-finishes'
import { finishedBounds, laidFinishes, looksOf } from './laid-finishes'
import { namingPiece } from './naming'
import type { Drawing, Lists, Standing } from './piece'
import { drawFormed, isSeen, standingOf, touchedBy } from './piece'
import type { Hook } from './prepared-paint'
import { exposuresOf, layExposed, moves } from './shutter'
import type { PlannedPiece } from './still-runs'
import { joinStill } from './still-runs'
import { layWash } from './wash'

// How each piece of a list will be laid: plainly, or on a canvas of its own where it has finishes; and washes, which treat
// what lies behind them.

/** A list of pieces, front first, and what it lies on. */
export interface PieceList {
  pieces: readonly Piece[]
  /** Where their places count from. */
  parent: Placement
  /** Where the list stands in the card. */
  path: string
  /** What lies behind all of them. */
  ground?: (drawing: Drawing) => Stratum[]
  /** Whether that moves. */
  shifting?: boolean
}

/** Copies within copies that are computed for one picture. */
export const MOST_MOMENTS = 256

/** All that a list lays from an entry on backward, back to front. */
export function strataOf(drawing: Drawing, list: PieceList, from = 0, at = drawing.at): Stratum[] {
  const ground = list.ground?.(drawing) ?? []
  return [...ground, ...joinStill(drawing, plannedPieces(drawing, list, from, at), list.shifting ?? false)]
}

/** The pieces of a list that are seen, from an entry on backward, back to front. */
function plannedPieces(drawing: Drawing, list: PieceList, from: number, at: Moment): PlannedPiece[] {
  const { pieces, parent, path } = list
  const planned: PlannedPiece[] = []
  for (let i = pieces.length - 1; i >= from; i--) {
    const piece = pieces[i]!
    // It comes and goes with the frame, whatever the shutter does.
    if (!isSeen(piece, at)) continue
    const place = `${path}[${i}]`
    planned.push(
      piece.kind === 'wash'
        ? planWash(drawing, piece, list, i, place, at)
        : planPiece(drawing, piece, parent, place, at),
    )
  }
  return planned
}

/** What groups ask of the lists that they hold. */
export const LISTS: Lists = {
  lay(drawing, pieces, parent, canvas, path, at) {
    for (const planned of plannedPieces(drawing, { pieces, parent, path }, 0, at)) planned.lay(canvas)
  },
  touched(drawing, pieces, parent, path, at) {
    let all: Rect | null = null
    for (let i = pieces.length - 1; i >= 0; i--) {
      const piece = pieces[i]!
      if (!isSeen(piece, at)) continue
      const place = `${path}[${i}]`
      if (piece.kind !== 'wash') all = joined(all, touches(drawing, piece, parent, at, place))
      else
        all = washedBounds(drawing, piece, at, all, (now) =>
          LISTS.touched(drawing, pieces.slice(i + 1), parent, path, now),
        )
    }
    return all
  },
  looks(drawing, pieces, at) {
    let need: Px = 0
    for (let i = pieces.length - 1; i >= 0; i--) {
      const piece = pieces[i]!
      if (piece.kind !== 'wash' || !isSeen(piece, at)) continue
      const finishes = laidFinishes(piece, at)
      const others = momentsOf(finishes).map((frames) =>
        LISTS.looks(drawing, pieces.slice(i + 1), movedTo(at, at.frame + frames)),
      )
      need = looksOf(finishes, washScale(drawing)) + Math.max(need, ...others)
    }
    return need
  },
}

const momentsOf = (finishes: readonly LaidFinish[]): Frames[] =>
  finishes.flatMap(({ definition, values }) => definition.moments?.(values) ?? [])

/** What a wash can touch of what lies behind it. */
function washedBounds(
  drawing: Drawing,
  wash: Piece,
  at: Moment,
  behind: Rect | null,
  behindAt: (at: Moment) => Rect | null,
): Rect | null {
  return finishedBounds(laidFinishes(wash, at), washScale(drawing), behind, (frames) =>
    behindAt(movedTo(at, at.frame + frames)),
  )
}

/** A piece that is seen, as it will be laid. */
function planPiece(drawing: Drawing, piece: Piece, parent: Placement, place: string, at: Moment): PlannedPiece {
  const shot = piece.finishes.length > 0 ? shotOf(drawing, piece, parent, place, at) : null
  return shot && shot.finishes.length > 0 ? planFinished(shot) : planPlain(drawing, piece, parent, place, at)
}

/** A piece by its coats alone. */
function planPlain(drawing: Drawing, piece: Piece, parent: Placement, place: string, at: Moment): PlannedPiece {
  const unshuttered = { ...drawing, shutter: null }
  const touched = (now: Moment) => touchesPlainly(unshuttered, piece, parent, now, place)
  const exposures = namingPiece(piece, place, () => exposuresOf(drawing, piece, parent, at, place, touched))
  const { moments } = exposures
  const exposed = moments.length > 1 || moments[0] !== at
  // While a group is exposed, what it holds moves along with it.
  const still = exposed ? unshuttered : drawing
  const standing = (now: Moment) => standingOf({ ...piece, on: true, span: null }, parent, now)
  return {
    piece,
    touched: () => touched(at),
    spans: () => moments.map((now) => touched(now)).reduce(joined, null),
    name: () => {
      // One that is never exposed itself may hold some that are.
      const inner = still.shutter !== null && !piece.blurred && moves(piece)
      return drawing.contents.of(drawing, piece, at, exposed || inner)
    },
    lay: (canvas) =>
      namingPiece(piece, place, () => {
        if (moments.length === 1) return drawPiece(still, standing(moments[0]!), canvas, place)
        const mean: AlphaStanding[] | null = meanStandings(still, exposures, standing, place)
        if (mean) drawFromAlpha(still, mean, canvas, place)
        else layExposed(still, canvas, moments, touched, (now) => drawPiece(still, standing(now), canvas, place))
      }),
  }
}

function drawPiece(drawing: Drawing, standing: Standing | null, canvas: Canvas, place: string): void {
  if (!standing) return
  if (standsByAlpha(standing)) drawFromAlpha(drawing, [standing], canvas, place)
  else drawFormed(drawing, standing, canvas, place)
}

/** What a piece can touch, its finishes included. */
function touches(drawing: Drawing, piece: Piece, parent: Placement, at: Moment, place: string): Rect | null {
  const shot = piece.finishes.length > 0 ? shotOf(drawing, piece, parent, place, at) : null
  return shot && shot.finishes.length > 0 ? boundsOf(shot) : touchesPlainly(drawing, piece, parent, at, place)
}

function touchesPlainly(drawing: Drawing, piece: Piece, parent: Placement, at: Moment, place: string): Rect | null {
  const standing = standingOf({ ...piece, on: true, span: null }, parent, at)
  if (!standing) return null
  return standsByAlpha(standing) ? touchedByAlpha(drawing, standing, place) : touchedBy(drawing, standing, place)
}

/** A piece with finishes at a moment. */
interface Shot {
  drawing: Drawing
  piece: Piece
  parent: Placement
  place: string
  at: Moment
  standing: Standing
  /** The piece without finishes, whole and normally laid. */
  bare: PlannedPiece
  bounds: Rect | null
  finishes: readonly LaidFinish[]
  scale: FinishScale
  hook: Hook | null
}

function shotOf(drawing: Drawing, piece: Piece, parent: Placement, place: string, at: Moment): Shot | null {
  const standing = standingOf({ ...piece, on: true, span: null }, parent, at)
  if (!standing) return null
  const bare = planPlain(drawing, bareOf(piece), parent, place, at)
  const bounds = bare.spans()
  const { scale, hook } = finishScale(drawing, standing, bounds, place)
  return {
    drawing,
    piece,
    parent,
    place,
    at,
    standing,
    bare,
    bounds,
    finishes: laidFinishes(piece, standing.at),
    scale,
    hook,
  }
}

const bares = new WeakMap<Piece, Piece>()

/** The piece without finishes; its opacity and blend mode count after them. */
function bareOf(piece: Piece): Piece {
  const found = bares.get(piece) ?? { ...piece, finishes: [], opacity: 100, blend: 'normal' as const }
  bares.set(piece, found)
  return found
}

/** The same piece so many frames away; null where it is not seen then. */
function earlier({ drawing, piece, parent, place, at }: Shot, frames: Frames): Shot | null {
  const then = movedTo(at, at.frame + frames)
  return isSeen(piece, then) ? shotOf(movedDrawing(drawing, frames), piece, parent, place, then) : null
}

/** A drawing so many frames away, of so many copies at once. */
function movedDrawing(drawing: Drawing, frames: Frames, copies = 1): Drawing {
  const at = movedTo(drawing.at, drawing.at.frame + frames)
  return { ...drawing, at, light: lightOf(drawing.card, at), copies: drawing.copies * copies }
}

/** What a shot can touch after those of its finishes that rank below `upTo`. */
function boundsOf(shot: Shot, upTo = Infinity): Rect | null {
  const finishes = shot.finishes.filter(({ rank }) => rank < upTo)
  return finishedBounds(finishes, shot.scale, shot.bounds, (frames, rank) => {
    const other = earlier(shot, frames)
    return other && boundsOf(other, rank)
  })
}

function planFinished(shot: Shot): PlannedPiece {
  const { drawing, piece, place, at, standing, finishes, scale, bare } = shot
  const { kernels, contents, finished, world } = drawing
  const spans = () => boundsOf(shot)
  return {
    piece,
    touched: spans,
    spans,
    name: () => `${contents.of(drawing, piece, at, false)} ${bare.name()}`,
    lay: (canvas) =>
      namingPiece(piece, place, () => {
        const bounds = spans()
        // The opacity and the blend mode are not in the picture.
        const name = contents.name(`finished ${contents.of(drawing, wholeOf(piece), at, false)} ${bare.name()}`)
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
  const { drawing, bare, finishes, scale, hook, standing, piece } = shot
  const { kernels, contents, finished } = drawing
  const working = finishes.filter(({ rank }) => rank < upTo)
  const made = working.length > 0 ? { ...kernels.layers(box.w, box.h, false), box } : null
  const mark = kernels.mark()
  const { x, y, w, h } = box
  const name = contents.name(`bare ${bare.name()} ${x} ${y} ${w} ${h}`)
  const plain = finished.of(name, () => isolated(drawing, { box, visible: box, name }, (canvas) => bare.lay(canvas)))
  if (!made) return plain
  const benchOf = (finish: LaidFinish) => {
    const count = finish.definition.moments?.(finish.values).length ?? 1
    return finishBench(
      drawing,
      scale,
      finish,
      { frame: standing.at.frame, hook },
      {
        at(frames, across) {
          if (!isThere(shot.at, frames, across) || drawing.copies * count > MOST_MOMENTS) return null
          const other = earlier({ ...shot, drawing: { ...drawing, copies: drawing.copies * count } }, frames)
          return other && finishedPicture(other, box, finish.rank)
        },
        piece: (id) => pieceAlone(drawing, piece, id, box),
      },
    )
  }
  workFinishes(kernels, working, benchOf, plain, made)
  kernels.release(mark)
  return made
}

/** Whether a moment so many frames away lies on the same side of the seam, or the seam does not count. */
const isThere = ({ frame, ring }: Moment, frames: Frames, across: boolean) =>
  across || (frame + frames >= 0 && frame + frames < ring.length)

function planWash(
  drawing: Drawing,
  piece: Piece,
  list: PieceList,
  index: number,
  place: string,
  at: Moment,
): PlannedPiece {
  const { contents } = drawing
  const scale = washScale(drawing)
  const finishes = laidFinishes(piece, at)
  const behind = (now: Moment) => LISTS.touched(drawing, list.pieces.slice(index + 1), list.parent, list.path, now)
  const touched = () => washedBounds(drawing, piece, at, behind(at), behind)
  return {
    piece,
    touched,
    spans: touched,
    name: () => contents.of(drawing, piece, at, false),
    lay: (canvas) =>
      namingPiece(piece, place, () =>
        layWash(drawing, piece, finishes, scale, at, canvas, (finish, box) => {
          const count = finish.definition.moments?.(finish.values).length ?? 1
          return {
            at(frames, across) {
              if (!isThere(at, frames, across) || drawing.copies * count > MOST_MOMENTS) return null
              const then = movedTo(at, at.frame + frames)
              return sceneAt(movedDrawing(drawing, frames, count), piece, list, index, then, finish.rank, box)
            },
            piece: (id) => pieceAlone(drawing, piece, id, box),
          }
        }),
      ),
  }
}

/** All that lies behind a wash at a moment, after those of its finishes that rank below `upTo`. */
function sceneAt(
  drawing: Drawing,
  wash: Piece,
  list: PieceList,
  index: number,
  at: Moment,
  upTo: number,
  box: GridBox,
): Picture {
  const { kernels, contents, finished } = drawing
  const finishes = laidFinishes(wash, at).filter(({ rank }) => rank < upTo)
  const made = finishes.length > 0 ? { ...kernels.layers(box.w, box.h, false), box } : null
  const mark = kernels.mark()
  const strata = strataOf(drawing, list, index + 1, at)
  const { x, y, w, h } = box
  const name = contents.name(`scene ${strata.map((stratum) => stratum.name()).join(' ')} ${x} ${y} ${w} ${h}`)
  const scene = finished.of(name, () =>
    isolated(drawing, { box, visible: box, name }, (canvas) => {
      for (const stratum of strata) stratum.lay(canvas)
    }),
  )
  if (!made) return scene
  const benchOf = (finish: LaidFinish) => {
    const count = finish.definition.moments?.(finish.values).length ?? 1
    return finishBench(
      drawing,
      washScale(drawing),
      finish,
      { frame: at.frame, hook: null },
      {
        at(frames, across) {
          if (!isThere(at, frames, across) || drawing.copies * count > MOST_MOMENTS) return null
          const then = movedTo(at, at.frame + frames)
          return sceneAt(movedDrawing(drawing, frames, count), wash, list, index, then, finish.rank, box)
        },
        piece: (id) => pieceAlone(drawing, wash, id, box),
      },
    )
  }
  workFinishes(kernels, finishes, benchOf, scene, made)
  kernels.release(mark)
  return made
}

/** Another piece as it stands on the card, alone, shown or not; null where it cannot be looked at. */
function pieceAlone(drawing: Drawing, from: Piece, id: string, box: GridBox): Picture | null {
  const { card, contents, finished } = drawing
  if (mapFault(card, from.id, id)) return null
  const found = standingAlone(card, id, drawing)
  if (!found) return null
  const plan = planPiece(drawing, found.piece, found.parent, found.place, found.at)
  const { x, y, w, h } = box
  const name = contents.name(`alone ${plan.name()} ${JSON.stringify(found.parent)} ${x} ${y} ${w} ${h}`)
  return finished.of(name, () => isolated(drawing, { box, visible: box, name }, (canvas) => plan.lay(canvas)))
}

const shown = new WeakMap<Piece, Piece>()

/** A piece that is shown in any case, where the pieces that hold it put it. */
function standingAlone(card: Card, id: string, drawing: Drawing) {
  const way = pathTo(card.pieces, id)
  const piece = allPieces(card.pieces).find((one) => one.id === id)
  if (!way || !piece) return null
  let parent: Placement = { scale: drawing.scale, rotation: 0, x: 0, y: 0 }
  let at = drawing.at
  let place = `pieces[${way[0]}]`
  for (const [i, holder] of holdersOf(card.pieces, id).entries()) {
    const standing = standingOf({ ...holder, on: true, span: null, opacity: 100 }, parent, at)
    if (!standing) return null
    parent = standing.placement
    at = insideOf(holder, standing.at)
    place += `.pieces[${way[i + 1]}]`
  }
  const there = shown.get(piece) ?? { ...piece, on: true, span: null }
  shown.set(piece, there)
  return { piece: there, parent, at, place }
}
