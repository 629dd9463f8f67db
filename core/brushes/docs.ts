import { USUAL } from './definition'
import { TIPS } from './table'

const TIP_LAWS =
  'u and v run from −1 to 1 over the square of the tip, from its left and its top, at the middles of its pixels; R is 1. S(t) is 3t² − 2t³ with t cut ' +
  'to 0–1. c(i) is the chance of a whole number, even from 0 to 1 (see the laws), with the place of the tip in the table above, from 1, as its seed. The square has 256 px a side. N(n, k) is value noise on ' +
  'n × n cells: at a corner i, j it is c(1009 j + i + k), between corners it is mixed by S across and then down; k is 0 where it is left out. A disc of ' +
  'radius r covers by how far a pixel lies within it, half a pixel soft; discs lay themselves over one another like dabs. What is beyond 0–1 is cut.'

/** The page on brushes, made from the table of tips: docs/brushes.md. */
export const brushDocs = (): string =>
  [
    '# Brushes\n\nMade from `core/brushes` by `npm run docs`; do not edit by hand.',
    'A painting and a painted mask have `strokes`, in the order in which they were painted. A stroke has `id`, `tip`, `erase`, ' +
      '`colour` (which counts in a painting), `size` (width of the tip under full pressure, px of the piece), `seed`, `points` (one flat ' +
      'list of numbers, three for each point: x and y in px of the piece, pressure from 0 to 1) and what its tip is set to:',
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
      'leaves nothing to the last bit. Chance follows from the seed. Tips are made once, by the rules below. ' +
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
    '## Laws of the tips\n\n' + TIP_LAWS,
    '| tip | law |\n| --- | --- |\n' + TIPS.map(({ label, law }) => `| ${label} | ${law} |`).join('\n'),
    '',
  ].join('\n\n')
