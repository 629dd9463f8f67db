import { defineStart } from '../definition'
import { EASE, fades, stays } from '../moves'
import { box, dressed, fill, fits, group, shadow, type, NAME_AND_ROLE } from '../parts'

const HOLD = [1.6, 6.7] as const

/** A plain strip that opens from its edge and grows with the name. */
export const quietStrip = defineStart({
  id: 'quiet-strip',
  label: 'Quiet strip',
  kind: 'lower-third',
  character: 'quiet',
  tells: 'A calm lower third for talks and reports; the strip grows with the name.',
  lasts: 8,
  hold: HOLD,
  words: NAME_AND_ROLE,
  colours: [
    { id: 'strip', label: 'Strip', at: ['strip/strip-fill/paint/colour'] },
    { id: 'words', label: 'Name', at: ['name/name-fill/paint/colour'] },
    { id: 'accent', label: 'Edge and role', at: ['edge/edge-fill/paint/colour', 'role/role-fill/paint/colour'] },
  ],
  read: [
    ['words', 'strip'],
    ['accent', 'strip'],
  ],
  palettes: [
    { label: 'Quay at dusk', colours: { strip: '#0E2A33', words: '#FFF6EE', accent: '#F2B95C' } },
    { label: 'Plum', colours: { strip: '#2C1230', words: '#FBEFF7', accent: '#F09AB8' } },
    { label: 'Fog', colours: { strip: '#F3EFE7', words: '#22262B', accent: '#8A3B12' } },
    { label: 'Ink', colours: { strip: '#15171B', words: '#FFFFFF', accent: '#8FD3C7' } },
  ],
  draw(room, { strip, words, accent }) {
    const { u, left, foot, span } = room
    const middle = foot - u(86)
    const out = [HOLD[1], 7.4] as const
    const reveal = {
      ...{ id: 'opening', kind: 'box', name: 'Opening', space: 'card', y: middle, height: u(400) },
      x: stays(room, left, left + span / 2, { in: [0.1, 1.2], out, arrive: EASE.open }),
      width: stays(room, 0, span + u(8), { in: [0.1, 1.2], out, arrive: EASE.open }),
    }
    return {
      pieces: [
        group(
          'lower-third',
          'Lower third',
          [
            type(
              {
                ...{ id: 'name', name: 'Name', wording: 'Odile Marsh', font: 'montserrat-extrabold', size: u(64) },
                ...{ x: left + u(56), y: middle - u(32) },
              },
              {
                ...{ align: 'left', width: span - u(112), opacity: fades(room, [0.5, 1.1], [6.7, 7.1]) },
                ...dressed([fill('name-fill', words)]),
              },
            ),
            type(
              {
                ...{ id: 'role', name: 'Role', wording: 'Boat builder, Oxbow Quay', font: 'barlow-condensed-medium' },
                ...{ size: u(46), x: left + u(57), y: middle + u(36) },
              },
              {
                ...{ align: 'left', tracking: 25, width: span - u(112), opacity: fades(room, [0.7, 1.3], [6.7, 7.1]) },
                ...dressed([fill('role-fill', accent)]),
              },
            ),
            box('edge', 'Edge', {
              ...{ x: left + u(5), y: middle, width: u(10), height: u(172) },
              ...{ fitTo: ['strip'], fitWidth: false, fitX: 'left', padLeft: 0 },
              ...dressed([fill('edge-fill', accent)]),
            }),
            box('strip', 'Strip', {
              ...{ x: left + span / 4, y: middle, width: u(600), height: u(172) },
              ...fits(['name', 'role'], { x: u(56), right: u(64), y: u(40), foot: u(40) }),
              ...dressed(
                [fill('strip-fill', strip, { opacity: 95 })],
                [shadow('strip-shadow', u(6), u(24), { opacity: 35 })],
              ),
            }),
          ],
          { masks: [reveal], x: stays(room, -u(30), 0, { in: [0.2, 1.4], out, arrive: EASE.arrive }) },
        ),
      ],
    }
  },
})
