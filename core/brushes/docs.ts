import { USUAL } from './definition'
import { TIPS } from './table'

/** The page on brushes, made from the table of tips: docs/brushes.md. */
export const brushDocs = (): string =>
  [
    '# Brushes\n\nMade from `core/brushes` by `npm run docs`; do not edit by hand.',
    'A painting and a painted mask have `strokes`, in the order in which they were painted. A stroke has `id`, `tip`, `erase`, ' +
      '`colour` (which counts in a painting), `size` (width of the tip under full pressure, px of the piece), `seed`, `points` (x, y ' +
      'and pressure from 0 to 1 of each point, px of the piece) and what its tip is set to:',
    '| name | what it does |\n| --- | --- |\n' +
      [
        ['hardness', 'how far out a round tip is whole, in % of its radius'],
        ['spacing', 'distance of two dabs, in % of the size'],
        ['scatter', 'how far dabs are thrown aside, in % of the size'],
        ['along', 'whether the tip turns with the line of the stroke'],
        ['turn, turnBy', 'the turn of the tip, and by how much that differs from dab to dab, in degrees'],
        ['flow', 'how much one dab covers of what the dabs before it left open, in %'],
        ['opacity', 'how much the whole stroke covers at the most, in %'],
        ['pressSize, pressFlow', 'how much pressure counts for size and flow, in %'],
      ]
        .map(([name, words]) => `| ${name} | ${words} |`)
        .join('\n'),
    'Dabs lie at even distances along the line through the points. A dab that covers *m* makes *c* + *m*·(1 − *c*) of the cover *c* of ' +
      'the stroke so far. The stroke is then laid on what was painted before, or, erasing, takes its cover away from that: a whole dab ' +
      'leaves nothing to the last bit. Chance follows from the seed. Tips are made once, from rules in `core/brushes/tips.ts`. ' +
      'In place of a kind `tip` may be the id of a picture that was brought in, or on the command line its file: it covers by its alpha, or, ' +
      'where all of it is opaque, by its darkness.',
    `A stroke that leaves a value out has: ${Object.entries(USUAL)
      .map(([name, value]) => `${name} ${value}`)
      .join(', ')}.`,
    '| tip | kind | what it is | begins with |\n| --- | --- | --- | --- |\n' +
      TIPS.map(({ kind, label, help, starts }) => {
        const begins = Object.entries(starts).map(([name, value]) => `${name} ${value}`)
        return `| ${label} | \`${kind}\` | ${help} | ${begins.join(', ')} |`
      }).join('\n'),
    '',
  ].join('\n\n')
