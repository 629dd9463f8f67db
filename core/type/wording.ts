// Words in another case.

export type LetterCase = 'typed' | 'upper' | 'lower' | 'title'

/** Words in another case, and for each of their UTF-16 units the one that it came from: “ß” in capitals is two. */
export function cased(words: string, letterCase: LetterCase): { text: string; from: number[] } {
  let text = ''
  const from: number[] = []
  let inWord = false
  let at = 0
  for (const character of words) {
    const isLetter = /[\p{L}\p{M}\p{N}'’]/u.test(character)
    const put =
      letterCase === 'upper' || (letterCase === 'title' && !inWord)
        ? character.toUpperCase()
        : letterCase === 'lower'
          ? character.toLowerCase()
          : character
    for (let i = 0; i < put.length; i++) from.push(at + Math.min(i, character.length - 1))
    text += put
    inWord = isLetter
    at += character.length
  }
  return { text, from }
}
