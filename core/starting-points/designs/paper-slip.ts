import { defineStart } from '../definition'
import { EASE, fades, stays } from '../moves'
import { box, dressed, fill, fits, group, type, NAME_AND_ROLE } from '../parts'

const HOLD = [1.5, 6.8] as const

/** A torn slip of paper that is laid down and held by a strip of tape. */
export const paperSlip = defineStart({
  id: 'paper-slip',
  label: 'Paper slip',
  kind: 'lower-third',
  character: 'paper',
  tells: 'A torn slip under a strip of tape, for stories told by hand.',
  lasts: 8,
  hold: HOLD,
  words: NAME_AND_ROLE,
  colours: [
    { id: 'paper', label: 'Paper', at: ['paper/paper-fill/paint/colour'] },
    { id: 'words', label: 'Words', at: ['name/name-fill/paint/colour', 'role/role-fill/paint/colour'] },
    { id: 'tape', label: 'Tape', at: ['tape/tape-fill/paint/colour'] },
  ],
  read: [['words', 'paper']],
  palettes: [
    { label: 'Boat paper', colours: { paper: '#F4ECD9', words: '#33261F', tape: '#E0A63A' } },
    { label: 'Blue copy', colours: { paper: '#DCE6EC', words: '#17304A', tape: '#D9694A' } },
    { label: 'Kraft', colours: { paper: '#C9A67A', words: '#24160C', tape: '#F6F0E4' } },
    { label: 'Carbon', colours: { paper: '#26242A', words: '#F4EFE6', tape: '#B8324A' } },
  ],
  draw(room, { paper, words, tape }) {
    const { u, left, foot, span } = room
    const x = left + u(52)
    const y = foot - u(112)
    const out = [6.9, 7.5] as const
    return {
      pieces: [
        group(
          'slip',
          'Slip',
          [
            box('tape', 'Tape', {
              ...{ x: u(16), y: -u(84), width: u(150), height: u(40), rotation: 24, blend: 'multiply' },
              opacity: fades(room, [0.9, 1.2], [6.8, 7]),
              outlineSteps: [{ id: 'tape-rough', kind: 'rough', amount: u(3), size: u(12), detail: 2 }],
              ...dressed([fill('tape-fill', tape, { opacity: 82 })]),
            }),
            type(
              {
                ...{ id: 'name', name: 'Name', wording: 'Wren Halloway', font: 'zilla-slab-bold', size: u(76) },
                ...{ x: u(44), y: -u(24) },
              },
              { align: 'left', width: span - u(160), ...dressed([fill('name-fill', words)]) },
            ),
            type(
              {
                ...{ id: 'role', name: 'Role', wording: 'Keeper of the lanterns', font: 'zilla-slab-bold' },
                ...{ size: u(48), x: u(45), y: u(46) },
              },
              { align: 'left', width: span - u(160), ...dressed([fill('role-fill', words, { opacity: 86 })]) },
            ),
            box('paper', 'Paper', {
              ...{ x: u(300), y: 0, width: u(640), height: u(190) },
              ...fits(['name', 'role'], { x: u(44), right: u(56), y: u(46), foot: u(48) }),
              outlineSteps: [{ id: 'torn', kind: 'rough', amount: u(5), size: u(34), detail: 4, seed: 4 }],
              ...dressed(
                [
                  fill('paper-grain', {
                    ...{ type: 'texture', pattern: 'paper', colour: '#7A5A3A22', ground: '#00000000', weight: 55 },
                  }),
                  fill('paper-fill', paper),
                ],
                [
                  {
                    ...{ id: 'paper-lift', kind: 'shadow', cast: 'lift', colour: '#0B0704', opacity: 90 },
                    lift: stays(room, u(90), u(20), { in: [0.1, 0.9], out, arrive: EASE.arrive }),
                  },
                ],
              ),
            }),
          ],
          {
            ...{ x: stays(room, x - u(60), x, { in: [0.1, 0.9], out }) },
            y: stays(room, y + u(120), y, { in: [0.1, 0.9], out }),
            rotation: stays(room, -7, 2, { in: [0.1, 1], out, arrive: EASE.over }),
            scale: stays(room, 116, 100, { in: [0.1, 0.9], out }),
            opacity: fades(room, [0.1, 0.4], [7.1, 7.5]),
          },
        ),
      ],
    }
  },
})
