import { parameterTable as table } from '../values/parameter-docs'
import { GRADIENT_CHOICES, GRADIENT_PARAMETERS, PAINT_KINDS, PATTERNS, TEXTURE_PARAMETERS } from '../values/paints'
import { CURVE_SHAPES } from '../curves/curve'
import { COMMON_COAT_PARAMETERS } from './definition'
import { COATS } from './table'

/** The page on coats, made from their table: docs/coats.md. */
export function coatDocs(): string {
  return [
    '# Coats\n\nMade from `core/coats` and `core/values/paints.ts` by `npm run docs`; do not edit by hand.',
    'Every coat has `id`, `kind`, `on` and these:\n\n' + table(COMMON_COAT_PARAMETERS),
    ...COATS.map(({ kind, label, help, parameters, ownBlend }) =>
      [
        `## ${label}`,
        `\`${kind}\`: ${help}.${ownBlend ? ' Its parts have blend modes of their own; the common one does not count.' : ''}`,
        table(parameters),
      ].join('\n\n'),
    ),
    '## Paints',
    PAINT_KINDS.map(({ type, label, help, numbers, choices }) => {
      const names = [...numbers, ...choices].map((name) => `\`${name}\``).join(', ')
      return `- \`${type}\` (${label}): ${help}.${names ? ` Counts: ${names}.` : ''}`
    }).join('\n'),
    'Values of gradients:\n\n' + table({ ...GRADIENT_PARAMETERS, ...GRADIENT_CHOICES }),
    `Textures have a \`pattern\` (${PATTERNS.map(({ value }) => `\`${value}\``).join(', ')}) and:\n\n` +
      table(TEXTURE_PARAMETERS),
    '## Curves',
    'Ready-made shapes, or `{ "points": [{ "x": 0, "y": 0, "joint": "smooth" }, …] }`. All rise from left to right: 0 is ' +
      'the far end or the foot, 1 the edge or the top.',
    CURVE_SHAPES.map(({ name, label, help }) => `- \`${name}\` (${label}): ${help}.`).join('\n'),
    '',
  ].join('\n\n')
}
