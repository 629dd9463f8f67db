import { WaxError } from '../errors'
import { partOf } from '../card/parts'
import type { Card, Piece } from '../card/schema'
import { allPieces, pathTo, replacePiece } from '../card/tree'

type Path = readonly (string | number)[]

/** Where an address lies in the document. Throws a WaxError for an address that leads nowhere. */
export function pathOf(card: Card, address: string): Path {
  const [head = '', ...rest] = address.split('/')
  if (head === 'light' || head === 'background') return [head, ...rest.map(step)]
  const indices = pathTo(card.pieces, head)
  if (!indices) throw nowhere(address)
  const piece = allPieces(card.pieces).find(({ id }) => id === head)!
  const way = indices.flatMap((index) => ['pieces', index])
  const [second = '', ...deeper] = rest
  const part = partOf(piece, second)
  if (part) return [...way, ...part.list.path, part.index, ...deeper.map(step)]
  return [...way, ...rest.map(step)]
}

const step = (part: string) => (/^\d+$/.test(part) ? Number(part) : part)

const nowhere = (address: string) =>
  new WaxError('no-such-place', address, 'This place does not exist on the card.', 'It may have been deleted.')

export function valueAtPath(root: unknown, path: Path): unknown {
  return path.reduce<unknown>((value, part) => (value as Record<string | number, unknown> | undefined)?.[part], root)
}

/** A copy of the document in which only what lies on the path is new. */
export function replacedAt<T>(root: T, path: Path, value: unknown): T {
  const [first, ...rest] = path
  if (first === undefined) return value as T
  if (Array.isArray(root)) {
    return root.map((entry, i) => (i === first ? replacedAt(entry, rest, value) : entry)) as T
  }
  const record = root as Record<string | number, unknown>
  return { ...record, [first]: replacedAt(record[first], rest, value) } as T
}

/** The card with one piece changed. */
export function withPiece(card: Card, id: string, change: (piece: Piece) => Piece): Card {
  return { ...card, pieces: replacePiece(card.pieces, id, (piece) => [change(piece)]) }
}
