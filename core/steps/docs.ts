import { parameterTable as table } from '../values/parameter-docs'
import { COMMON_STEP_PARAMETERS } from './definition'
import { STEPS } from './table'

const WORKS = {
  lines: 'It works on lines; an area stays as it is, until a **line** comes before it.',
  areas: 'It works on areas; a line gets its thickness first.',
  both: 'It works on areas and on lines, which stay lines.',
}

/** The page on outline steps, made from their table: docs/outline-steps.md. */
export const stepDocs = (): string =>
  [
    '# Outline steps\n\nMade from `core/steps` by `npm run docs`; do not edit by hand.',
    'An outline step changes the outline of a piece before anything is computed from it: coats, finishes, picks and the inner ' +
      'depth follow. Type, boxes, ellipses, polygons, lines and paths have `outlineSteps`, a list in the order in which they stand ' +
      'on the bench: the last of the list (the lowest) works first. Whatever they do, paints and lengths in % keep counting by ' +
      'the outline at rest, so that nothing slides while a step moves.',
    'An outline is an **area** or a **line**: paths with a thickness and the piece `line` begin as lines, all else as areas. A line ' +
      'gets its thickness at the end, or at the first step that works on areas.',
    'On type a step works on the whole wording at rest or on each letter; letter motion moves the letters afterwards. Lengths are ' +
      'px of the piece, before its scale, or %.',
    'Every step has `id`, `kind`, `name` and these:\n\n' + table(COMMON_STEP_PARAMETERS),
    ...STEPS.map(({ kind, label, help, parameters, works }) =>
      [`## ${label}`, `\`${kind}\`: ${help}. ${WORKS[works]}`, table(parameters)].join('\n\n'),
    ),
    '',
  ].join('\n\n')
