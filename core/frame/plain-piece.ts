import type { Piece } from '../card/schema'
import type { Moment } from '../values/moment'
import type { Length } from '../values/moving'
import type { Rect } from '../units'
import type { Canvas } from './canvas'
import { finishScale } from './finish-scale'
import { joined } from './grid-box'
import type { AlphaStanding } from './group'
import { drawFromAlpha, meanStandings, standsByAlpha, touchedByAlpha } from './group'
import { heldBounds, layMasked, shared } from './masks'
import { namingPiece } from './naming'
import { atMoment, exposedAt } from './open-list'
import { drawBarePainting } from './painting-piece'
import type { Drawing, Standing } from './piece'
import { laidMasks } from './placed-masks'
import { drawFormed, standingOf, touchedBy } from './piece'
import { exposuresOf, layExposed, leavesShutter, moves, passesShutter } from './shutter'
import type { PlannedPiece } from './still-runs'
import { standsStill } from './still-runs'

/** A piece by its coats alone. */
export function planPlain(drawing: Drawing, piece: Piece, place: string): PlannedPiece {
  const at = exposedAt(drawing.list)
  const unshuttered = { ...drawing, shutter: null }
  const touched = (now: Moment) => touchesPlainly(atMoment(unshuttered, now), piece, place)
  const exposures = namingPiece(piece, place, () => exposuresOf(drawing, piece, place, touched))
  const { moments } = exposures
  const exposed = moments.length > 1 || moments[0] !== at
  const leaves = drawing.shutter !== null && leavesShutter(piece)
  // While a group is exposed as a whole, what it holds moves along with it.
  const still = (exposed && !leaves) || (piece.kind === 'twin' && !piece.blurred) ? unshuttered : drawing
  const standing = (now: Moment) => {
    const { list } = atMoment(drawing, now)
    return standingOf({ ...piece, on: true, span: null }, list.parent, list.at)
  }
  const spans = () => moments.map((now) => touched(now)).reduce(joined, null)
  return {
    piece,
    still: standsStill(drawing.card, piece),
    touched: () => touched(at),
    spans,
    name: () => {
      // One that is never exposed itself may hold some that are.
      const isMoved = drawing.list.exposed?.moves === true || moves(drawing.card, piece)
      const inner = still.shutter !== null && (!piece.blurred || passesShutter(piece)) && isMoved
      return drawing.contents.of(drawing, piece, exposed || inner)
    },
    lay: (canvas) =>
      namingPiece(piece, place, () => {
        if (leaves) {
          const whole = standing(at)
          if (whole && standsByAlpha(whole)) drawFromAlpha(drawing, [whole], canvas, place, spans)
          return
        }
        const draw = (now: Moment) => drawPiece(atMoment(still, now), standing(now), canvas, place)
        if (moments.length === 1) return draw(moments[0]!)
        // What is masked moves under its mask.
        const masked = laidMasks(piece, drawing.list.at, 'before').length > 0
        const mean: AlphaStanding[] | null = masked ? null : meanStandings(still, exposures, standing, place)
        if (mean) drawFromAlpha(still, mean, canvas, place)
        else layExposed(still, canvas, moments, touched, draw)
      }),
  }
}

function drawPiece(drawing: Drawing, standing: Standing | null, canvas: Canvas, place: string): void {
  if (!standing) return
  if (laidMasks(standing.piece, standing.at, 'before').length === 0) drawBare(drawing, standing, canvas, place)
  else {
    const touched = touchesBarely(drawing, standing, place)
    layMasked(drawing, heldBy(drawing, standing, place), canvas, place, touched, (bare, inner) =>
      drawBare(drawing, bare, inner, place),
    )
  }
}

function drawBare(drawing: Drawing, standing: Standing, canvas: Canvas, place: string): void {
  if (standsByAlpha(standing)) {
    if (!drawBarePainting(drawing, standing, canvas, place)) drawFromAlpha(drawing, [standing], canvas, place)
  } else drawFormed(drawing, standing, canvas, place)
}

/** What its coats can touch, as far as masks leave it. */
export function touchesPlainly(drawing: Drawing, piece: Piece, place: string): Rect | null {
  const { parent, at } = drawing.list
  const standing = standingOf({ ...piece, on: true, span: null }, parent, at)
  if (!standing) return null
  const touched = touchesBarely(drawing, standing, place)
  return laidMasks(piece, standing.at, 'before').length === 0
    ? touched
    : shared(touched, heldBounds(drawing, heldBy(drawing, standing, place), 'before', place))
}

/** As its masks see it: lengths in % are those of its finishes. */
const heldBy = (drawing: Drawing, standing: Standing, place: string) => ({
  ...standing,
  percent: (length: Length) => finishScale(drawing, standing, null, place).scale.px(length),
})

const touchesBarely = (drawing: Drawing, standing: Standing, place: string): Rect | null =>
  standsByAlpha(standing) ? touchedByAlpha(drawing, standing, place) : touchedBy(drawing, standing, place)
