import type { Delivery, Tolerance } from './delivery'
import { NAME_WORDS } from './file-name'
import type { Option } from './option'
import { DELIVERIES } from './table'

/** The page on deliveries, made from their table: docs/deliveries.md. */
export const deliveryDocs = (): string =>
  [
    '# Deliveries\n\nMade from `core/formats/deliveries` by `npm run docs`; do not edit by hand.',
    'A delivery is a form in which a render is handed over. Every file is read again when it is written, by a decoder and not by ' +
      'what wrote it, and held against the frames that the engine made: the number of frames, each of them once, the last one ' +
      'not empty, size, rate, timecode, what the file says of its colour, alpha, colour, and the step from the last frame to ' +
      'the first where the whole loop was rendered. A file that is not what was made is not offered.',
    'Chosen for every delivery: the frames (`from`, and `to`, which is not rendered), how often the hold of a card with zones ' +
      'is played (`holds`), the size (`scale`: 0.5, 1 or 2; the card is rendered at that size, nothing is resized), and the ' +
      'name of its files (`name`), a pattern in which ' +
      Object.entries(NAME_WORDS)
        .map(([word, meaning]) => `\`{${word}}\` is ${meaning}`)
        .join(', ') +
      '.',
    'Beside the files lies a **sidecar**, a JSON: what was made from which card, the options, SHA-256 of every file, a hash of ' +
      'each frame as it was made and as it was read, the checks, and versions. `wax verify FILE… --against SIDECAR` proves ' +
      'later that files are still what was checked. The hash of a frame is the first half of BLAKE2b-512 of its pieces of 4096 ' +
      'bytes, without the whole pieces that are the same as the one before, and then of the numbers of the pieces that were left out, ' +
      'counted from 0 (32 bits, little-endian).',
    table(
      ['', 'for', 'alpha', 'held against the frames'],
      DELIVERIES.map((delivery) => [
        delivery.label,
        delivery.takes,
        delivery.alpha,
        toleranceWords(delivery.tolerance({})),
      ]),
    ),
    ...DELIVERIES.map(section),
    '',
  ].join('\n\n')

function section({ format, label, help, loses, options, files, tolerance }: Delivery): string {
  const held = tolerance({})
  const entries = Object.entries(options) as [string, Option][]
  return [
    `## ${label}`,
    `\`${format}\`: ${help}. ${loses ? `${loses}.` : 'Nothing is lost.'} ${fileWords(files({}))}`,
    ...(held.exact ? [] : [`${held.because}.`]),
    ...otherTolerances(options, tolerance),
    ...(entries.length > 0
      ? [
          table(
            ['', 'name', 'takes', 'by default', 'what it does'],
            entries.map(([name, option]) => [
              option.label,
              `\`${name}\``,
              taken(option),
              option.default === '' ? 'none' : `\`${String(option.default)}\``,
              option.help,
            ]),
          ),
        ]
      : []),
  ].join('\n\n')
}

/** Where an option has the files held otherwise than by default. */
function otherTolerances(options: Delivery['options'], tolerance: Delivery['tolerance']): string[] {
  const byDefault = toleranceWords(tolerance({}))
  return (Object.entries(options) as [string, Option][]).flatMap(([name, option]) =>
    option.kind !== 'choice'
      ? []
      : option.choices.flatMap(({ value }) => {
          const words = toleranceWords(tolerance({ [name]: value }))
          return words === byDefault ? [] : [`With \`${name}\` \`${value}\` it is held to: ${words}.`]
        }),
  )
}

const fileWords = (files: ReturnType<Delivery['files']>): string =>
  files.length === 1 ? `One file, \`${files[0].ending}\`.` : `${files.length} files, \`${files[0].ending}\`.`

const taken = (option: Option): string =>
  option.kind === 'choice'
    ? option.choices.map(({ value }) => `\`${value}\``).join(', ')
    : { colour: '`#RRGGBB`', switch: '`true`, `false`', timecode: '`HH:MM:SS:FF`' }[option.kind]

function toleranceWords(tolerance: Tolerance): string {
  if (tolerance.exact) return 'every byte'
  const words = (what: string, { most, mean }: { most: number; mean: number }) =>
    `${what} ${most < 255 ? `at most ${most}, ` : ''}mean ${mean}`
  const { shared, roundedTo } = tolerance.colour
  const colour = words(shared ? 'even colours' : 'colour', tolerance.colour)
  const beside = roundedTo ? `, and what rounding to ${roundedTo} bits alone gives` : ''
  return `${tolerance.alpha ? `${words('alpha', tolerance.alpha)}; ` : ''}${colour} of 255${beside}`
}

function table(head: string[], rows: string[][]): string {
  const line = (cells: string[]) => `| ${cells.join(' | ')} |`
  return [line(head), line(head.map(() => '---')), ...rows.map(line)].join('\n')
}
