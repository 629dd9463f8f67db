import { defineStart } from '../definition'
import { EASE, fades, keys, stays } from '../moves'
import { bevel, box, dressed, ellipse, fill, fits, group, shadow, type } from '../parts'
import { byShape } from '../room'

const HOLD = [1.7, 6.7] as const

/** A pin that drops, a ring that spreads from where it lands, and the name of the place. */
export const mapPin = defineStart({
  id: 'map-pin',
  label: 'Map pin',
  kind: 'place',
  character: 'quiet',
  tells: 'A pin drops and the name of the place opens beside it.',
  lasts: 8,
  hold: HOLD,
  words: [
    { id: 'place', label: 'Place', at: ['place/wording'] },
    { id: 'about', label: 'About it', at: ['about/wording'] },
  ],
  colours: [
    { id: 'pin', label: 'Pin', at: ['pin/pin-fill/paint/colour', 'ring/ring-fill/paint/colour'] },
    { id: 'plate', label: 'Plate', at: ['plate/plate-fill/paint/colour', 'eye/eye-fill/paint/colour'] },
    { id: 'words', label: 'Words', at: ['place/place-fill/paint/colour', 'about/about-fill/paint/colour'] },
  ],
  read: [
    ['words', 'plate'],
    ['pin', 'plate'],
  ],
  palettes: [
    { label: 'Buoy', colours: { pin: '#F0563A', plate: '#12212B', words: '#F6F2E8' } },
    { label: 'Chart', colours: { pin: '#8C2B16', plate: '#F3ECDA', words: '#1E2A33' } },
    { label: 'Reed', colours: { pin: '#C4DE5A', plate: '#1A2A20', words: '#F1F5E6' } },
    { label: 'Harbour', colours: { pin: '#FFC24A', plate: '#132B52', words: '#FFFFFF' } },
  ],
  draw(room, { pin, plate, words }) {
    const { u, left, foot, span } = room
    const x = left + u(80)
    const y = foot - u(byShape(room, { wide: 70, square: 80, upright: 80 }))
    const textX = left + u(230)
    const out = [6.8, 7.4] as const
    const ringScale = keys(room, [
      [0, 0],
      [0.9, 10, 'ease-out'],
      [1.7, 100],
      [7.9, 0],
    ])
    return {
      pieces: [
        group(
          'pin-all',
          'Pin',
          [
            ellipse('eye', 'Eye', u(44), { x: 0, y: -u(112), ...dressed([fill('eye-fill', plate)]) }),
            {
              ...{ kind: 'path', id: 'pin', name: 'Pin', x: 0, y: -u(72), path: pinPath(u(1)) },
              ...dressed(
                [
                  bevel('pin-bevel', u(12), {
                    profile: 'ovolo',
                    relief: 50,
                    smoothing: u(5),
                    litOpacity: 55,
                    shadeOpacity: 35,
                  }),
                  fill('pin-fill', pin),
                ],
                [shadow('pin-shadow', u(6), u(14), { opacity: 50 })],
              ),
            },
          ],
          {
            x,
            y: stays(room, y - u(260), y, { in: [0.3, 1], out, arrive: EASE.fall }),
            opacity: fades(room, [0.3, 0.5], [7, 7.4]),
            stretchY: keys(room, [
              [0, 100],
              [0.98, 100, 'ease-out'],
              [1.1, 84, EASE.over],
              [1.5, 100],
            ]),
          },
        ),
        ellipse('ring', 'Ring', u(150), {
          ...{ x, y, stretchY: 42, scale: ringScale },
          opacity: keys(room, [
            [0, 0],
            [0.98, 90, 'ease-in'],
            [1.7, 0],
          ]),
          outlineSteps: [{ id: 'ring-line', kind: 'line', thickness: u(8) }],
          ...dressed([fill('ring-fill', pin)]),
        }),
        group(
          'sign',
          'Name of the place',
          [
            type(
              {
                ...{ id: 'place', name: 'Place', wording: 'Oxbow Quay', font: 'oswald-semibold', size: u(68) },
                ...{ x: textX, y: y - u(82) },
              },
              { align: 'left', tracking: 10, width: span - u(290), ...dressed([fill('place-fill', words)]) },
            ),
            type(
              {
                ...{
                  id: 'about',
                  name: 'About it',
                  wording: 'Where the river turns',
                  font: 'barlow-condensed-medium',
                },
                ...{ size: u(44), x: textX + u(1), y: y - u(18) },
              },
              {
                ...{ align: 'left', tracking: 20, width: span - u(290), opacity: fades(room, [1.3, 1.7], [6.7, 7]) },
                ...dressed([fill('about-fill', words)]),
              },
            ),
            box('plate', 'Plate', {
              ...{ x: textX + u(200), y: y - u(52), width: u(560), height: u(150), radius: u(14) },
              ...fits(['place', 'about'], { x: u(40), right: u(48), y: u(36), foot: u(38) }),
              ...dressed(
                [fill('plate-fill', plate, { opacity: 95 })],
                [shadow('plate-shadow', u(6), u(26), { opacity: 40 })],
              ),
            }),
          ],
          {
            x: stays(room, -u(60), 0, { in: [0.9, 1.6], out }),
            masks: [
              {
                ...{ id: 'opening', kind: 'box', name: 'Opening', space: 'card', y: y - u(52), height: u(420) },
                x: stays(room, x + u(60), (x + u(60) + room.width) / 2, { in: [0.8, 1.7], out, arrive: EASE.open }),
                width: stays(room, 0, room.width - x - u(60), { in: [0.8, 1.7], out, arrive: EASE.open }),
              },
            ],
          },
        ),
      ],
    }
  },
})

/** A drop with its point down at 0, 72 below its middle: a circle of radius 58 whose sides run into a point. */
function pinPath(u: number): string {
  const n = (value: number) => Math.round(value * u * 100) / 100
  return `M 0 ${n(72)} C ${n(-14)} ${n(36)} ${n(-58)} ${n(8)} ${n(-58)} ${n(-40)} C ${n(-58)} ${n(-72)} ${n(-32)} ${n(-98)} 0 ${n(-98)} C ${n(32)} ${n(-98)} ${n(58)} ${n(-72)} ${n(58)} ${n(-40)} C ${n(58)} ${n(8)} ${n(14)} ${n(36)} 0 ${n(72)} Z`
}
