import { defineStart } from '../definition'
import { EASE, fades, keys, stays } from '../moves'
import { box, dressed, fill, fits, type } from '../parts'
import { byShape } from '../room'

const HOLD = [1.6, 6.6] as const

/** A word whose bands fly in from both sides and lock; a plate opens behind it. */
export const cutTitle = defineStart({
  id: 'cut-title',
  label: 'Cut title',
  kind: 'title',
  character: 'bold',
  tells: 'A word in bands that lock from both sides, on a plate that opens with a snap.',
  lasts: 8,
  hold: HOLD,
  shutter: true,
  words: [
    { id: 'word', label: 'Word', at: ['word/wording'] },
    { id: 'above', label: 'Line above', at: ['above/wording'] },
  ],
  colours: [
    { id: 'plate', label: 'Plate', at: ['plate/plate-fill/paint/colour'] },
    { id: 'words', label: 'Word', at: ['word/word-fill/paint/colour'] },
    { id: 'tag', label: 'Tag', at: ['tag/tag-fill/paint/colour'] },
    { id: 'above', label: 'Line above', at: ['above/above-fill/paint/colour'] },
  ],
  read: [
    ['words', 'plate'],
    ['above', 'tag'],
  ],
  palettes: [
    { label: 'Flare', colours: { plate: '#E0492F', words: '#1A0A08', tag: '#1B1420', above: '#FFF3E2' } },
    { label: 'Deep water', colours: { plate: '#0C3A4A', words: '#F5F1E6', tag: '#F2B233', above: '#1B1420' } },
    { label: 'Chalk', colours: { plate: '#F1EEE6', words: '#1E1E24', tag: '#9B2D26', above: '#FFFFFF' } },
    { label: 'Signal', colours: { plate: '#F4D03A', words: '#15151B', tag: '#15151B', above: '#F4D03A' } },
  ],
  draw(room, { plate, words, tag, above }) {
    const { u, width, height, span } = room
    const size = u(byShape(room, { wide: 330, square: 270, upright: 290 }))
    const middle = height / 2 + u(20)
    const [comes, goes] = [
      [0.1, 1.3],
      [6.7, 7.5],
    ] as const
    return {
      pieces: [
        type(
          {
            ...{ id: 'above', name: 'Line above', wording: 'Tonight on the river', font: 'barlow-condensed-bold' },
            ...{ size: u(58), x: 0, y: 0 },
          },
          {
            ...{
              letterCase: 'upper',
              tracking: 120,
              along: 'rail',
              start: 12.5,
              overflow: 'straight',
              opacity: fades(room, [1.1, 1.5], [6.6, 6.9]),
            },
            ...dressed([fill('above-fill', above)]),
          },
        ),
        box('tag', 'Tag', {
          ...{ x: width / 2, y: middle - size * 0.6, width: u(500), height: u(84) },
          ...fits(['above'], { x: u(34), y: u(24) }),
          stretchX: stays(room, 0, 100, { in: [0.9, 1.4], out: [6.7, 7.1], arrive: EASE.arrive }),
          ...dressed([fill('tag-fill', tag)]),
        }),
        type(
          {
            ...{ id: 'word', name: 'Word', wording: 'Finale', font: 'anton', size },
            ...{ x: width / 2, y: middle },
          },
          {
            ...{ letterCase: 'upper', tracking: 20, width: span - u(170) },
            outlineSteps: [
              {
                ...{ id: 'bands', kind: 'slices', by: 'number', number: 5, order: 'alternating' },
                along: keys(room, [
                  [0, width * 1.15],
                  [comes[0], width * 1.15, EASE.arrive],
                  [comes[1], 0],
                  [goes[0], 0, EASE.leave],
                  [goes[1], width * 1.15],
                ]),
              },
            ],
            ...dressed([fill('word-fill', words)]),
          },
        ),
        // Unseen: what the line above stands on, at the head of the plate.
        box('rail', 'Rail of the line above', {
          ...{ on: false, x: width / 2, y: middle - size * 0.6, width: u(900), height: u(900) },
          ...{ fitTo: ['word'], fitWidth: false, fitHeight: false, fitY: 'top', padTop: u(46) },
          ...dressed([]),
        }),
        box('plate', 'Plate', {
          ...{ x: width / 2, y: middle, width: u(1200), height: u(420) },
          ...fits(['word'], { x: u(84), y: u(70) }),
          stretchY: stays(room, 0, 100, { in: [0, 0.6], out: [6.9, 7.5], arrive: EASE.arrive }),
          ...dressed([fill('plate-fill', plate)]),
        }),
      ],
    }
  },
})
