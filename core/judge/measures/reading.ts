// How long words take. Common practice, no published source: long enough to read them aloud twice, at 150 words a minute.

const WORDS_A_SECOND = 150 / 60

/**
 * Characters a second of scripts without spaces between words, read aloud: Chinese 255 a minute, Japanese 357 (S. Trauzettel-Klosinski,
 * K. Dietz, Standardized assessment of reading performance: the IReST, 2012; figures from memory).
 */
const CHARACTERS_A_SECOND = { chinese: 255 / 60, japanese: 357 / 60 }

const CHARACTERS = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}ー々]+/gu
const KANA = /[\p{Script=Hiragana}\p{Script=Katakana}]/u
/** Written without spaces, and read by words all the same. */
const UNSPACED = /[\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]+/gu
const SPACED = /[\p{L}\p{N}][\p{L}\p{N}\p{M}'’.]*/gu

const found = (text: string, pattern: RegExp): string[] => text.match(pattern) ?? []
const withoutSpaceless = (text: string) => text.replace(CHARACTERS, ' ').replace(UNSPACED, ' ')

/** Words of runs without spaces, by the Unicode Standard Annex #29 and the dictionaries of the platform. */
const segmented = (runs: readonly string[]): number =>
  runs.reduce(
    (sum, run) => sum + [...new Intl.Segmenter(undefined, { granularity: 'word' }).segment(run)].filter(isWord).length,
    0,
  )
const isWord = ({ isWordLike }: Intl.SegmentData) => isWordLike === true

/** Words as they are counted: what spaces and dashes part, and the words of scripts that have no spaces. */
export const wordsIn = (text: string): number =>
  found(withoutSpaceless(text), SPACED).length + segmented([...found(text, CHARACTERS), ...found(text, UNSPACED)])

/** Seconds in which words are read aloud once. Scripts that are counted by characters go by these. */
export function readAloud(text: string): number {
  const words = found(withoutSpaceless(text), SPACED).length + segmented(found(text, UNSPACED))
  const rate = CHARACTERS_A_SECOND[KANA.test(text) ? 'japanese' : 'chinese']
  const characters = found(text, CHARACTERS).reduce((sum, run) => sum + [...run].length, 0)
  return words / WORDS_A_SECOND + characters / rate
}

/** Seconds for reading twice what takes so many aloud; never less than one and a half. */
export const readingTime = (aloud: number): number => (aloud === 0 ? 0 : Math.max(1.5, 2 * aloud))
