import { parseArgs } from 'node:util'
import { closeLoop } from '../core/edit/close-loop'
import { WaxError } from '../core/errors'
import type { FramePicture } from '../core/frame/engine'
import { motionFaults } from '../core/judge/motion-faults'
import { pictureDifference, ringDifference } from '../core/judge/ring-difference'
import type { SeamEntry } from '../core/judge/seam'
import { seamReport } from '../core/judge/seam'
import { openCard } from './card-file'
import { engineFor, FILE_OPTIONS } from './engine'

const OPTIONS = {
  json: { type: 'boolean', default: false },
  width: { type: 'string', default: '320' },
  ...FILE_OPTIONS,
} as const

/** `wax loop CARD`: the seam of every moving value, and the picture differences round the ring. */
export async function loop(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: OPTIONS })
  const opened = await openCard(positionals[0])
  const { card } = opened
  const scale = Math.min(1, Number(values.width) / card.frame.width)
  if (!(scale > 0)) throw new WaxError('not-a-number', '--width', 'A width in px is expected.', 'Write it as 320.')
  const withEngine = await engineFor(opened, values)

  const pictureAt = (frame: number) => withEngine((engine) => engine.render(card, frame, { scale }))
  const first = await pictureAt(0)
  const steps: number[] = []
  let before: FramePicture = first
  for (let frame = 1; frame <= card.length; frame++) {
    const picture = frame === card.length ? first : await pictureAt(frame)
    steps.push(pictureDifference(before, picture).mean)
    before = picture
  }
  const report = {
    length: card.length,
    parameters: seamReport(card),
    faults: motionFaults(card),
    close: (({ changes, left }) => ({ changes, left }))(closeLoop(card)),
    pictures: ringDifference(steps),
  }
  if (values.json)
    console.log(JSON.stringify(report, (_, value: unknown) => (typeof value === 'number' ? tidy(value) : value)))
  else print(report)
  return report.parameters.some(({ verdict }) => verdict === 'jump') ? 1 : 0
}

const tidy = (value: number) => Math.round(value * 1e5) / 1e5

function print({
  parameters,
  faults,
  pictures,
}: {
  parameters: SeamEntry[]
  faults: ReturnType<typeof motionFaults>
  pictures: ReturnType<typeof ringDifference>
}) {
  for (const { label, verdict, value, speed, why } of parameters) {
    const jump = verdict === 'jump' ? `, jumps by ${tidy(value.jump)}` : ''
    const turn = verdict === 'turn' ? `, speed ${tidy(speed.before)} → ${tidy(speed.after)} a frame` : ''
    console.log(`${verdict.padEnd(6)} ${label}${jump}${turn}${why.length > 0 ? `: ${why.join('; ')}` : ''}`)
  }
  for (const { label, message } of faults) console.log(`fault  ${label}: ${message}`)
  const { seam, largest, shows } = pictures
  console.log(
    `Pictures differ by ${tidy(seam)} of 255 across the seam, by at most ${tidy(largest.step)} elsewhere (after frame ${largest.frame}): ` +
      (shows ? 'the seam shows.' : 'the seam does not show.'),
  )
}
