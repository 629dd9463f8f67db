import type { Parameter } from '../card/parameter-kinds'
import { GRADIENT_CHOICES, GRADIENT_PARAMETERS, PAINT_KINDS, PATTERNS, TEXTURE_PARAMETERS } from '../card/paints'
import { CURVE_SHAPES } from '../curves/curve'
import { COMMON_COAT_PARAMETERS } from './definition'
import { COATS } from './table'

/** The page on coats, made from their table: docs/coats.md. */
export function coatDocs(): string {
  return [
    '# Coats\n\nMade from `core/coats` and `core/card/paints.ts` by `npm run docs`; do not edit by hand.',
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

function table(parameters: Readonly<Record<string, Parameter>>): string {
  const rows = Object.entries(parameters).map(
    ([name, parameter]) => `| \`${name}\` | ${parameter.label} | ${rangeOf(parameter)} | ${noteOf(parameter)} |`,
  )
  return ['| name | label | values, default | what it does |', '| --- | --- | --- | --- |', ...rows].join('\n')
}

function noteOf({ help, when }: Parameter): string {
  return when ? `${help}. Counts while \`${when.parameter}\` is ${when.is.join(' or ')}` : help
}

function rangeOf(parameter: Parameter): string {
  switch (parameter.type) {
    case 'number':
      return `${parameter.min}–${parameter.max} ${parameter.unit}, ${parameter.default}`.replace(/ ,/, ',')
    case 'length':
      return `${parameter.min}–${parameter.max} px or %, ${parameter.default} px`
    case 'choice':
      return parameter.options.length > 6
        ? `a blend mode, \`${parameter.default}\``
        : `${parameter.options.map(({ value }) => `\`${value}\``).join(', ')}; \`${parameter.default}\``
    case 'toggle':
      return `true, false; ${parameter.default}`
    case 'colour':
      return `a colour, \`${parameter.default}\``
    case 'paint':
      return `a paint, \`${parameter.default}\``
    case 'curve':
      return `a curve, \`${parameter.default}\``
    case 'text':
    case 'path':
      return 'text'
  }
}
