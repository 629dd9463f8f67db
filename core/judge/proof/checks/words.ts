import { readAloud, readingTime, wordsIn } from '../../measures/reading'
import { perSecond } from '../../../values/rate'
import { standing } from '../course'
import type { ProofCheck, ProofFinding } from '../definition'
import { foundOr, good, NO_SOURCE } from '../definition'
import { PLAIN_GROUNDS } from '../grounds'
import type { LetterContrast } from '../legibility'
import { isUnread, LARGE_TYPE, leastOf } from '../legibility'
import type { Frames } from '../../../units'
import type { Looked } from '../look'
import type { LookedMoment, LookedType } from '../moment'
import { at, once } from './findings'

// Whether the words are read.

/** Height of capitals at 1080 lines: below the first it is hard to read on a small set, below the second nobody does. */
const SMALL_CAPS = { look: 20, bad: 14 }
/** The widest stem at 1080 lines, in px: thinner letters break up. */
const THIN_STEM = 2

export const WORD_CHECKS: readonly ProofCheck[] = [
  {
    id: 'contrast',
    label: 'Contrast of type',
    how: 'Each letter against what is seen close around it, over black, mid grey, white and what was brought to look against, at the moments of the hold that differ most',
    source: 'WCAG 2.2, 1.4.3: 3 : 1 for large type',
    judge: ({ moments, grounds }) => {
      const seen = standingTypes(moments)
      const pieces = worstOfPieces(seen)
      const found = pieces.flatMap(({ piece, worst }): ProofFinding[] => {
        const over = grounds.flatMap(({ label }, i) => unreadOver(worst[i], label))
        if (over.length === 0) return []
        const first = Math.min(...worst.flatMap((one) => (one && isUnread(one) ? one.frame : [])))
        return [at(piece.id, first, `${over.join(', ')}.`, 'Give it a bar, a stroke or a shadow.')]
      })
      // What is read over two of three plain grounds needs a look at the footage that it is for; over that it must be read.
      const plain = PLAIN_GROUNDS.length
      const isBad = pieces.some(
        ({ worst }) => worst.slice(0, plain).filter(isUnread).length > 1 || worst.slice(plain).some(isUnread),
      )
      const ratios = seen.flatMap(({ contrast }) => contrast.flatMap((one) => one ?? []))
      const least = Math.min(21, ...ratios.map((one) => leastOf(one).ratio))
      const mean = ratios.reduce((sum, { whole }) => sum + whole, 0) / ratios.length
      const said = ratios.length > 0 ? `${least.toFixed(1)} : 1 at worst, ${mean.toFixed(1)} : 1 on average` : 'no type'
      return foundOr(found, isBad ? 'bad' : 'look', said, said)
    },
  },
  {
    id: 'size',
    label: 'Size of type',
    how: 'Height of the smallest capitals, and the widest stem, at 1080 lines',
    source: NO_SOURCE,
    judge: ({ card, moments }) => {
      const lines = 1080 / card.frame.height
      const sizes = standingTypes(moments).map(({ piece, depth, moment: { frame, outlook } }) => {
        const entry = outlook.find(({ id }) => id === piece.id)!
        const { scale } = entry.placement
        return { piece, frame, caps: entry.reference * scale * lines, stem: 2 * depth * scale * lines }
      })
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
    how: 'Seconds of the hold in which the words stand fully seen, all together and each piece by itself, against two readings aloud',
    source: NO_SOURCE,
    judge: ({ card, hold, course }) => {
      const rate = perSecond(card.rate)
      const pieces = wordsOfHold({ course, hold })
      const all = new Set(pieces.flatMap(({ stands }) => [...stands]))
      const total = (of: (wording: string) => number) => pieces.reduce((sum, { wording }) => sum + of(wording), 0)
      const seen = all.size / rate
      const needed = readingTime(total(readAloud))
      const said = `${total(wordsIn)} words, ${needed.toFixed(1)} s of ${seen.toFixed(1)} s`
      const short = pieces.flatMap(({ id, wording, frames, changes }) => {
        // Numbers that run are watched; of other words that change each is read by itself.
        const takes = changes ? (/\p{L}/u.test(wording) ? 2 * readAloud(wording) : 0) : readingTime(readAloud(wording))
        const own = frames.size / rate
        return own < takes ? [{ id, from: Math.min(...frames), own, takes }] : []
      })
      const isWhole = pieces.every(({ stands }) => stands.size === all.size)
      if (seen >= needed && short.length === 0) return good(said)
      const findings = [
        ...(seen < needed
          ? [
              at(
                null,
                hold.from,
                `${all.size < hold.to - hold.from ? 'The words stand for' : 'The hold lasts'} ${seen.toFixed(1)} s; two readings take ${needed.toFixed(1)} s.`,
                'Hold it longer, or say less.',
              ),
            ]
          : []),
        // Words that stand as long as all the others are told of with them.
        ...(isWhole && seen < needed ? [] : short).map(({ id, from, own, takes }) =>
          at(
            id,
            from,
            `It is seen for ${own.toFixed(1)} s; two readings take ${takes.toFixed(1)} s.`,
            'Let it stand longer, or say less.',
          ),
        ),
      ]
      const isBad = seen < needed / 2 || short.some(({ own, takes }) => own < takes / 2)
      return { verdict: isBad ? 'bad' : 'look', said, findings }
    },
  },
]

/** Words of the hold. */
interface HoldWords {
  id: string
  /** The one that stands longest, and the frames in which it does. */
  wording: string
  frames: ReadonlySet<Frames>
  /** The frames in which any does. */
  stands: ReadonlySet<Frames>
  /** Whether there are others. */
  changes: boolean
}

function wordsOfHold({ course, hold }: Pick<Looked, 'course' | 'hold'>): HoldWords[] {
  const all = course
    .slice(hold.from, hold.to)
    .flatMap(({ frame, pieces }) => pieces.flatMap(({ opacity, type }) => (type ? [{ frame, opacity, ...type }] : [])))
  const wordings = new Map<string, Map<string, Set<Frames>>>()
  for (const { piece, wording, frame } of standing(
    all,
    (one) => one.piece.id,
    ({ opacity }) => opacity,
  )) {
    const own = wordings.get(piece.id) ?? new Map<string, Set<Frames>>()
    wordings.set(piece.id, own.set(wording, (own.get(wording) ?? new Set()).add(frame)))
  }
  return [...wordings].flatMap(([id, own]) => {
    const [[wording, frames]] = [...own].sort((a, b) => b[1].size - a[1].size) as [[string, Set<Frames>]]
    return readAloud(wording) === 0
      ? []
      : [{ id, wording, frames, stands: new Set([...own.values()].flatMap((one) => [...one])), changes: own.size > 1 }]
  })
}

/** Type that stands there to be read, not such that fades: each piece as strong as it gets at any moment. */
const standingTypes = (moments: readonly LookedMoment[]) =>
  standing(
    moments.flatMap((moment) => moment.types.map((type) => ({ ...type, moment }))),
    ({ piece }) => piece.id,
    ({ strongest }) => strongest,
  )

/** What was found at a moment, and the letters of that moment. */
interface Worst extends LetterContrast {
  frame: number
  texts: readonly string[]
}

/** Says how little there is over a ground, and at which letter where the others are read. */
function unreadOver(contrast: Worst | null | undefined, label: string): string[] {
  if (!contrast || !isUnread(contrast)) return []
  const { ratio, letter } = leastOf(contrast)
  const where = contrast.whole >= LARGE_TYPE && letter !== null ? ` at “${contrast.texts[letter]}”` : ''
  return [`${ratio.toFixed(1)} : 1 over ${label}${where}`]
}

/** The worst contrast of each piece over each ground. */
function worstOfPieces(
  types: readonly (LookedType & { moment: LookedMoment })[],
): { piece: LookedType['piece']; worst: (Worst | null)[] }[] {
  const pieces = new Map<string, { piece: LookedType['piece']; worst: (Worst | null)[] }>()
  for (const { piece, contrast, letters: texts, moment } of types) {
    const before = pieces.get(piece.id)?.worst
    const worst = contrast.map((one, i) => {
      const known = before?.[i] ?? null
      const isWorse = one && (!known || leastOf(one).ratio < leastOf(known).ratio)
      return isWorse ? { ...one, texts, frame: moment.frame } : known
    })
    pieces.set(piece.id, { piece, worst })
  }
  return [...pieces.values()]
}
