// Words as they are set: in another case, and told apart by style.

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

/** OpenType features by their tags, as the standard names them: `smcp tnum ss01 salt=2 -liga`. */
export function readFeatures(words: string): { tag: string; value: number }[] {
  return words.split(/[\s,]+/).flatMap((word) => {
    const found = /^(-?)([A-Za-z0-9]{4})(?:=(\d{1,3}))?$/.exec(word)
    if (!found) return []
    return [{ tag: found[2]!, value: found[1] ? 0 : found[3] === undefined ? 1 : Number(found[3]) }]
  })
}
