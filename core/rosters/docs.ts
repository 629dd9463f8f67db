import { ROW_CHECKS } from '../judge/row/definition'
import { DELIMITERS } from './table-in'
import { ENCODINGS } from './encoding'
import { FIELD_DEFINITIONS } from './kinds/table'

/** The page on fields and rosters, made from their tables: docs/rosters.md. */
export const rosterDocs = (): string =>
  [
    '# Fields and rosters\n\nMade from `core/rosters` by `npm run docs`; do not edit by hand.',
    'A **field** names values of a card that rows fill; it lies in the card file under `fields`, with the addresses of all other ' +
      'parameters. A **roster** is a table of rows; the column with a field’s label as its heading fills it, whatever its case, ' +
      'for any card. A field without a column keeps what the card has. Beside its cells a row has a name, which its files are ' +
      'called after, a switch, a note, and if wished the timecodes of its in and out in a programme. A line into which nothing was ' +
      'written is not rendered.',
    [
      '| field | a cell says |',
      '|---|---|',
      ...FIELD_DEFINITIONS.map(({ kind, label, help }) => `| ${label}, \`${kind}\` | ${help} |`),
    ].join('\n'),
    'A value that moves by keys has no one value, so it is no field; one that motors drive is filled where it plays around. A ' +
      'hold in which nothing moves lasts exactly as long as its cell says; one that moves is played whole.',
    '## What comes in\n\nCSV after RFC 4180, the same with other delimiters ' +
      `(${DELIMITERS.map(({ label }) => label.toLowerCase()).join(', ')}), JSON as a list of objects or of lists, in ` +
      `${ENCODINGS.map(({ label }) => label).join(', ')}. Delimiter, encoding and headings are found, shown, and can be said ` +
      'otherwise. CSV goes out again with a byte order mark and CRLF.',
    '## What is said of a row\n\n' + ROW_CHECKS.map(({ label, how }) => `- **${label}**: ${how}.`).join('\n'),
    'Bars, the frame and the title area count where the design itself keeps within them; masks where they take more than they ' +
      'take from the design. Ink is that of the letters, without their shadows and glows.',
    '## A programme\n\nRows with timecodes become one long transparent file, each at its place and held until its out, or an ' +
      'OpenTimelineIO file (`.otio`) beside the single files. None may overlap; what cannot be placed is told at its cell.',
    '',
  ].join('\n\n')
