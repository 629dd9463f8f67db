import { parameterTable as table } from '../values/parameter-docs'
import { COMMON_FINISH_PARAMETERS } from './definition'
import { FINISHES } from './table'

const READS = {
  pixel: 'It looks at each pixel alone.',
  neighbours: 'It looks at the pixels around each.',
  moments: 'It looks at the picture at other frames.',
  piece: 'It looks at the pixels around each, and may look at another piece.',
}

/** The page on finishes, made from their table: docs/finishes.md. */
export const finishDocs = (): string =>
  [
    '# Finishes\n\nMade from `core/finishes` by `npm run docs`; do not edit by hand.',
    'A finish is one operation on finished pixels: on the picture of a piece or group with all its coats, or, in a **wash**, on ' +
      'everything that lies behind the wash in its list, for the frames of its span. Finishes work in the order in which they ' +
      'stand, the last of the list (the lowest on the bench) first.',
    'Lengths are px of the list in which the piece stands, enlarged with the piece and with every group that holds it, or % of the piece (cap height for type, the smaller side of the bounds for all else); in a wash ' +
      'of the smaller side of the frame. Places in % count across the ink of the piece as it stands on the card, or across the ' +
      'frame. Directions are those of the card: a turned piece takes no part of its turn along. Chance comes from the seed of ' +
      'the card, the finish and the frame on the ring, so that all of it closes over the loop.',
    'The picture of a piece is exposed first: with motion blur a finish works on the mean over the shutter. The opacity and ' +
      'blend mode of the piece come last. Coats behind blend with what the piece itself has laid, not with what lies behind it.',
    'In a wash what lies beyond the frame counts: as much of it is computed as the finishes read, up to 192 px. `wash` has ' +
      'its opacity (how much of the whole is seen) and its blend mode (how the treated picture lies on the untreated one).',
    'Every finish has `id`, `kind`, `name` and these:\n\n' + table(COMMON_FINISH_PARAMETERS),
    ...FINISHES.map(({ kind, label, help, parameters, reads }) =>
      [`## ${label}`, `\`${kind}\`: ${help}. ${READS[reads]}`, table(parameters)].join('\n\n'),
    ),
    '',
  ].join('\n\n')
