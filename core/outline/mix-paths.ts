import { readPathData } from './svg-path'
import { Kept } from '../kept'
import type { PathCommand } from './contour'

const kept = new Kept<string, readonly PathCommand[]>(200)

const commandsOf = (text: string): readonly PathCommand[] => kept.of(text, () => readPathData(text, 'path'))

/** Whether two paths have the same commands, so that one can become the other point by point. */
export function canMixPaths(from: string, to: string): boolean {
  const [a, b] = [commandsOf(from), commandsOf(to)]
  return a.length === b.length && a.every(({ type }, i) => type === b[i]!.type)
}

/** SVG path data between two paths, to 1/10,000 of a unit; null where their commands differ. */
export function mixPaths(from: string, to: string, progress: number): string | null {
  if (!canMixPaths(from, to)) return null
  const [a, b] = [commandsOf(from), commandsOf(to)]
  return a
    .map((command, i) => {
      // A command of the same type: it has the same numbers.
      const other = b[i] as unknown as Record<string, number>
      const values = Object.entries(command)
        .filter(([name]) => name !== 'type')
        .map(([name, v]) => Math.round(((v as number) + (other[name]! - (v as number)) * progress) * 1e4) / 1e4 + 0)
      return [command.type, ...values].join(' ')
    })
    .join(' ')
}
