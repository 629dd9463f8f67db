import { bevelHeight } from '../coats/bevel'
import { even } from '../coats/definition'
import type { Canvas } from './canvas'
import { EdgeField } from './edge-field'
import { boxesFor } from './grid-box'
import { laidCoats } from './laid-coats'
import { OutlineTools } from './outline-tools'
import type { Drawing, Standing } from './piece'
import { formOf } from './form'
import { settingOf } from './piece'

/** Heights of a bevel along the middle row of the canvas, in px; null where it is off. */
export function heightRow(drawing: Drawing, standing: Standing, canvas: Canvas, id: string): number[] | null {
  const coat = laidCoats(standing.piece, standing.at).find((laid) => laid.id === id)
  const form = formOf(drawing, standing, 'piece')
  if (!coat || !form) return null
  const { kernels, shelf } = drawing
  const measures = coat.definition.measures!(coat.values, form.scale, coat.place)
  const reach = coat.definition.reach(coat.values, form.scale, coat.place)
  const margin = reach.left
  const box = boxesFor(form.bounds, reach, margin, canvas.box, drawing.world)?.box
  const fieldBox = boxesFor(form.bounds, even(measures), Math.max(measures, margin), canvas.box, drawing.world)?.box
  if (!box || !fieldBox) return null
  const field = new EdgeField(kernels, shelf, form, fieldBox, measures, false)
  const tools = new OutlineTools(settingOf(drawing, standing, form), box, () => 0, form, field)
  const plane = tools.plane(bevelHeight(coat.values, tools))
  const row = Math.floor(canvas.box.h / 2) - box.y
  return [...kernels.floats(kernels.cropped(plane, -box.x, row, canvas.box.w, 1))]
}
