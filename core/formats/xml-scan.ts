// A look over a text of XML before a library reads it: once from its beginning to its end, whatever is in it.

/** Elements within each other that a drawing may have; deeper ones would be followed until the memory for calls ends. */
export const MOST_NESTED = 200

/** Where the document type that begins at a place ends: its own list in brackets, quoted words and comments may hold any sign. */
function endOfDoctype(text: string, from: number): number {
  let inList = false
  for (let at = from; at < text.length; at++) {
    const sign = text[at]!
    if (sign === '"' || sign === "'") {
      at = text.indexOf(sign, at + 1)
      if (at < 0) return -1
    } else if (inList && text.startsWith('<!--', at)) {
      at = text.indexOf('-->', at + 4) + 2
      if (at < 2) return -1
    } else if (sign === '[') inList = true
    else if (sign === ']') inList = false
    else if (sign === '>' && !inList) return at + 1
  }
  return -1
}

/** Where the tag that begins at a place ends: values of attributes may hold `>`. */
function endOfTag(text: string, from: number): number {
  for (let at = from; at < text.length; at++) {
    const sign = text[at]!
    if (sign === '>') return at + 1
    if (sign !== '"' && sign !== "'") continue
    at = text.indexOf(sign, at + 1)
    if (at < 0) return -1
  }
  return -1
}

const after = (text: string, sign: string, from: number) => {
  const at = text.indexOf(sign, from)
  return at < 0 ? -1 : at + sign.length
}

/**
 * The text without its document types, which can declare entities that grow without end, and how deep its elements lie in each other, as
 * far as that goes on. What breaks off is left as it is: whoever reads it says so.
 */
export function scannedXml(text: string): { text: string; isTooDeep: boolean } {
  const kept: string[] = []
  let from = 0
  let depth = 0
  let at = text.indexOf('<')
  while (at >= 0) {
    let end: number
    if (text.startsWith('<!--', at)) end = after(text, '-->', at + 4)
    else if (text.startsWith('<![CDATA[', at)) end = after(text, ']]>', at + 9)
    else if (text.startsWith('<?', at)) end = after(text, '?>', at + 2)
    else if (text.startsWith('<!', at)) {
      end = endOfDoctype(text, at + 2)
      kept.push(text.slice(from, at))
      from = end < 0 ? text.length : end
    } else {
      end = endOfTag(text, at + 1)
      if (text[at + 1] === '/') depth--
      else if (end > 0 && text[end - 2] !== '/') depth++
      if (depth > MOST_NESTED) return { text: '', isTooDeep: true }
    }
    if (end < 0) break
    at = text.indexOf('<', end)
  }
  return { text: [...kept, text.slice(from)].join(''), isTooDeep: false }
}
