import { FORMULA_FUNCTIONS } from '../formula'
import type { MotorParameter } from './definition'
import { MOTORS } from './table'

/** The page on motors, made from their table: docs/motors.md. */
export function motorDocs(): string {
  return [
    '# Motors\n\nMade from `core/values/motors` and `core/values/formula.ts` by `npm run docs`; do not edit by hand.',
    'Motors stand beside the keys of a number, in `motors`; each works on what the one before it gives. Every motor has ' +
      '`kind`, `on` and values of its own; those marked _moves_ can have keys in place of the number. What is not finite is passed over: the value before the motor stays.',
    ...MOTORS.map(({ kind, label, help, parameters }) =>
      [
        `## ${label}`,
        `\`${kind}\`: ${help}.`,
        '| name | label | values, default | what it does |\n| --- | --- | --- | --- |\n' +
          Object.entries(parameters)
            .map(
              ([name, p]) =>
                `| \`${name}\` | ${p.label} | ${rangeOf(p)}${'moves' in p && p.moves ? ', _moves_' : ''} | ${p.help} |`,
            )
            .join('\n'),
      ].join('\n\n'),
    ),
    '## What a formula may hold',
    'Numbers, `t` seconds, `f` frame, `p` place in the loop from 0 to 1, `v` the value before, `pi`, `tau`, `e`; `+ − * / ^ %`, ' +
      'comparisons, `and`, `or`, `not`, `a ? b : c`; and these functions. Nothing else is let in, so that a formula always ends.',
    Object.entries(FORMULA_FUNCTIONS)
      .map(([name, { help }]) => `- \`${name}\`: ${help}`)
      .join('\n'),
    '',
  ].join('\n\n')
}

function rangeOf(parameter: MotorParameter): string {
  switch (parameter.type) {
    case 'number':
      return `${parameter.min}–${parameter.max} ${parameter.unit}, ${parameter.default}`.replace(/ ,/, ',')
    case 'amount':
      return `in the unit of the value, ${parameter.default}`
    case 'choice':
      return `${parameter.options.map(({ value }) => `\`${value}\``).join(', ')}; \`${parameter.default}\``
    case 'source':
      return 'the address of a value, empty'
    case 'formula':
      return `text, \`${parameter.default}\``
  }
}
