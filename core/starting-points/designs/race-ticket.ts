import { defineStart } from '../definition'
import { EASE, fades, stays } from '../moves'
import { box, dressed, fill, group, shadow, type } from '../parts'
import { byShape } from '../room'

const HOLD = [1.6, 6.8] as const

/** A ticket with a torn-off stub: what comes next, where and when. */
export const raceTicket = defineStart({
  id: 'race-ticket',
  label: 'Ticket',
  kind: 'next',
  character: 'paper',
  tells: 'A printed ticket with a stub, for what comes next at a fair or a festival.',
  lasts: 8,
  hold: HOLD,
  words: [
    { id: 'what', label: 'What', at: ['what/wording'] },
    { id: 'when', label: 'When', at: ['when/wording'] },
    { id: 'stub', label: 'Stub', at: ['stub/wording'] },
  ],
  colours: [
    { id: 'paper', label: 'Paper', at: ['paper/paper-fill/paint/colour'] },
    {
      ...{ id: 'ink', label: 'Ink' },
      at: [
        ...['what/what-fill/paint/colour', 'when/when-fill/paint/colour', 'stub/stub-fill/paint/colour'],
        ...['border/border-fill/paint/colour', 'tear/tear-fill/paint/colour'],
      ],
    },
  ],
  read: [['ink', 'paper']],
  palettes: [
    { label: 'Cream and wine', colours: { paper: '#F5E6C4', ink: '#6E1423' } },
    { label: 'Pink and navy', colours: { paper: '#F2C6C6', ink: '#1B2450' } },
    { label: 'Mint and pine', colours: { paper: '#CFE8D6', ink: '#123D2E' } },
    { label: 'Night', colours: { paper: '#1F2233', ink: '#F5D27A' } },
  ],
  draw(room, { paper, ink }) {
    const { u, width, height, foot, span } = room
    const wide = Math.min(u(byShape(room, { wide: 1080, square: 900, upright: 900 })), span - u(20))
    const high = u(300)
    const stub = u(230)
    const tear = wide / 2 - stub
    const bodyMiddle = -stub / 2
    const bodyWide = wide - stub - u(110)
    const y = byShape(room, { wide: foot - u(180), square: height / 2, upright: height / 2 })
    const notch = (id: string, x: number, at: number) => ({
      ...{ id, kind: 'ellipse', name: 'Notch', mode: 'take', width: u(56), height: u(56), x, y: at },
    })
    return {
      pieces: [
        group(
          'ticket',
          'Ticket',
          [
            type(
              {
                ...{ id: 'what', name: 'What', wording: 'Boat Parade', font: 'alfa-slab-one', size: u(70) },
                ...{ x: bodyMiddle, y: -u(34) },
              },
              { width: bodyWide, ...dressed([fill('what-fill', ink)]) },
            ),
            type(
              {
                ...{ id: 'when', name: 'When', wording: 'Saturday 18:00', font: 'zilla-slab-bold', size: u(50) },
                ...{ x: bodyMiddle, y: u(52) },
              },
              { width: bodyWide, tracking: 40, ...dressed([fill('when-fill', ink)]) },
            ),
            type(
              {
                ...{ id: 'stub', name: 'Stub', wording: 'Next', font: 'alfa-slab-one', size: u(62) },
                ...{ x: tear + stub / 2 - u(4), y: 0 },
              },
              { rotation: 90, width: high - u(80), ...dressed([fill('stub-fill', ink)]) },
            ),
            box('tear', 'Tear', {
              ...{ x: tear, y: 0, width: u(5), height: high - u(80) },
              ...dressed([fill('tear-fill', ink, { opacity: 55 })]),
            }),
            box('border', 'Border', {
              ...{ x: 0, y: 0, width: wide - u(44), height: high - u(44), radius: u(14) },
              outlineSteps: [{ id: 'border-line', kind: 'line', thickness: u(4) }],
              masks: [
                { ...notch('gap-top', tear, -high / 2), width: u(96), height: u(96) },
                { ...notch('gap-foot', tear, high / 2), width: u(96), height: u(96) },
                { id: 'whole', kind: 'box', name: 'Whole', width: wide, height: high, x: 0, y: 0 },
              ],
              ...dressed([fill('border-fill', ink)]),
            }),
            group(
              'sheet',
              'Sheet',
              [
                box('paper', 'Paper', {
                  ...{ x: 0, y: 0, width: wide, height: high, radius: u(24) },
                  masks: [
                    notch('notch-top', tear, -high / 2),
                    notch('notch-foot', tear, high / 2),
                    { id: 'all', kind: 'box', name: 'All', width: wide + u(8), height: high + u(8), x: 0, y: 0 },
                  ],
                  ...dressed([
                    fill('paper-grain', {
                      ...{ type: 'texture', pattern: 'paper', colour: '#6A4A2A2A', ground: '#00000000', weight: 60 },
                    }),
                    fill('paper-fill', paper),
                  ]),
                }),
              ],
              dressed([], [shadow('sheet-shadow', u(14), u(36), { opacity: 55 })]),
            ),
          ],
          {
            x: stays(room, width / 2 + u(160), width / 2, {
              in: [0.2, 1.1],
              out: [6.9, 7.5],
              gone: width / 2 - u(160),
            }),
            ...{
              y,
              rotation: stays(room, 14, -2.5, { in: [0.2, 1.3], out: [6.9, 7.5], arrive: EASE.over, gone: -12 }),
            },
            opacity: fades(room, [0.2, 0.6], [7.1, 7.5]),
          },
        ),
      ],
    }
  },
})
