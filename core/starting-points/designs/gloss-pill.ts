import { defineStart } from '../definition'
import { EASE, keys, stays, sweeps } from '../moves'
import { bevel, box, dressed, fill, fits, glow, group, ramp, range, shadow, type, NAME_AND_ROLE } from '../parts'

const HOLD = [1.5, 6.7] as const

/** A glossy button that swells up, with a light passing over it. */
export const glossPill = defineStart({
  id: 'gloss-pill',
  label: 'Gloss pill',
  kind: 'lower-third',
  character: 'glossy',
  tells: 'A glossy pill that swells up, with a light that passes over it once.',
  lasts: 8,
  hold: HOLD,
  words: NAME_AND_ROLE,
  colours: [
    { id: 'pill', label: 'Pill', at: ['pill/pill-fill/paint/colour'] },
    { id: 'words', label: 'Words', at: ['name/name-fill/paint/colour', 'role/role-fill/paint/colour'] },
  ],
  read: [['words', 'pill']],
  palettes: [
    { label: 'Cherry', colours: { pill: '#8E1532', words: '#FFFFFF' } },
    { label: 'Bottle', colours: { pill: '#0B5A4C', words: '#FFFFFF' } },
    { label: 'Ink blue', colours: { pill: '#1A3E8C', words: '#FFFFFF' } },
    { label: 'Honey', colours: { pill: '#F0B840', words: '#2B1600' } },
  ],
  draw(room, { pill, words }) {
    const { u, left, foot, span } = room
    const middle = foot - u(84)
    return {
      pieces: [
        group(
          'lower-third',
          'Lower third',
          [
            type(
              {
                ...{ id: 'name', name: 'Name', wording: 'Tam Voss', font: 'montserrat-extrabold', size: u(66) },
                ...{ x: u(76), y: -u(32) },
              },
              {
                ...{ align: 'left', width: span - u(150) },
                ranges: [
                  range('name-up', {
                    sweep: sweeps(room, 0.7, 1.5, 7.9),
                    y: u(40),
                    opacity: 0,
                    ease: 'past',
                    spread: 45,
                  }),
                ],
                ...dressed([fill('name-fill', words)], [shadow('name-shadow', u(2), u(5), { opacity: 45 })]),
              },
            ),
            type(
              {
                ...{ id: 'role', name: 'Role', wording: 'Pilot of the Grebe', font: 'montserrat-medium', size: u(48) },
                ...{ x: u(77), y: u(38) },
              },
              {
                ...{ align: 'left', width: span - u(150) },
                ranges: [
                  range('role-up', {
                    sweep: sweeps(room, 0.9, 1.5, 7.9),
                    y: u(30),
                    opacity: 0,
                    ease: 'early',
                    spread: 60,
                  }),
                ],
                ...dressed([fill('role-fill', words)]),
              },
            ),
            box('pill', 'Pill', {
              ...{ x: u(310), y: 0, width: u(620), height: u(168), radius: u(400) },
              ...fits(['name', 'role'], { x: u(76), right: u(84), y: u(36), foot: u(38) }),
              ...dressed(
                [
                  bevel('pill-bevel', u(22), {
                    profile: 'ovolo',
                    relief: 60,
                    smoothing: u(8),
                    litOpacity: 55,
                    shadeOpacity: 35,
                  }),
                  glow('pill-light', u(34), '#FFFFFF', { side: 'inside', opacity: 14, blend: 'screen' }),
                  fill(
                    'pill-sky',
                    ramp(90, [0, '#00000033'], [48, '#00000000'], [50, '#FFFFFF0E'], [100, '#FFFFFF3A']),
                  ),
                  fill('pill-fill', pill),
                ],
                [shadow('pill-shadow', u(12), u(34), { opacity: 50 })],
              ),
            }),
          ],
          {
            ...{ x: left, y: middle },
            scale: stays(room, 0, 100, { in: [0.2, 0.9], out: [6.8, 7.4], arrive: EASE.over }),
            opacity: stays(room, 0, 100, { in: [0.2, 0.4], out: [7.1, 7.4], arrive: 'ease-out', leave: 'ease-in' }),
            finishes: [
              {
                ...{ id: 'passing-light', kind: 'glint', angle: -18, width: u(70), softness: u(90), amount: 55 },
                place: keys(room, [
                  [0, 0],
                  [1.5, 0, EASE.soft],
                  [2.6, 100],
                  [7.9, 0],
                ]),
              },
            ],
          },
        ),
      ],
    }
  },
})
