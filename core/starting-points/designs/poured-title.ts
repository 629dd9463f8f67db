import { defineStart } from '../definition'
import { EASE, fades, keys, stays, sweeps } from '../moves'
import { bevel, box, dressed, fill, glow, ramp, range, shadow, stroke, type } from '../parts'
import { byShape } from '../room'

const HOLD = [2, 6.8] as const

/** Cast letters with a carved edge, a rule that is drawn, and a line below. */
export const pouredTitle = defineStart({
  id: 'poured-title',
  label: 'Poured title',
  kind: 'title',
  character: 'relief',
  tells: 'Heavy letters, cast and edged, for an opening that means it.',
  lasts: 8,
  hold: HOLD,
  words: [
    { id: 'title', label: 'Title', at: ['title/wording'] },
    { id: 'below', label: 'Line below', at: ['below/wording'] },
  ],
  colours: [
    {
      ...{ id: 'light', label: 'Light metal' },
      at: ['title/title-fill/paint/stops/1/colour', 'below/below-fill/paint/colour', 'rule/rule-fill/paint/colour'],
    },
    { id: 'dark', label: 'Deep metal', at: ['title/title-fill/paint/stops/0/colour'] },
    {
      ...{ id: 'edge', label: 'Edge' },
      at: ['title/title-edge/paint/colour', 'below/below-edge/paint/colour', 'rule/rule-edge/paint/colour'],
    },
  ],
  read: [['light', 'edge']],
  palettes: [
    { label: 'Gold', colours: { light: '#FFE9A8', dark: '#D98A1F', edge: '#2A1104' } },
    { label: 'Silver', colours: { light: '#F7FAFC', dark: '#8FA3B5', edge: '#101A24' } },
    { label: 'Copper', colours: { light: '#FFD9C2', dark: '#D0693D', edge: '#29090A' } },
    { label: 'Verdigris', colours: { light: '#DDF7E8', dark: '#52A48B', edge: '#04231D' } },
  ],
  draw(room, { light, dark, edge }) {
    const { u, width, height, span } = room
    const size = u(byShape(room, { wide: 204, square: 172, upright: 160 }))
    const middle = height / 2 - u(40)
    return {
      pieces: [
        type(
          {
            ...{ id: 'title', name: 'Title', wording: 'Lantern Regatta', font: 'cinzel-bold', size },
            ...{ x: width / 2, y: middle },
          },
          {
            ...{ width: span - u(60), wide: byShape(room, { wide: 'smaller', square: 'break', upright: 'break' }) },
            leading: 104,
            ranges: [
              range('pour', {
                ...{ sweep: sweeps(room, 0.2, 1.8, 7.9), scale: 40, opacity: 0, y: u(30), spread: 40, ease: 'past' },
                ...{ order: 'centre', pivot: 'foot' },
              }),
              range('go', {
                ...{ form: 'leave', order: 'centre', spread: 50, ease: 'late', opacity: 0, blur: u(10), scale: 112 },
                sweep: keys(room, [
                  [0, 0],
                  [6.9, 0, EASE.even],
                  [7.6, 100],
                  [7.9, 0],
                ]),
              }),
            ],
            finishes: [
              {
                ...{ id: 'shine', kind: 'glint', angle: -15, width: u(90), softness: u(120), amount: 45, falls: 'lit' },
                place: keys(room, [
                  [0, 0],
                  [2.2, 0, EASE.soft],
                  [3.8, 100],
                  [7.9, 0],
                ]),
              },
            ],
            ...dressed(
              [
                bevel('title-bevel', u(9), {
                  profile: 'ogee',
                  relief: 110,
                  smoothing: u(2),
                  litOpacity: 70,
                  shadeOpacity: 55,
                }),
                fill('title-fill', ramp(90, [0, dark], [100, light])),
                stroke('title-edge', u(9), edge),
                stroke('title-rim', u(2), '#FFFFFF', { stacked: true, opacity: 22 }),
              ],
              [
                shadow('title-drop', u(14), u(26), { opacity: 60 }),
                glow('title-warm', u(60), '#000000', { opacity: 35 }),
              ],
            ),
          },
        ),
        box('rule', 'Rule', {
          ...{ x: width / 2, y: height / 2 + u(byShape(room, { wide: 100, square: 186, upright: 190 })), height: u(7) },
          width: stays(room, 0, u(440), { in: [1.1, 1.9], out: [6.8, 7.3] }),
          ...dressed([fill('rule-fill', light), stroke('rule-edge', u(4), edge)]),
        }),
        type(
          {
            ...{ id: 'below', name: 'Line below', wording: 'Oxbow Quay, May' },
            ...{ font: 'barlow-condensed-bold', size: u(52), x: width / 2 },
            y: height / 2 + u(byShape(room, { wide: 164, square: 252, upright: 258 })),
          },
          {
            ...{ tracking: byShape(room, { wide: 140, square: 90, upright: 90 }), width: span - u(40) },
            ...{ letterCase: 'upper', opacity: fades(room, [1.3, 1.9], [6.8, 7.2]) },
            ...dressed(
              [fill('below-fill', light), stroke('below-edge', u(7), edge)],
              [shadow('below-drop', u(6), u(14))],
            ),
          },
        ),
      ],
    }
  },
})
