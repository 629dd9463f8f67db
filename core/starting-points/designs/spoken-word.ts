import type { Draft } from '../definition'
import { defineStart } from '../definition'
import { EASE, fades, keys, stays, sweeps } from '../moves'
import { box, dressed, fill, fits, group, range, shadow, type } from '../parts'
import { byShape } from '../room'

const HOLD = [2.4, 13.6] as const

/** A sentence that somebody said, its words coming into focus, and who it was. */
export const spokenWord = defineStart({
  id: 'spoken-word',
  label: 'Spoken word',
  kind: 'words',
  character: 'quiet',
  tells: 'A quotation whose words come into focus one by one, and who said it.',
  lasts: 15,
  hold: HOLD,
  words: [
    { id: 'quote', label: 'Quotation', at: ['quote/wording'] },
    { id: 'who', label: 'Who said it', at: ['who/wording'] },
  ],
  colours: [
    { id: 'plate', label: 'Plate', at: ['plate/plate-fill/paint/colour'] },
    { id: 'words', label: 'Words', at: ['quote/quote-fill/paint/colour'] },
    {
      ...{ id: 'accent', label: 'Mark and name' },
      at: ['mark/mark-fill/paint/colour', 'who/who-fill/paint/colour', 'rule/rule-fill/paint/colour'],
    },
  ],
  read: [
    ['words', 'plate'],
    ['accent', 'plate'],
  ],
  palettes: [
    { label: 'Lamp', colours: { plate: '#1C1622', words: '#FBF4E6', accent: '#F2B95C' } },
    { label: 'Letter', colours: { plate: '#F6F0E2', words: '#2A221C', accent: '#8E2A22' } },
    { label: 'Deep green', colours: { plate: '#10261F', words: '#F0F6EC', accent: '#9FD8A8' } },
    { label: 'Evening blue', colours: { plate: '#152345', words: '#F4F6FF', accent: '#F3A7A0' } },
  ],
  draw(room, { plate, words, accent }) {
    const { u, width, height, span } = room
    const box1 = byShape(room, { wide: span * 0.58, square: span - u(190), upright: span - u(190) })
    const x = width / 2 - box1 / 2
    const size = u(byShape(room, { wide: 84, square: 74, upright: 80 }))
    const middle = height / 2
    const rail = (id: string, name: string, values: Draft) =>
      box(id, name, {
        ...{ on: false, x: width / 2, y: middle, width: box1, height: u(20), fitTo: ['quote'] },
        ...{ fitWidth: false, fitHeight: false, ...values },
        ...dressed([]),
      })
    return {
      pieces: [
        type(
          {
            ...{ id: 'mark', name: 'Mark', wording: '“', font: 'abril-fatface', size: u(260) },
            ...{ x: 0, y: 0 },
          },
          {
            ...{ align: 'left', along: 'head', overflow: 'straight', opacity: fades(room, [0.4, 0.9], [13.8, 14.3]) },
            scale: stays(room, 40, 100, { in: [0.4, 1.1], out: [13.8, 14.4], arrive: EASE.over }),
            ...dressed([fill('mark-fill', accent)]),
          },
        ),
        type(
          {
            ...{ id: 'quote', name: 'Quotation', font: 'playfair-display-bold-italic', size },
            ...{ wording: 'A boat of paper only has to float once.', x, y: middle },
          },
          {
            ...{ align: 'left', width: box1, wide: 'break', leading: 122 },
            ranges: [
              range('focus', {
                ...{ units: 'words', sweep: sweeps(room, 0.7, 2.4, 14.9), blur: u(14), opacity: 0, y: u(18) },
                ...{ spread: 35, ease: 'early' },
              }),
              range('go', {
                ...{ form: 'leave', units: 'words', blur: u(12), opacity: 0, spread: 60, ease: 'late' },
                sweep: keys(room, [
                  [0, 0],
                  [13.6, 0, EASE.even],
                  [14.3, 100],
                  [14.9, 0],
                ]),
              }),
            ],
            ...dressed([fill('quote-fill', words)]),
          },
        ),
        box('rule', 'Rule', {
          ...{ x: x + u(40), y: 0, width: u(80), height: u(6) },
          ...{ fitTo: ['quote'], fitWidth: false, fitHeight: false, fitX: 'left', fitY: 'foot', padFoot: u(64) },
          stretchX: stays(room, 0, 100, { in: [1.8, 2.3], out: [13.6, 14] }),
          ...dressed([fill('rule-fill', accent)]),
        }),
        type(
          {
            ...{
              id: 'who',
              name: 'Who said it',
              wording: 'Nell Tidewater, boat builder',
              font: 'barlow-condensed-bold',
            },
            ...{ size: u(48), x: 0, y: 0 },
          },
          {
            ...{
              align: 'left',
              tracking: 40,
              along: 'rail',
              overflow: 'straight',
              opacity: fades(room, [2, 2.4], [13.6, 14]),
            },
            ...dressed([fill('who-fill', accent)]),
          },
        ),
        // Unseen: what the mark and the name stand on, above and below however many lines there are.
        rail('head', 'Rail of the mark', { ...{ fitX: 'left', fitY: 'top' }, padTop: -u(20) }),
        rail('rail', 'Rail of the name', { ...{ fitX: 'left', fitY: 'foot' }, padFoot: u(150) }),
        group(
          'ground',
          'Ground',
          [
            box('plate', 'Plate', {
              ...{ x: width / 2, y: middle, width: box1, height: u(520), radius: u(28) },
              ...fits(['mark', 'quote', 'who'], { x: u(78), y: u(70), foot: u(84) }),
              ...dressed(
                [fill('plate-fill', plate, { opacity: 95 })],
                [shadow('plate-shadow', u(14), u(50), { opacity: 50 })],
              ),
            }),
          ],
          {
            ...{ y: stays(room, u(50), 0, { in: [0.1, 0.9], out: [14, 14.7] }) },
            opacity: fades(room, [0.1, 0.6], [14.1, 14.7]),
          },
        ),
      ],
    }
  },
})
