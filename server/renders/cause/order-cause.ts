// What was done to the order of frames, told from how far each frame that was read is from each that was made.

/** Frames before and after its own place among which a frame is looked for. */
export const REACH = 3

/** How far the frame at place `found` of the file is from the one that was made for place `made`: 0 where they are the same. */
export type Apart = (found: number, made: number) => number

/** A frame is another one's only where it is that much nearer to it than to its own. */
const NEARER = 0.5

/** What was done to the order of so many frames that were made, `count` being those of the file; null where each has its place. */
export function orderCause(apart: Apart, count: number, made: number): string | null {
  const shifts = Array.from({ length: count }, (_, at) => shiftOf(apart, at, made))
  const first = shifts.findIndex((shift) => shift !== 0)
  if (first < 0) return null
  const rest = shifts.slice(first)
  const isAll = (shift: number, of = rest) => of.length > 0 && of.every((one) => one === shift)
  // The last one of a loop may be its first again, and stand still before: what is the same everywhere says nothing.
  if (count >= made && first <= 1 && shifts.length > 2 && isAll(-1, shifts.slice(1)))
    return 'all frames are late by one'
  if (count >= made && first === 0 && isAll(1, shifts.slice(0, -1))) return 'all frames are early by one'
  if (count < made && isAll(1)) return `frame ${first} is missing`
  if (isAll(-1) && count > made) return `frame ${first - 1} stands there twice`
  const [one, next] = rest
  if (one === 1 && next === -1 && rest.slice(2).every((shift) => shift === 0))
    return `frames ${first} and ${first + 1} have changed places`
  if (rest.filter((shift) => shift !== 0).length === 1) {
    const words =
      one! < 0 ? `frame ${first + one!} stands in its place once more` : `frame ${first + one!} stands in its place`
    return `frame ${first} is missing, ${words}`
  }
  return null
}

/** By how many places the frame that stands there was made for another one; 0 for its own, and where it is unlike all. */
function shiftOf(apart: Apart, at: number, made: number): number {
  const own = at < made ? apart(at, at) : Infinity
  let best = 0
  let least = own * NEARER
  for (let shift = -REACH; shift <= REACH; shift++) {
    const place = at + shift
    if (shift === 0 || place < 0 || place >= made) continue
    const other = apart(at, place)
    if (other < least) {
      least = other
      best = shift
    }
  }
  return best
}
