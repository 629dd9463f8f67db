import type { Parameter } from './parameter-kinds'

/** The table of a page made from parameters. */
export function parameterTable(parameters: Readonly<Record<string, Parameter>>): string {
  const rows = Object.entries(parameters).map(
    ([name, parameter]) => `| \`${name}\` | ${parameter.label} | ${rangeOf(parameter)} | ${noteOf(parameter)} |`,
  )
  return ['| name | label | values, default | what it does |', '| --- | --- | --- | --- |', ...rows].join('\n')
}

function noteOf({ help, when, outlineOnly, wordsOnly }: Parameter): string {
  const values = when && ('is' in when ? when.is.join(' or ') : 'there')
  const condition = when ? `. Counts while \`${when.parameter}\` is ${values}` : ''
  return `${help}${condition}${outlineOnly ? '. Not on groups and pictures' : ''}${wordsOnly ? '. On type only' : ''}`
}

/** Range, unit and default of a parameter, in words. */
export function rangeOf(parameter: Parameter): string {
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
    case 'piece':
      return 'id of a piece, or null; null'
    case 'pieces':
      return 'ids of pieces; none'
    case 'text':
    case 'path':
      return 'text'
  }
}
