import type { Fault } from '../errors'

/** No document of ours nests deeper: eight groups, and what a value has in it. */
const DEEPEST = 64

/** NUL, which databases cannot keep, and halves of surrogate pairs, which no encoding can. */
const ODD = /\0|[\uD800-\uDFFF]/u

/**
 * The first place at which a JSON value is none that can be kept: text that no file can hold, or nesting without an end.
 * Null where there is none. Looked for before anything else reads the value, and without recursion.
 */
export function oddPlace(root: unknown): Fault | null {
  const rest: { value: unknown; place: string; depth: number }[] = [{ value: root, place: '', depth: 0 }]
  for (let next = rest.pop(); next; next = rest.pop()) {
    const { value, place, depth } = next
    if (typeof value === 'string' && ODD.test(value)) return oddText(place)
    if (typeof value !== 'object' || value === null) continue
    if (depth > DEEPEST) return tooDeep(place)
    for (const [name, inner] of Object.entries(value)) {
      if (ODD.test(name)) return oddText(place)
      const here = Array.isArray(value) ? `${place}[${name}]` : place ? `${place}.${name}` : name
      rest.push({ value: inner, place: here, depth: depth + 1 })
    }
  }
  return null
}

const oddText = (place: string): Fault => ({
  code: 'odd-text',
  place: place || 'file',
  message: 'The text holds a character that cannot be kept: NUL, or half of a pair.',
  remedy: 'Write it again without that character.',
})

const tooDeep = (place: string): Fault => ({
  code: 'too-deep',
  place: `${place.slice(0, 80)}…`,
  message: 'Groups or values lie too deep in one another.',
  remedy: 'Take some of them out.',
})
