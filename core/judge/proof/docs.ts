import { PROOF_CHECKS } from './checks'

/** The page on the proof sheet, made from its table: docs/proof.md. */
export const proofDocs = (): string =>
  [
    '# The proof sheet\n\nMade from `core/judge/proof` by `npm run docs`; do not edit by hand.',
    'The proof sheet judges a card as it will be seen: on the bench, in the press room, as `wax proof CARD` and over the API. Each ' +
      'line is good, to be looked at by a person, or will not do; then it names the piece and the frame, and what to do. The moments ' +
      'of the hold that differ most are looked at in full size, and all frames in small pictures and by where everything stands. Contrast, halo and banding are shown as ' +
      'pictures, flashes as a curve.',
    'What a card is for can be brought: on the bench it is the stage’s own picture or colour, `wax proof --backdrop FILE` takes a ' +
      'still, the API the id of a picture (`backdrop`). Over that its type must be read.',
    'The rows of a roster are proved with the card that they fill: whether the words of each have room and letters. On the bench and in ' +
      'the press room the roster is chosen beneath the sheet, `wax proof --roster FILE` takes its table, the API its id (`rosterId`).',
    ...PROOF_CHECKS.map(({ id, label, how, source }) => `## ${label}\n\n\`${id}\`: ${how}. By: ${source}.`),
  ].join('\n\n') + '\n'
