import type { FinishBench } from '../finishes/definition'
import { rowsOf } from '../finishes/strips'
import type { Kernels, Picture, PlaceWindow } from '../kernels/kernels'
import { common } from './grid-box'
import type { LaidFinish } from './laid-finishes'

// Carries finishes out, one after the other. Point operations in a row are worked strip by strip, so that memory is gone
// through once for the whole run.

/** A finish with its bench. */
interface ReadyFinish {
  finish: LaidFinish
  bench: FinishBench
}

/**
 * Works finishes on a picture; what comes out fills `dst`, which lies in the same box and may be the same memory where all are
 * point operations. Each bench is made when its finish begins. `neededFor` gives the part of what comes out that is looked at by
 * those that work later, and by whoever asked: beyond it point operations leave undefined what they fill.
 */
export function workFinishes(
  kernels: Kernels,
  finishes: readonly LaidFinish[],
  benchOf: (finish: LaidFinish) => FinishBench,
  src: Picture,
  dst: Picture,
  neededFor: (later: readonly LaidFinish[]) => PlaceWindow = () => src.box,
): void {
  const stages = stagesOf(finishes)
  const mark = kernels.mark()
  const other: Picture | null = stages.length > 1 ? { ...kernels.layers(src.w, src.h, false), box: src.box } : null
  let from = src
  stages.forEach((stage, i) => {
    // The last stage fills `dst`; those before it take turns.
    const into = (stages.length - 1 - i) % 2 === 0 ? dst : other!
    const inner = kernels.mark()
    const ready = stage.map((finish) => ({ finish, bench: benchOf(finish) }))
    const part = common(neededFor(stages.slice(i + 1).flat()), src.box)
    if (stage[0]!.definition.rows)
      workRows(kernels, ready, windowOf(kernels, from, part), windowOf(kernels, into, part))
    else workWhole(kernels, ready[0]!, from, into)
    kernels.release(inner)
    from = into
  })
  kernels.release(mark)
}

const windowOf = (kernels: Kernels, picture: Picture, box: PlaceWindow): Picture => ({
  ...kernels.window(picture, box.x - picture.box.x, box.y - picture.box.y, box.w, box.h),
  box,
})

/** Whether a run of finishes can be worked where it lies. */
export const inPlace = (finishes: readonly LaidFinish[]): boolean =>
  finishes.every(({ definition }) => definition.rows !== undefined)

/** Point operations in a row together, all others alone. */
function stagesOf(finishes: readonly LaidFinish[]): LaidFinish[][] {
  const stages: LaidFinish[][] = []
  for (const finish of finishes) {
    const last = stages.at(-1)
    if (finish.definition.rows && last?.[0]!.definition.rows) last.push(finish)
    else stages.push([finish])
  }
  return stages
}

function workRows(kernels: Kernels, stage: readonly ReadyFinish[], src: Picture, dst: Picture): void {
  const works = stage.map(({ finish: { definition, values, strength }, bench }) => ({
    ...{ work: definition.rows!(values, bench), strength },
  }))
  const strips = [...rowsOf(kernels, dst)]
  const mixed = works.some(({ strength }) => strength < 1)
  const before = mixed ? kernels.layers(dst.w, strips[0]?.h ?? 0, false) : null
  for (const rows of strips) {
    if (src.at !== dst.at) kernels.copy(kernels.window(src, 0, rows.box.y - src.box.y, src.w, rows.h), rows)
    for (const { work, strength } of works) {
      const kept = strength < 1 ? kernels.window(before!, 0, 0, rows.w, rows.h) : null
      if (kept) kernels.copy(rows, kept)
      work(rows)
      if (kept) kernels.mixRows(kept, rows, strength)
    }
  }
}

function workWhole(kernels: Kernels, { finish, bench }: ReadyFinish, src: Picture, dst: Picture): void {
  const { definition, values, strength } = finish
  definition.work!(values, bench, src, dst)
  if (strength < 1) kernels.mixRows(src, dst, strength)
}
