import type { TypePiece } from '../card/schema'
import { wordingAt } from '../card/wording'
import { TYPE_PARAMETERS } from '../pieces/type'
import type { PathPlace } from '../type/along-path'
import { AXIS_PARAMETERS } from '../type/axes'
import type { FontBook } from '../type/font-book'
import type { SetRun, TypeFace, TypeSetting } from '../type/setting'
import { RUN_PARAMETERS } from '../type/runs'
import type { Point, Px, Rect, Rgba } from '../units'
import { valuesAt } from '../values/evaluated'
import type { Moment } from '../values/moment'

/** A type piece at a moment as it is set, with a name for all that counts. Throws a WaxError for a font that is not here. */
export function settingOf(
  fonts: FontBook,
  piece: TypePiece,
  at: Moment,
  place: string,
): { face: TypeFace; setting: TypeSetting; size: Px; key: string } {
  const { size, tracking, leading, align, width, wide, least, closest, letterCase, shift, features, ...path } =
    valuesAt(TYPE_PARAMETERS, piece, at)
  const axes = axesAt(piece, at)
  const faceOf = (id: string, where: string): TypeFace => ({
    name: `${id}${JSON.stringify(axes)}`,
    font: fonts.get(id, where).varied(axes),
  })
  const face = faceOf(piece.font, `${place}.font`)
  const fallbacks = piece.fallbacks.map((id, i) => faceOf(id, `${place}.fallbacks[${i}]`))
  const runs = runsAt(piece, at).map(({ font, ...run }, i): SetRun => ({
    ...run,
    face: font === null ? null : faceOf(font, `${place}.runs[${i}].font`),
  }))
  const strand = piece.along === null ? null : (at.along?.(piece.id, at) ?? null)
  const plain = {
    ...{ wording: wordingAt(piece, at), tracking, leading, align },
    ...{ width: width / size, wide, least: least / 100, closest, letterCase, features, shift: shift / 100 },
    pairs: piece.pairs,
  }
  const on = strand && { start: path.start / 100, side: path.pathSide, overflow: path.overflow }
  const key = JSON.stringify([
    face.name,
    plain,
    runs.map(({ face: own, ...run }) => [own?.name, run]),
    fallbacks.map(({ name }) => name),
    on && [strand.key, size, on],
  ])
  const inEm = (one: NonNullable<typeof strand>) => ({
    ...one.strand,
    points: one.strand.points.map((v) => v / size),
  })
  const setting: TypeSetting = {
    ...plain,
    ...{ runs, fallbacks },
    path: on && { ...on, key: strand.key, strand: inEm(strand) },
  }
  return { face, setting, size, key }
}

const axesAt = ({ axes }: TypePiece, at: Moment): Record<string, number> =>
  Object.fromEntries(
    axes.flatMap((axis) => {
      const { on, value } = valuesAt(AXIS_PARAMETERS, axis, at)
      return on ? [[axis.tag, value]] : []
    }),
  )

function runsAt({ runs }: TypePiece, at: Moment) {
  return runs.flatMap((run) => {
    const { on, from, to, size, shift, tracking } = valuesAt(RUN_PARAMETERS, run, at)
    const [first, last] = [Math.round(from) - 1, Math.round(to)]
    return on && last > first
      ? [{ font: run.font, from: first, to: last, size: size / 100, shift: shift / 100, tracking }]
      : []
  })
}

/** The colours of runs, by the place of what was typed; null where none has a colour of its own. */
export function colourRuns(piece: TypePiece, at: Moment): ((unit: number) => Rgba | null) | null {
  const own = piece.runs
    .map((run) => valuesAt(RUN_PARAMETERS, run, at))
    .filter(({ on, coloured, from, to }) => on && coloured && to >= from)
  if (own.length === 0) return null
  return (unit) =>
    own.filter(({ from, to }) => unit >= Math.round(from) - 1 && unit < Math.round(to)).at(-1)?.colour ?? null
}

/** The corners of a letter's box, on its path where it stands on one. */
export function cornersOf({ left, right, top, bottom }: Rect, on: PathPlace | undefined): Point[] {
  const half = (right - left) / 2
  if (!on) {
    return [
      { x: left, y: top },
      { x: right, y: top },
      { x: right, y: bottom },
      { x: left, y: bottom },
    ]
  }
  const at = (along: number, up: number): Point => ({
    x: on.x + along * on.dx + up * on.dy,
    y: on.y + along * on.dy - up * on.dx,
  })
  const height = bottom - top
  return [at(-half, height), at(half, height), at(half, 0), at(-half, 0)]
}
