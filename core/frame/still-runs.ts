import { coatOf } from '../coats/table'
import { even } from '../coats/definition'
import { shownFrom } from '../card/links'
import type { Card, Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import type { Rect } from '../units'
import { Canvas } from './canvas'
import { joined } from './grid-box'
import type { Stratum } from './ground'
import { isolated, planIsolated } from './isolated'
import { isRestless } from './laid-finishes'
import type { Drawing } from './piece'
import { moves } from './shutter'

// Pieces that never move, in front of some that do: neighbours are laid as one finished picture, which can be kept. What
// belongs together is a matter of the card alone, so that no byte depends on what was kept.

/** A piece as it will be laid. */
export interface PlannedPiece extends Stratum {
  piece: Piece
  /** What it can touch. */
  touched(): Rect | null
}

/** Strata back to front. `shifting`: what lies behind all of them moves. */
export function joinStill(drawing: Drawing, pieces: readonly PlannedPiece[], shifting: boolean): Stratum[] {
  const strata: Stratum[] = []
  let run: PlannedPiece[] = []
  let moving = shifting
  const close = () => {
    if (run.length > 0) strata.push(asOne(drawing, run))
    run = []
  }
  for (const planned of pieces) {
    // What stands still behind all that moves is the ground's.
    if (moving && isPlain(drawing.card, planned.piece)) {
      run.push(planned)
      continue
    }
    close()
    moving ||= !planned.still
    strata.push(planned)
  }
  close()
  return strata
}

/** Whether a piece stands still and lies on a clear ground as on any other: all that it lays is laid as it is. */
function isPlain(card: Card, piece: Piece): boolean {
  const laidPlainly = piece.coats.behind.every(({ kind, blend }) => blend === 'normal' && !coatOf(kind).ownBlend)
  return standsStill(card, piece) && piece.kind !== 'wash' && piece.blend === 'normal' && laidPlainly
}

/** Whether a piece is the same at all frames at which it is seen. */
export const standsStill = (card: Card, piece: Piece): boolean =>
  !moves(card, piece) &&
  ![piece, ...shownFrom(card, piece)].some(isRestless) &&
  ![...allPieces([piece]), ...shownFrom(card, piece)].some(runs)

/** Whether it shows other pictures at other frames, though none of its values moves. */
const runs = (piece: Piece) => piece.kind === 'sequence' && piece.clock === 'own'

function asOne(drawing: Drawing, run: readonly PlannedPiece[]): Stratum {
  const { kernels, finished, contents, world } = drawing
  const name = () => contents.name(`as one ${run.map((planned) => planned.name()).join(' ')}`)
  return {
    name,
    spans: () => run.map((planned) => planned.spans()).reduce(joined),
    still: true,
    lay(canvas) {
      const bounds = run.map((planned) => planned.touched()).reduce(joined)
      const plan = bounds && planIsolated(name(), bounds, even(0), 0, canvas, world)
      if (!plan) return
      const mark = kernels.mark()
      const picture = finished.of(plan.name!, () =>
        isolated(drawing, plan, (inner) => {
          for (const planned of run) planned.lay(inner)
        }),
      )
      canvas.touch(plan.visible)
      const seen = new Canvas(kernels, picture, plan.box).window(plan.visible)
      kernels.blend('normal', seen, canvas.window(plan.visible), 1)
      kernels.release(mark)
    },
  }
}
