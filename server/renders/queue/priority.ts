import type { RenderOptions } from '../../../core/formats/deliveries/render-options'

/** What somebody sits and waits for comes before what goes on while they do something else. */
export const PRIORITIES = { soon: 0, later: 1 } as const

/** A still, or a trial of a second or so. */
const SHORT = 30

/** `shown`: frames that have to be made. */
export const priorityOf = ({ format }: Pick<RenderOptions, 'format'>, shown: number): number =>
  format === 'still' || shown <= SHORT ? PRIORITIES.soon : PRIORITIES.later

/** The queue's name of the last job of a render. Those that are waited for have lanes of their own. */
export const pressTask = (priority: number): string => (priority === PRIORITIES.soon ? 'press-soon' : 'press')
