import { defineStart } from '../definition'
import { EASE, stays, sweeps, fades } from '../moves'
import { box, dressed, fill, fits, group, range, type, NAME_AND_ROLE } from '../parts'

const HOLD = [1.5, 6.7] as const

/** Two blocks that shoot in from both sides and lock, one upon the other. */
export const stackedBlocks = defineStart({
  id: 'stacked-blocks',
  label: 'Stacked blocks',
  kind: 'lower-third',
  character: 'bold',
  tells: 'A loud lower third for sport and music: two blocks lock from both sides.',
  lasts: 8,
  hold: HOLD,
  shutter: true,
  words: NAME_AND_ROLE,
  colours: [
    { id: 'block', label: 'Upper block', at: ['name-block/name-block-fill/paint/colour'] },
    { id: 'words', label: 'Name', at: ['name/name-fill/paint/colour'] },
    { id: 'foot', label: 'Lower block', at: ['role-block/role-block-fill/paint/colour'] },
    { id: 'role', label: 'Role', at: ['role/role-fill/paint/colour'] },
  ],
  read: [
    ['words', 'block'],
    ['role', 'foot'],
  ],
  palettes: [
    { label: 'Lantern', colours: { block: '#F2B233', words: '#1B1420', foot: '#9E2438', role: '#FFF6EE' } },
    { label: 'River', colours: { block: '#0F6D6B', words: '#FFFFFF', foot: '#F7E9C8', role: '#14322F' } },
    { label: 'Night race', colours: { block: '#16161D', words: '#F7F4EC', foot: '#E8603C', role: '#1A0D08' } },
    { label: 'Ice', colours: { block: '#EAF3F7', words: '#12283A', foot: '#23597A', role: '#FFFFFF' } },
  ],
  draw(room, { block, words, foot: lower, role }) {
    const { u, left, foot, span, width } = room
    const nameY = foot - u(150)
    const roleY = foot - u(46)
    const shove = width * 1.1
    return {
      pieces: [
        group(
          'upper',
          'Upper block',
          [
            type(
              {
                ...{ id: 'name', name: 'Name', wording: 'Jory Pike', font: 'anton', size: u(112) },
                ...{ x: left + u(36), y: nameY },
              },
              {
                ...{ align: 'left', letterCase: 'upper', tracking: 12, width: span - u(90) },
                ranges: [
                  range('rise', {
                    ...{ sweep: sweeps(room, 0.6, 1.4, 7.9), y: u(150), opacity: 0, spread: 50, ease: 'early' },
                  }),
                ],
                ...dressed([fill('name-fill', words)]),
              },
            ),
            box('name-block', 'Block', {
              ...{ x: left + span / 4, y: nameY, width: u(600), height: u(140) },
              ...fits(['name'], { x: u(36), right: u(44), y: u(28), foot: u(28) }),
              ...dressed([fill('name-block-fill', block)]),
            }),
          ],
          { x: stays(room, -shove, 0, { in: [0.1, 0.9], out: [6.85, 7.6], arrive: EASE.arrive }) },
        ),
        group(
          'lower',
          'Lower block',
          [
            type(
              {
                ...{ id: 'role', name: 'Role', wording: 'First across the river', font: 'barlow-condensed-bold' },
                ...{ size: u(50), x: left + u(74), y: roleY },
              },
              {
                ...{ align: 'left', tracking: 18, width: span - u(130), opacity: fades(room, [0.8, 1.3], [6.9, 7.3]) },
                ...dressed([fill('role-fill', role)]),
              },
            ),
            box('role-block', 'Block', {
              ...{ x: left + span / 4, y: roleY, width: u(600), height: u(90) },
              ...fits(['role'], { x: u(34), right: u(40), y: u(26), foot: u(26) }),
              ...dressed([fill('role-block-fill', lower)]),
            }),
          ],
          { x: stays(room, shove, 0, { in: [0.25, 1.05], out: [6.7, 7.4], arrive: EASE.arrive }) },
        ),
      ],
    }
  },
})
