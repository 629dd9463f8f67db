import { parameterTable as table } from '../values/parameter-docs'
import { AREA_PARAMETERS, COMMON_MASK_PARAMETERS } from './definition'
import { MASKS } from './table'

/** The page on masks, made from their table: docs/masks.md. */
export const maskDocs = (): string =>
  [
    '# Masks\n\nMade from `core/masks` by `npm run docs`; do not edit by hand.',
    'A mask holds or hides a part of a piece: of its finished picture, coats and glows included. Every piece, group, picture and ' +
      'wash has `masks`, a list in the order in which they stand on the bench: the last of the list (the lowest) works first. A mask ' +
      'on a wash says where it works. Lengths are px of the piece, before its scale, or of the card; in % they count as those of the ' +
      'finishes: by the cap height of type, the smaller side of a shape, and of the frame in a wash.',
    'The cover *m* of a mask is the exact cover of its area, moved by **grow**, blurred by a Gaussian of half the **feather**, ' +
      'inverted where that is wished, times its opacity. The masks are joined one after the other, as CSS Masking 1 §7.7 has it: ' +
      '**add** makes c + m − c·m of the cover c so far, **take** c·(1 − m), **keep** c·m. The first one begins with nothing ' +
      'if it adds, otherwise with all.',
    'A **matte** has no area of its own: its cover is another piece, where and when that piece stands, whether it is shown itself ' +
      'or not (`on` and `span` of the other piece do not count, its opacity does). **By alpha** is all that is opaque of it; **by ' +
      'face** its plain shape, as a white fill with its steps, letter motion and masks and without other coats and finishes; **by ' +
      'lightness** its BT.709 luma in display-encoded values, times its alpha. Its edge grows by the distance to where half is ' +
      'opaque. One piece may serve many mattes. One that is gone, has no picture or leads back to the piece itself is passed over.',
    'A mask before the finishes is a part of the piece: motion blur sees it move. One after the finishes stands as it is at its frame. ' +
      'A piece without finishes has all of its masks before. A piece with masks blends its coats behind in a picture of its own, ' +
      'as a piece with finishes does.',
    'Every mask has `id`, `kind`, `name` and these:\n\n' + table(COMMON_MASK_PARAMETERS),
    'Those with an area of their own also these:\n\n' + table(AREA_PARAMETERS),
    ...MASKS.map(({ kind, label, help, parameters }) =>
      [`## ${label}`, `\`${kind}\`: ${help}.`, table(parameters)].join('\n\n'),
    ),
    '',
  ].join('\n\n')
