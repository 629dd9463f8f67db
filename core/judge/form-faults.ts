import { beginsAsLine } from '../card/line-form'
import type { LinkFault } from '../card/links'
import { fittedTo, linkFault } from '../card/links'
import type { Card, OutlineStep, Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import { MOST_DASHES } from '../steps/dashes'
import { readHeights } from '../steps/slices'
import { stepOf } from '../steps/table'
import type { StoredValue } from '../values/moving'
import { isMoving } from '../values/moving'
import type { MotionFault } from './motion-faults'

/** Why another piece does not count. */
export const LINK_FAULTS: Record<LinkFault, string> = {
  missing: 'is gone',
  shapeless: 'has nothing of that kind',
  circle: 'leads back to the piece itself',
}

/** Steps, links and paths that do nothing: they are passed over, the rest of the card goes on. */
export const formFaults = (card: Card): MotionFault[] =>
  allPieces(card.pieces).flatMap((piece) => [...stepFaults(piece), ...linkFaults(card, piece), ...pathFaults(piece)])

function stepFaults(piece: Piece): MotionFault[] {
  let isLine = beginsAsLine(piece)
  return [...piece.outlineSteps].reverse().flatMap((step): MotionFault[] => {
    if (step.on === false) return []
    const { label, works, kind } = stepOf(step.kind)
    const fault = (message: string, remedy: string): MotionFault[] => [
      {
        address: `${piece.id}/${step.id}`,
        label: `${piece.name} · ${step.name || label.toLowerCase()}`,
        ...{ motor: null, message, remedy },
      },
    ]
    const wasLine = isLine
    if (kind === 'line') isLine = true
    else if (works === 'areas') isLine = false
    if (works === 'lines' && !wasLine)
      return fault('There is no line here for it to work on.', 'Put a line under it, or move it behind one.')
    if (kind === 'slices' && !hasHeights(step))
      return fault('Its heights are no numbers above 0.', 'Write such as 1 2 1: a quarter, a half, a quarter.')
    if (kind === 'dashes' && isFine(step))
      return fault(
        `Its dashes are very fine: where there are more than ${MOST_DASHES} of them, the line is whole.`,
        'Make dashes and gaps longer.',
      )
    if (kind === 'taper' && step.by === 'pressure' && !(piece.kind === 'path' && piece.pressure.length > 0))
      return fault('The path was not drawn with a pressure.', 'Draw it freehand, or let a curve taper it.')
    return []
  })
}

const hasHeights = ({ by, heights }: OutlineStep) =>
  by !== 'heights' || isMoving(heights) || readHeights(String(heights)) !== null

/** Px of a dash with its gap below which a card can hold more of them than are made. */
const FINE = 2

function isFine(step: OutlineStep): boolean {
  const pattern = ['dash', 'gap', 'dash2', 'gap2'].map((name) => step[name])
  const whole = pattern.reduce<number>((sum, length) => sum + (typeof length === 'number' ? length : FINE), 0)
  return whole > 0 && whole < FINE
}

function linkFaults(card: Card, piece: Piece): MotionFault[] {
  const links = [
    ...fittedTo(piece).map((to) => ['fitTo', 'fits', to, 'bounds'] as const),
    ...(piece.weave ? [['weave', 'woven', piece.weave, 'letters'] as const] : []),
    ...(piece.kind === 'type' && piece.along ? [['along', 'along', piece.along, 'path'] as const] : []),
  ]
  return links.flatMap(([name, words, to, use]): MotionFault[] => {
    const fault = linkFault(card, piece.id, to, use)
    if (!fault) return []
    const other = allPieces(card.pieces).find(({ id }) => id === to)?.name ?? to
    return [
      {
        ...{ address: `${piece.id}/${name}`, label: `${piece.name} · ${words}`, motor: null },
        message: `“${other}” ${LINK_FAULTS[fault]}: it does not count.`,
        remedy: 'Choose another piece, or take it away.',
      },
    ]
  })
}

/** Paths without a line or a curve: the piece's own, and those of its masks. */
function pathFaults(piece: Piece): MotionFault[] {
  const isPoint = (path: unknown) => !isMoving(path as StoredValue) && !/[lhvcsqta]/i.test(String(path))
  const fault = (address: string, label: string, message: string): MotionFault => ({
    ...{ address, label: `${piece.name} · ${label}`, motor: null },
    ...{ message, remedy: 'Draw it again, or add a point.' },
  })
  const own =
    piece.kind === 'path' && isPoint(piece.path)
      ? [fault(`${piece.id}/path`, 'path', 'The path has a single point: nothing of it is seen.')]
      : []
  const masks = piece.masks
    .filter(({ kind, path, on }) => kind === 'path' && on !== false && isPoint(path))
    .map(({ id, name }) => fault(`${piece.id}/${id}`, name || 'mask', 'Its path has a single point: it has no area.'))
  return [...own, ...masks]
}
