import type { ThinLine } from '../../measures/thin-lines'
import { R103_AREA } from '../../measures/video-levels'
import type { ProofCheck, ProofFinding, ProofResult } from '../definition'
import { foundOr, good, NO_SOURCE } from '../definition'
import type { LookedMoment } from '../moment'
import { at, percent, worstOf } from './findings'

// What is seen in single pictures, whatever they show.

/** A band that the eye finds in a soft part, in px. In a slow ramp the longest of a dithered one is chance: half of the plain one. */
const LONG_BAND = 32
/** Share of edges with a rim from which it shows. */
const RIMMED = 0.02

/** What a person is asked to look at, in the moment that shows it most. */
const lookAtIt = (said: string, { frame }: LookedMoment, message: string, remedy: string): ProofResult => ({
  ...{ verdict: 'look', said },
  findings: [at(null, frame, message, remedy)],
})

const said = ({ height }: ThinLine) => String(Math.round(height * 10) / 10)

export const PICTURE_CHECKS: readonly ProofCheck[] = [
  {
    id: 'halo',
    label: 'Halo',
    how: 'Hard edges whose rim is lighter or darker than the shape',
    source: NO_SOURCE,
    judge: ({ moments }) => {
      const found = moments.flatMap(({ frame, fringes: { edges, light, dark } }): ProofFinding[] => {
        const share = (light + dark) / Math.max(1, edges)
        if (share < RIMMED) return []
        const which =
          light > dark ? 'light rim, which shows over dark footage' : 'dark rim, which shows over bright footage'
        return [
          at(
            null,
            frame,
            `${percent(share)} of the edges have a ${which}.`,
            'Look at thin strokes and at pictures whose alpha was taken wrongly.',
          ),
        ]
      })
      return foundOr(found, 'look', 'a rim shows', 'no rim')
    },
  },
  {
    id: 'banding',
    label: 'Banding',
    how: 'The longest band of one value in soft parts, along rows and columns, at 8 bits, rounded and dithered',
    source: 'Closed ramps',
    judge: ({ moments }) => {
      const plain = Math.max(0, ...moments.map(({ bands }) => bands.plain.length))
      const worst = worstOf(moments, ({ bands }) => bands.dithered.length)
      const length = worst?.bands.dithered.length ?? 0
      const said = `${length} px dithered, ${plain} px without`
      if (length <= Math.max(LONG_BAND, plain / 2)) return good(said)
      const { along, at: line } = worst!.bands.dithered
      return lookAtIt(
        said,
        worst!,
        `A band of ${length} px stands in ${along} ${line}.`,
        'Deliver 16 bits, or add a little grain.',
      )
    },
  },
  {
    id: 'lines',
    label: 'Thin lines',
    how: 'Horizontal lines less than two pixels high, which flicker when interlaced',
    source: NO_SOURCE,
    judge: ({ moments }) => {
      const found = moments.flatMap(({ frame, lines: [line] }): ProofFinding[] =>
        line
          ? [
              at(
                null,
                frame,
                `A line ${said(line)} px high stands in row ${line.y}.`,
                'Make it two pixels high, on whole pixels.',
              ),
            ]
          : [],
      )
      return foundOr(found.slice(0, 1), 'look', 'thinner than two pixels', 'none')
    },
  },
  {
    id: 'levels',
    label: 'Colours for video',
    how: 'Pixels whose colours are stronger than older transmission takes; integers never leave the legal range',
    source: 'EBU R 103: 1 % of the picture; limits of composite video: common practice, no published source',
    judge: ({ moments }) => {
      const worst = worstOf(moments, ({ beyondComposite }) => beyondComposite)
      const area = worst?.beyondComposite ?? 0
      const said = `${area.toFixed(1)} % of the picture beyond`
      if (area <= R103_AREA) return good(said)
      const message = `${area.toFixed(1)} % of the picture is more saturated than composite video carries.`
      return lookAtIt(said, worst!, message, 'Take saturation out, if it goes on air that way.')
    },
  },
]
