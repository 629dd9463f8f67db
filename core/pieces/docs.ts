import { parameterTable as table } from '../values/parameter-docs'
import { CLOCK_PARAMETERS } from './clock'
import { PLACE_PARAMETERS } from './place'
import { PIECE_KINDS } from './table'

/** The page on pieces, made from their table: docs/pieces.md. */
export const pieceDocs = (): string =>
  [
    '# Pieces\n\nMade from `core/pieces` by `npm run docs`; do not edit by hand.',
    'Every piece has `id`, `kind`, `name`, `coats`, `finishes`, `outlineSteps`, `masks` (see the pages on them) and these:\n\n' +
      table(PLACE_PARAMETERS),
    ...Object.values(PIECE_KINDS).map(({ kind, label, help, parameters }) =>
      [`## ${label}`, `\`${kind}\`: ${help}.`, tableOf(parameters)].filter(Boolean).join('\n\n'),
    ),
    '## Clock',
    'Groups and twins may give what they hold or show a time of its own. All in it runs by that: keys, motors and clocks in ' +
      'turn. Its own place, coats and finishes run by the time around it. A value in it that follows another one reads it at its own ' +
      'frame. Frames within lie on the loop of the card: frame `length` is frame 0 again.',
    table(CLOCK_PARAMETERS),
    'With `from` *a*, `to` *b* and *n* = *b* − *a* frames, *r* = (frame around − start) · speed frames have run. *Hold* shows ' +
      '*a* + min(max(*r*, 0), *n* − 1); *stop* the same, and nothing where *r* < 0 or *r* ≥ *n*; *again* *a* + (*r* mod *n*); *to ' +
      'and fro* goes through *a* … *b* − 1 … *a*, each end once. Backward counts from the last frame, *b* − 1, down.',
    'A twin shows the other piece as it is in its own list, at its own place or, *going along*, moved by its X and Y. What that ' +
      'piece looks at (mattes, maps) in the same list is taken along, and so is its time. A twin that stands still leaves motion ' +
      'blur to the piece that it shows; one that moves is exposed as a whole, as a group is.',
    '',
  ].join('\n\n')

function tableOf(parameters: (typeof PIECE_KINDS)['group']['parameters']): string {
  const own = Object.entries(parameters).filter(([name]) => !(name in CLOCK_PARAMETERS))
  return own.length > 0 ? table(Object.fromEntries(own)) : ''
}
