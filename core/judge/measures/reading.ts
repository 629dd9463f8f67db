// How long words take. Common practice, no published source: long enough to read them aloud twice, at 150 words a minute.

const WORDS_A_SECOND = 150 / 60

/** Words as they are counted: what spaces and dashes part. */
export const wordsIn = (text: string): number => (text.match(/[\p{L}\p{N}][\p{L}\p{N}\p{M}'’.]*/gu) ?? []).length

/** Seconds for reading so many words twice; never less than one and a half. */
export const readingTime = (words: number): number => (words === 0 ? 0 : Math.max(1.5, (2 * words) / WORDS_A_SECOND))
