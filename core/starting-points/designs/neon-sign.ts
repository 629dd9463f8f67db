import { defineStart } from '../definition'
import { EASE, fades, keys, stays } from '../moves'
import type { Room } from '../room'
import { byShape } from '../room'
import { bevel, box, dressed, fill, fits, glow, group, ramp, shadow, stroke, type } from '../parts'

const HOLD = [2.2, 6.9] as const

/** Glass tubes on a board: they are lit with a stutter, burn, and go out. */
export const neonSign = defineStart({
  id: 'neon-sign',
  label: 'Neon sign',
  kind: 'title',
  character: 'neon',
  tells: 'Tubes on a dark board that stutter on, hum, and go out.',
  lasts: 8,
  hold: HOLD,
  words: [
    { id: 'sign', label: 'Sign', at: ['sign/wording'] },
    { id: 'below', label: 'Line below', at: ['below/wording'] },
  ],
  colours: [
    {
      ...{ id: 'tube', label: 'Tube' },
      at: ['sign/sign-near/paint/colour', 'sign/sign-far/paint/colour', 'sign/sign-core/paint/colour'],
    },
    {
      ...{ id: 'second', label: 'Second tube' },
      at: [
        ...['below/below-near/paint/colour', 'below/below-core/paint/colour'],
        ...['ring/ring-near/paint/colour', 'ring/ring-far/paint/colour', 'ring/ring-core/paint/colour'],
      ],
    },
    { id: 'board', label: 'Board', at: ['board/board-fill/paint/colour'] },
  ],
  read: [
    ['tube', 'board'],
    ['second', 'board'],
  ],
  palettes: [
    { label: 'Rose and ice', colours: { tube: '#FF5C93', second: '#4FDCFF', board: '#140D1C' } },
    { label: 'Amber and mint', colours: { tube: '#FFB02E', second: '#5CF2B8', board: '#0E1412' } },
    { label: 'Violet and lime', colours: { tube: '#B48CFF', second: '#C8F24E', board: '#0F0B1A' } },
    { label: 'Red and white', colours: { tube: '#FF6A5C', second: '#FFF1D6', board: '#170B0B' } },
  ],
  draw(room, { tube, second, board }) {
    const { u, width, height, span } = room
    const middle = height / 2 - u(20)
    const size = u(byShape(room, { wide: 210, square: 168, upright: 170 }))
    const halo = u(110)
    return {
      pieces: [
        group(
          'all',
          'Sign',
          [
            type(
              {
                ...{ id: 'sign', name: 'Sign', wording: 'Night Race', font: 'pacifico', size },
                ...{ x: width / 2, y: middle },
              },
              {
                ...{ width: span - u(180), opacity: stutters(room, 0.9) },
                ...dressed(
                  [
                    glow('sign-core', u(9), tube, { side: 'inside', opacity: 70, falloff: 'cavetto' }),
                    fill('sign-fill', '#FFFFFF'),
                  ],
                  [
                    glow('sign-near', u(22), tube, {
                      blend: 'screen',
                      opacity: 44,
                      falloff: 'linear',
                      knockOut: false,
                    }),
                    glow('sign-far', halo, tube, { blend: 'screen', opacity: 50, knockOut: false }),
                  ],
                ),
              },
            ),
            type(
              {
                ...{ id: 'below', name: 'Line below', wording: 'Every lantern lit', font: 'montserrat-extrabold' },
                ...{
                  size: u(50),
                  x: width / 2,
                  y: middle + u(byShape(room, { wide: 228, square: 190, upright: 192 })),
                },
              },
              {
                ...{
                  letterCase: 'upper',
                  tracking: byShape(room, { wide: 220, square: 180, upright: 110 }),
                  width: span - u(220),
                  opacity: lights(room, 1.7),
                },
                ...dressed(
                  [
                    glow('below-core', u(5), second, { side: 'inside', opacity: 55, falloff: 'cavetto' }),
                    fill('below-fill', '#FFFFFF'),
                  ],
                  [
                    glow('below-near', u(22), second, {
                      blend: 'screen',
                      opacity: 44,
                      falloff: 'linear',
                      knockOut: false,
                    }),
                  ],
                ),
              },
            ),
            box('ring', 'Ring', {
              ...{ x: width / 2, y: middle + u(40), width: u(900), height: u(440), radius: u(64) },
              ...fits(['sign', 'below'], { x: u(64), y: u(110), foot: u(70) }),
              opacity: lights(room, 0.4),
              outlineSteps: [{ id: 'ring-line', kind: 'line', thickness: u(11) }],
              ...dressed(
                [
                  glow('ring-core', u(4), second, { side: 'inside', opacity: 70, falloff: 'ovolo' }),
                  fill('ring-fill', '#FFFFFF'),
                ],
                [
                  glow('ring-near', u(24), second, { blend: 'screen', opacity: 90, falloff: 'ovolo', knockOut: false }),
                  glow('ring-far', halo, second, { blend: 'screen', opacity: 40, knockOut: false }),
                ],
              ),
            }),
            box('board', 'Board', {
              ...{ x: width / 2, y: middle + u(40), width: u(1000), height: u(540), radius: u(90) },
              ...fits(['ring'], { x: u(44), y: u(44) }),
              ...dressed(
                [
                  bevel('board-bevel', u(10), { profile: 'ovolo', relief: 60, litOpacity: 40, shadeOpacity: 60 }),
                  stroke('board-edge', u(3), '#FFFFFF', { side: 'inside', opacity: 10 }),
                  fill('board-sky', ramp(90, [0, '#00000055'], [100, '#FFFFFF14'])),
                  fill('board-fill', board),
                ],
                [shadow('board-drop', u(20), u(60), { opacity: 65 })],
              ),
            }),
          ],
          {
            ...{ x: 0, y: stays(room, u(40), 0, { in: [0, 0.5], out: [7.2, 7.8], arrive: EASE.arrive }) },
            opacity: fades(room, [0, 0.35], [7.3, 7.8]),
          },
        ),
      ],
    }
  },
})

/** Comes on, fails once, and burns: no three flashes in a second, with all tubes (WCAG 2.2, 2.3.1). */
const stutters = (room: Room, from: number) =>
  keys(room, [
    [0, 0],
    [from, 60],
    [from + 0.12, 10],
    [from + 0.6, 100, EASE.soft],
    [4.2, 95, EASE.soft],
    [6.9, 100],
    [7, 40, 'ease-in'],
    [7.3, 0],
  ])

/** Comes on at once. */
const lights = (room: Room, from: number) =>
  keys(room, [
    [0, 0],
    [from, 30, 'ease-out'],
    [from + 0.3, 100],
    [6.9, 100],
    [7, 40, 'ease-in'],
    [7.3, 0],
  ])
