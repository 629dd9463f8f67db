import type { Rect } from '../../units'
import { SAFE_AREAS, safeRect } from '../safe-areas'
import { seamReport } from '../seam'
import { readAloud, readingTime, wordsIn } from '../measures/reading'
import { perSecond } from '../../values/rate'
import { R103_AREA } from '../measures/video-levels'
import type { ProofCheck, ProofFinding } from './definition'
import { foundOr, good, NO_SOURCE } from './definition'
import { PLAIN_GROUNDS } from './grounds'
import type { RowCheck } from '../row/definition'
import type { Looked, LookedMoment, LookedRow, LookedType } from './look'

/** Height of capitals at 1080 lines: below the first it is hard to read on a small set, below the second nobody does. */
const SMALL_CAPS = { look: 20, bad: 14 }
/** The widest stem at 1080 lines, in px: thinner letters break up. */
const THIN_STEM = 2
/** WCAG 2.2, 1.4.3: for large type, which all of a title is. */
const LARGE_TYPE = 3
/** A band that the eye finds in a soft part, in px. In a slow ramp the longest of a dithered one is chance: half of the plain one. */
const LONG_BAND = 32
/** Share of edges with a rim from which it shows. */
const RIMMED = 0.02

const percent = (share: number) => `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`

export const PROOF_CHECKS: readonly ProofCheck[] = [
  {
    id: 'missing',
    label: 'Fonts, pictures and glyphs',
    how: 'All that the card names is here, and its fonts have every letter',
    source: 'What the engine finds',
    judge: ({ missing, moments, rows }) => {
      const glyphs = moments.flatMap(({ frame, outlook }) =>
        outlook.flatMap(({ id, type }): ProofFinding[] =>
          type && type.missing.length > 0
            ? [
                {
                  ...{ piece: id, frame, remedy: 'Choose a fallback font that has them.' },
                  message: `Its font has no ${type.missing.slice(0, 8).join(' ')}`,
                },
              ]
            : [],
        ),
      )
      const gone = missing.map(({ message, remedy }): ProofFinding => ({ piece: null, frame: null, message, remedy }))
      return foundOr(
        [...gone, ...once(glyphs), ...inRows(rows, 'glyphs'), ...inRows(rows, 'render')],
        'bad',
        'not complete',
        'all here',
      )
    },
  },
  {
    id: 'overflow',
    label: 'Type within its room',
    how: 'Words that do not fit their box, or leave the frame; those of rows also beside the bar, mask and title area of the design',
    source: 'What the engine finds',
    judge: ({ card, moments, rows, rowCount }) => {
      const frame = safeRect(card.frame, 1)
      const found = moments.flatMap((moment) =>
        visibleTypes(moment.types).flatMap(({ piece }): ProofFinding[] => {
          const entry = moment.outlook.find(({ id }) => id === piece.id)
          if (entry?.type?.overflows)
            return [at(piece.id, moment.frame, 'Its words do not fit.', 'Fit them to the width, or make them smaller.')]
          if (entry && !within(entry.bounds, frame))
            return [at(piece.id, moment.frame, 'It reaches beyond the frame.', 'Move it in, or make it smaller.')]
          return []
        }),
      )
      const all = [...once(found), ...inRows(rows, 'overflow')]
      const fits = rowCount > 0 ? `all fits, in ${rowCount} ${rowCount === 1 ? 'row' : 'rows'} too` : 'all fits'
      return foundOr(all, 'bad', `${all.length} without room`, fits)
    },
  },
  {
    id: 'safe',
    label: 'Safe areas',
    how: 'Bounds of type in the hold against the title area, of all else against the action area',
    source: 'SMPTE ST 2046-1, EBU R 95: 90 % and 93 % of the frame',
    judge: ({ card, moments }) => {
      const [action, title] = SAFE_AREAS.map(({ share }) => safeRect(card.frame, share)) as [Rect, Rect]
      const frame = safeRect(card.frame, 1)
      const found = moments.flatMap((moment) => {
        const types = new Set(visibleTypes(moment.types).map(({ piece }) => piece.id))
        return moment.outlook.flatMap(({ id, type, bounds }): ProofFinding[] => {
          if (bounds.right <= bounds.left || (type && !types.has(id))) return []
          if (type && !within(bounds, title)) {
            return [at(id, moment.frame, 'It stands outside the title area.', 'Move it in: older sets cut it off.')]
          }
          // What bleeds over the edge is meant to.
          const bleeds = !within(bounds, frame)
          return type || bleeds || within(bounds, action)
            ? []
            : [at(id, moment.frame, 'It stands outside the action area.', 'Move it in, or let it run over the edge.')]
        })
      })
      const own = once(found)
      const isType = own.some(({ piece }) => moments.some(({ types }) => types.some((type) => type.piece.id === piece)))
      return foundOr(own, isType ? 'bad' : 'look', `${own.length} outside`, 'all inside')
    },
  },
  {
    id: 'contrast',
    label: 'Contrast of type',
    how: 'Letters against what is seen close around them, over black, mid grey, white and what was brought to look against, in the hold',
    source: 'WCAG 2.2, 1.4.3: 3 : 1 for large type',
    judge: ({ moments, grounds }) => {
      const pieces = piecesOf(moments.flatMap(({ types }) => visibleTypes(types)))
      const found = pieces.flatMap(({ piece, worst }): ProofFinding[] => {
        const over = grounds.flatMap(({ label }, i) =>
          isUnread(worst[i]) ? [`${worst[i]!.toFixed(1)} : 1 over ${label}`] : [],
        )
        if (over.length === 0) return []
        return [at(piece.id, null, `${over.join(', ')}.`, 'Give it a bar, a stroke or a shadow.')]
      })
      // What is read over two of three plain grounds needs a look at the footage that it is for; over that it must be read.
      const plain = PLAIN_GROUNDS.length
      const unread = pieces.filter(
        ({ worst }) => worst.slice(0, plain).filter(isUnread).length > 1 || worst.slice(plain).some(isUnread),
      )
      const ratios = moments.flatMap(({ types }) =>
        visibleTypes(types).flatMap(({ contrast }) => contrast.flatMap((ratio) => ratio ?? [])),
      )
      const least = Math.min(21, ...ratios)
      const mean = ratios.reduce((sum, ratio) => sum + ratio, 0) / ratios.length
      const said = ratios.length > 0 ? `${least.toFixed(1)} : 1 at worst, ${mean.toFixed(1)} : 1 on average` : 'no type'
      return foundOr(found, unread.length > 0 ? 'bad' : 'look', said, said)
    },
  },
  {
    id: 'size',
    label: 'Size of type',
    how: 'Height of the smallest capitals, and the widest stem, at 1080 lines',
    source: NO_SOURCE,
    judge: ({ card, moments }) => {
      const lines = 1080 / card.frame.height
      const sizes = moments.flatMap((moment) =>
        visibleTypes(moment.types).map(({ piece, depth }) => {
          const entry = moment.outlook.find(({ id }) => id === piece.id)!
          const { scale } = entry.placement
          return { piece, frame: moment.frame, caps: entry.reference * scale * lines, stem: 2 * depth * scale * lines }
        }),
      )
      if (sizes.length === 0) return good('no type')
      const found = sizes.flatMap(({ piece, frame, caps, stem }): ProofFinding[] => {
        if (caps < SMALL_CAPS.look)
          return [
            at(
              piece.id,
              frame,
              `Its capitals are ${caps.toFixed(0)} px high.`,
              `Make them ${SMALL_CAPS.look} px or more.`,
            ),
          ]
        if (stem < THIN_STEM)
          return [at(piece.id, frame, `Its stems are ${stem.toFixed(1)} px wide.`, 'Choose a bolder font.')]
        return []
      })
      const least = Math.min(...sizes.map(({ caps }) => caps))
      return foundOr(
        once(found),
        least < SMALL_CAPS.bad ? 'bad' : 'look',
        `capitals of ${least.toFixed(0)} px`,
        `capitals of ${least.toFixed(0)} px`,
      )
    },
  },
  {
    id: 'reading',
    label: 'Time to read',
    how: 'Seconds in which the words stand fully seen, against two readings aloud',
    source: NO_SOURCE,
    judge: ({ card, hold, moments }) => {
      const wordings = new Map(
        moments.flatMap(({ types }) => visibleTypes(types).map(({ piece, wording }) => [piece.id, wording])),
      )
      const total = (of: (wording: string) => number) => [...wordings.values()].reduce((sum, one) => sum + of(one), 0)
      const words = total(wordsIn)
      const seen = (hold.to - hold.from) / perSecond(card.rate)
      const needed = readingTime(total(readAloud))
      const said = `${words} words, ${needed.toFixed(1)} s of ${seen.toFixed(1)} s`
      if (seen >= needed) return good(said)
      const finding = at(
        null,
        hold.from,
        `The hold lasts ${seen.toFixed(1)} s; two readings take ${needed.toFixed(1)} s.`,
        'Hold it longer, or say less.',
      )
      return { verdict: seen < needed / 2 ? 'bad' : 'look', said, findings: [finding] }
    },
  },
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
    how: 'The longest band of one value in soft parts, at 8 bits, rounded and dithered',
    source: 'Closed ramps',
    judge: ({ moments }) => {
      const plain = Math.max(0, ...moments.map(({ bands }) => bands.plain.length))
      const worst = worstOf(moments, ({ bands }) => bands.dithered.length)
      const length = worst?.bands.dithered.length ?? 0
      const said = `${length} px dithered, ${plain} px without`
      if (length <= Math.max(LONG_BAND, plain / 2)) return good(said)
      return {
        verdict: 'look',
        said,
        findings: [
          at(
            null,
            worst!.frame,
            `A band of ${length} px stands in row ${worst!.bands.dithered.row}.`,
            'Deliver 16 bits, or add a little grain.',
          ),
        ],
      }
    },
  },
  {
    id: 'lines',
    label: 'Thin lines',
    how: 'Horizontal lines one pixel high, which flicker when interlaced',
    source: NO_SOURCE,
    judge: ({ moments }) => {
      const found = moments.flatMap(({ frame, lines: [line] }): ProofFinding[] =>
        line
          ? [
              at(
                null,
                frame,
                `A line one pixel high stands in row ${line.y}.`,
                'Make it two pixels high, on whole pixels.',
              ),
            ]
          : [],
      )
      return foundOr(found.slice(0, 1), 'look', 'lines of one pixel', 'none')
    },
  },
  {
    id: 'flashes',
    label: 'Flashes',
    how: 'General and red flashes within any second, over mid grey',
    source: 'WCAG 2.2, 2.3.1: three at the most',
    judge: ({ flashes: { general, red, from } }) => {
      const most = Math.max(general, red)
      const said = most === 0 ? 'none' : `${most} in a second at most`
      if (most <= 3) return good(said)
      return {
        verdict: 'bad',
        said,
        findings: [
          at(
            null,
            from,
            `${most} ${red > general ? 'red ' : ''}flashes within a second.`,
            'Flash less often, less brightly, or on a smaller part of the picture.',
          ),
        ],
      }
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
      return {
        verdict: 'look',
        said,
        findings: [
          at(
            null,
            worst!.frame,
            `${area.toFixed(1)} % of the picture is more saturated than composite video carries.`,
            'Take saturation out, if it goes on air that way.',
          ),
        ],
      }
    },
  },
  {
    id: 'seam',
    label: 'Seam',
    how: 'What every moving value does from the last frame to the first, and how much the pictures differ',
    source: 'The loop’s own steps',
    judge: ({ card, ring }) => {
      const jumps = seamReport(card).filter(({ verdict }) => verdict === 'jump')
      const findings = jumps.map(({ address, label, why }) =>
        at(
          address.split('/')[0] ?? null,
          card.length - 1,
          `${label} jumps.${why.length > 0 ? ` ${why.join('; ')}.` : ''}`,
          'Close the loop on the ribbon.',
        ),
      )
      if (findings.length > 0) return { verdict: 'bad', said: `${findings.length} values jump`, findings }
      if (ring?.shows) {
        return {
          verdict: 'look',
          said: 'the picture jumps',
          findings: [
            at(
              null,
              card.length - 1,
              'The step over the seam is larger than any other.',
              'Look at the frames around the seam.',
            ),
          ],
        }
      }
      return good('closed')
    },
  },
]

const at = (piece: string | null, frame: number | null, message: string, remedy: string): ProofFinding => ({
  piece,
  frame,
  message,
  remedy,
})

/** What was found of one kind in the rows of a roster. */
const inRows = (rows: readonly LookedRow[], kind: RowCheck): ProofFinding[] =>
  rows.flatMap(({ id, title, flags }) =>
    flags
      .filter(({ check }) => check === kind)
      .map(({ piece, frame, message, remedy }) => ({
        ...at(piece, frame, `“${title}”: ${message}`, remedy),
        row: id,
      })),
  )

/** The moment with the most of something. */
const worstOf = (moments: readonly LookedMoment[], of: (moment: LookedMoment) => number): LookedMoment | undefined =>
  moments.reduce<LookedMoment | undefined>((most, one) => (most && of(most) >= of(one) ? most : one), undefined)

/** Each piece once, at the first frame where it was found. */
function once(findings: readonly ProofFinding[]): ProofFinding[] {
  const known = new Set<string>()
  return findings.filter(({ piece, message }) => {
    const key = piece ?? message
    return known.has(key) ? false : Boolean(known.add(key))
  })
}

const within = (inner: Rect, outer: Rect): boolean =>
  inner.left >= outer.left - 0.5 &&
  inner.right <= outer.right + 0.5 &&
  inner.top >= outer.top - 0.5 &&
  inner.bottom <= outer.bottom + 0.5

/** Type that stands there to be read, not such that fades. */
const visibleTypes = (types: readonly LookedType[]) => types.filter(({ strongest }) => strongest > 0.8)

const isUnread = (ratio: number | null | undefined) => (ratio ?? 21) < LARGE_TYPE

/** The worst contrast of each piece over each ground. */
function piecesOf(types: readonly LookedType[]): { piece: LookedType['piece']; worst: (number | null)[] }[] {
  const pieces = new Map<string, { piece: LookedType['piece']; worst: (number | null)[] }>()
  for (const { piece, contrast } of types) {
    const before = pieces.get(piece.id)?.worst
    const worst = contrast.map((ratio, i) =>
      ratio === null ? (before?.[i] ?? null) : Math.min(ratio, before?.[i] ?? 21),
    )
    pieces.set(piece.id, { piece, worst })
  }
  return [...pieces.values()]
}

/** All lines of the sheet. */
export const judged = (looked: Looked) =>
  PROOF_CHECKS.map(({ id, label, source, judge }) => ({ check: id, label, source, ...judge(looked) }))
