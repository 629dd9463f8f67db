import { WaxError } from '../../errors'
import { fileStem } from '../file-stem'
import type { DeliveredFile } from './delivery'

// Names of files are made from a pattern: words in braces stand for what is known of the render.

export interface NameParts {
  card: string
  /** Name of the row that fills the card's fields; empty without rows. */
  row: string
  /** The how manieth render of the card it is, from 1. */
  take: number
}

export const DEFAULT_PATTERN = '{card}'

/** What stands in braces, and what it stands for. */
export const NAME_WORDS: Readonly<Record<keyof NameParts, string>> = {
  card: 'the name of the card',
  row: 'the name of the row, where rows fill the card',
  take: 'the number of the render among those of the card',
}

/** Throws a WaxError for a pattern that could leave its folder, or has words that stand for nothing. */
export function expectPattern(pattern: string): void {
  const refuse = (message: string, remedy: string) => new WaxError('bad-name', 'name', message, remedy)
  const unknown = [...pattern.matchAll(/\{([^}]*)\}/g)].find(([, word]) => !((word ?? '') in NAME_WORDS))
  if (unknown) {
    throw refuse(
      `“${unknown[0]}” stands for nothing.`,
      `Use ${Object.keys(NAME_WORDS)
        .map((word) => `{${word}}`)
        .join(', ')} and plain text.`,
    )
  }
  const isHidden = pattern.startsWith('.')
  // eslint-disable-next-line no-control-regex -- what no file system takes
  if (isHidden || /[/\\:*?"<>|{}\u0000-\u001f\u007f]/.test(pattern.replace(/\{[a-z]+\}/g, ''))) {
    throw refuse(
      `“${pattern}” is no file name.`,
      'A name has no slashes, colons or other signs of paths, and does not begin with a dot.',
    )
  }
}

/** The name of a render's files, without ending. */
export function nameFrom(pattern: string, { card, row, take }: NameParts): string {
  const words: Record<keyof NameParts, string> = {
    card: fileStem(card),
    row: row === '' ? '' : fileStem(row),
    take: String(take).padStart(2, '0'),
  }
  const filled = pattern.replace(/\{(card|row|take)\}/g, (_, word: keyof NameParts) => words[word])
  // Where a word stands for nothing, what joined it to others goes too.
  return filled.replace(/[-_ ]+$|^[-_ ]+/g, '').replace(/([-_ ])[-_ ]+/g, '$1') || 'card'
}

/** The name of one of its files. */
export const fileNameOf = (stem: string, { role, ending }: DeliveredFile): string =>
  `${stem}${role === '' ? '' : `-${role}`}${ending}`
