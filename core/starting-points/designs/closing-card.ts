import { defineStart } from '../definition'
import { EASE, fades, keys, stays, sweeps } from '../moves'
import { bevel, box, dressed, fill, ramp, range, shadow, type } from '../parts'
import { byShape } from '../room'

const HOLD = [2, 8.6] as const

/** A whole picture with a ground of its own: thanks, and where to go on. */
export const closingCard = defineStart({
  id: 'closing-card',
  label: 'Closing card',
  kind: 'closing',
  character: 'relief',
  tells: 'A whole picture with its own ground: thanks, and where to find you.',
  lasts: 10,
  hold: HOLD,
  words: [
    { id: 'thanks', label: 'Thanks', at: ['thanks/wording'] },
    { id: 'where', label: 'Line below', at: ['where/wording'] },
  ],
  colours: [
    { id: 'ground', label: 'Ground', at: ['background/colour'] },
    { id: 'words', label: 'Thanks', at: ['thanks/thanks-fill/paint/colour'] },
    { id: 'accent', label: 'Rule and line', at: ['rule/rule-fill/paint/colour', 'where/where-fill/paint/colour'] },
  ],
  read: [
    ['words', 'ground'],
    ['accent', 'ground'],
  ],
  palettes: [
    { label: 'Velvet', colours: { ground: '#4A1024', words: '#FBE9C8', accent: '#F2B95C' } },
    { label: 'Clay', colours: { ground: '#E3D6C3', words: '#4A2C1C', accent: '#7C2E1C' } },
    { label: 'Pond', colours: { ground: '#12383A', words: '#EAF5EC', accent: '#A7DCC2' } },
    { label: 'Slate', colours: { ground: '#23262F', words: '#F3F1EC', accent: '#E8A08C' } },
  ],
  draw(room, { ground, words, accent }) {
    const { u, width, height, span } = room
    const size = u(byShape(room, { wide: 150, square: 124, upright: 128 }))
    const middle = height / 2 - u(50)
    const below = byShape(room, { wide: 108, square: 150, upright: 156 })
    return {
      background: { type: 'solid', colour: ground },
      pieces: [
        type(
          {
            ...{ id: 'thanks', name: 'Thanks', wording: 'See you next May', font: 'abril-fatface', size },
            ...{ x: width / 2, y: middle },
          },
          {
            ...{ width: byShape(room, { wide: span - u(60), square: u(640), upright: u(660) }), leading: 108 },
            wide: byShape(room, { wide: 'smaller', square: 'break', upright: 'break' }),
            ranges: [
              range('rise', {
                ...{ units: 'words', sweep: sweeps(room, 0.3, 1.8, 9.8), y: u(46), opacity: 0, blur: u(10) },
                ...{ spread: 55, ease: 'early' },
              }),
              range('go', {
                ...{ form: 'leave', units: 'words', y: -u(30), opacity: 0, blur: u(10), spread: 60, ease: 'late' },
                sweep: keys(room, [
                  [0, 0],
                  [8.6, 0, EASE.even],
                  [9.4, 100],
                  [9.8, 0],
                ]),
              }),
            ],
            ...dressed(
              [
                bevel('thanks-bevel', u(5), {
                  profile: 'ovolo',
                  relief: 70,
                  smoothing: u(1.5),
                  litOpacity: 60,
                  shadeOpacity: 40,
                }),
                fill('thanks-fill', words),
              ],
              [shadow('thanks-shadow', u(8), u(18), { opacity: 45 })],
            ),
          },
        ),
        box('rule', 'Rule', {
          ...{ x: width / 2, y: middle + u(below), height: u(5) },
          width: stays(room, 0, u(300), { in: [1.1, 1.9], out: [8.6, 9.2] }),
          ...dressed([fill('rule-fill', accent)]),
        }),
        type(
          {
            ...{
              id: 'where',
              name: 'Line below',
              wording: 'Lantern Regatta, Oxbow Quay',
              font: 'barlow-condensed-bold',
            },
            ...{ size: u(52), x: width / 2, y: middle + u(below + 72) },
          },
          {
            ...{ letterCase: 'upper', tracking: 150, width: span - u(60), opacity: fades(room, [1.4, 2], [8.6, 9.1]) },
            ...dressed([fill('where-fill', accent)]),
          },
        ),
        {
          ...{ kind: 'wash', id: 'air', name: 'Light of the room' },
          finishes: [
            { id: 'dark-edges', kind: 'vignette', amount: 26, radius: 130, softness: 110 },
            { id: 'dust', kind: 'grain', amount: 2.5, size: 1.6, every: 0 },
          ],
        },
        box('glow-field', 'Sheen', {
          ...{ x: width / 2, y: height / 2, width: width + u(40), height: height + u(40) },
          ...dressed([fill('sheen-fill', ramp(70, [0, '#00000038'], [60, '#00000000'], [100, '#FFFFFF14']))]),
        }),
      ],
    }
  },
})
