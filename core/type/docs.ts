import { parameterTable } from '../values/parameter-docs'
import { MOST_RANGES, RANGE_PARAMETERS } from './ranges'
import { RANGE_STARTS } from './range-starts'

/** The page on letter motion, made from its table: docs/letter-motion.md. */
export function letterMotionDocs(): string {
  return [
    '# Letter motion\n\nMade from `core/type/ranges.ts` by `npm run docs`; do not edit by hand.',
    `A piece of type has up to ${MOST_RANGES} \`ranges\`, each with \`id\`, \`name\`, \`on\` and the values below. A range ` +
      'says what is done to a letter, and its sweep how much of it: letter by letter, word by word or line by line. Ranges act ' +
      'one after the other.',
    'The weight of a range on a letter is 1 where its values are reached and 0 at rest. With a place `u` in the order (0 for ' +
      'the first, 1 for the last), a sweep `p` and a spread `s` (both 0–1), a letter is `t = (p − u·(1 − s)) / s` on its way, ' +
      'cut to 0–1. _Arrive_ weighs `1 − ease(t)`, _leave_ `ease(t)`, _pass_ goes there and back.',
    '`from` and `to` are places in the text, in % of its letters (words, lines): of `n` of them the one with the index `i` ' +
      '(from 0) lies between `i/n` and `(i + 1)/n`. One that lies between the two places only in part has its weight times ' +
      'that part; less than a thousandth is none of it. The order goes through those alone of which something is chosen. ' +
      '`pivot` is the point that a letter turns and grows about: half way between its left and right edge of advance, and as ' +
      'high as the baseline (foot), the cap height (head) or half of that (middle); words and lines have one pivot, from the ' +
      'left edge of their first letter to the right edge of their last.',
    'A letter that moves is a piece of its own: its coats lie around it and are scaled with it; strokes of neighbours never ' +
      'lie on its face. Paints that hang on the piece stay on the letter as they are at rest. Blurred letters lie over sharp ones.',
    parameterTable(RANGE_PARAMETERS),
    '## Ready-made beginnings',
    RANGE_STARTS.map(({ label, help }) => `- ${label}: ${help}.`).join('\n'),
    '',
  ].join('\n\n')
}
