import { defineStart } from '../definition'
import { EASE, fades, stays } from '../moves'
import { box, dressed, fill, fits, group, shadow, type } from '../parts'

const HOLD = [1.5, 6.8] as const

/** A strip across the foot of the frame: what comes next, and when. */
export const nextStrip = defineStart({
  id: 'next-strip',
  label: 'Next strip',
  kind: 'next',
  character: 'quiet',
  tells: 'A strip across the frame that says what comes next, and when.',
  lasts: 8,
  hold: HOLD,
  words: [
    { id: 'tag', label: 'Tag', at: ['tag/wording'] },
    { id: 'what', label: 'What', at: ['what/wording'] },
    { id: 'when', label: 'When', at: ['when/wording'] },
  ],
  colours: [
    { id: 'strip', label: 'Strip', at: ['strip/strip-fill/paint/colour'] },
    { id: 'words', label: 'Words', at: ['what/what-fill/paint/colour', 'when/when-fill/paint/colour'] },
    { id: 'mark', label: 'Tag', at: ['mark/mark-fill/paint/colour', 'rule/rule-fill/paint/colour'] },
    { id: 'tag', label: 'Words of the tag', at: ['tag/tag-fill/paint/colour'] },
  ],
  read: [
    ['words', 'strip'],
    ['tag', 'mark'],
  ],
  palettes: [
    { label: 'Night water', colours: { strip: '#0D2230', words: '#F7F3E8', mark: '#F0A93C', tag: '#1C1204' } },
    { label: 'Paper', colours: { strip: '#F4EFE4', words: '#23201C', mark: '#9B2D26', tag: '#FFFFFF' } },
    { label: 'Moss', colours: { strip: '#1C2B1F', words: '#F2F5E9', mark: '#CFE06A', tag: '#1A2204' } },
    { label: 'Slate', colours: { strip: '#2A2E38', words: '#FFFFFF', mark: '#5CC8E0', tag: '#06222A' } },
  ],
  draw(room, { strip, words, mark, tag: tagColour }) {
    const { u, width, left, right, foot, span, shape } = room
    const inRows = shape !== 'wide'
    const high = u(inRows ? 270 : 150)
    const middle = foot - high / 2
    const row = inRows ? middle - u(34) : middle
    const out = [6.9, 7.6] as const
    return {
      pieces: [
        type(
          {
            ...{ id: 'tag', name: 'Tag', wording: 'Next', font: 'barlow-condensed-bold', size: u(48) },
            ...{ x: left + u(26), y: inRows ? middle - high / 2 : middle },
          },
          {
            ...{
              align: 'left',
              letterCase: 'upper',
              tracking: 120,
              width: u(150),
              opacity: fades(room, [0.9, 1.4], [6.7, 7]),
            },
            ...dressed([fill('tag-fill', tagColour)]),
          },
        ),
        box('mark', 'Mark', {
          ...{ x: left + u(90), y: inRows ? middle - high / 2 : middle, width: u(180), height: u(86) },
          ...fits(['tag'], { x: u(26), y: u(26) }),
          stretchY: stays(room, 0, 100, { in: [0.7, 1.2], out: [6.8, 7.1], arrive: EASE.over }),
          ...dressed([fill('mark-fill', mark)]),
        }),
        type(
          {
            ...{ id: 'what', name: 'What', wording: 'Night race', font: 'montserrat-extrabold', size: u(64) },
            ...{ x: inRows ? left : stays(room, left + u(190), left + u(230), { in: [0.8, 1.4], out }), y: row },
          },
          {
            ...{ align: 'left', width: inRows ? span : span - u(510), opacity: fades(room, [0.8, 1.3], [6.7, 7.1]) },
            ...dressed([fill('what-fill', words)]),
          },
        ),
        type(
          {
            ...{ id: 'when', name: 'When', wording: '21:30', font: 'barlow-condensed-bold', size: u(inRows ? 60 : 72) },
            ...{ x: inRows ? left : right, y: inRows ? middle + u(56) : middle },
          },
          {
            ...{ align: inRows ? 'left' : 'right', features: 'tnum', tracking: 20, width: u(260) },
            ...{ opacity: fades(room, [1, 1.5], [6.7, 7.1]) },
            ...dressed([fill('when-fill', words)]),
          },
        ),
        group(
          'band',
          'Band',
          [
            box('rule', 'Rule', {
              ...{ x: width / 2, y: middle - high / 2, height: u(6) },
              width: stays(room, 0, width + u(40), { in: [0.2, 1.1], out: [6.8, 7.5] }),
              ...dressed([fill('rule-fill', mark)]),
            }),
            box('strip', 'Strip', {
              ...{ x: width / 2, y: middle, width: width + u(120), height: high },
              ...dressed(
                [fill('strip-fill', strip, { opacity: 96 })],
                [shadow('strip-shadow', u(4), u(40), { opacity: 45 })],
              ),
            }),
          ],
          {
            masks: [
              {
                ...{ id: 'opening', kind: 'box', name: 'Opening', space: 'card', x: width / 2, y: middle },
                ...{ width: width * 1.2, feather: 0 },
                height: stays(room, 0, high + u(160), { in: [0.1, 0.9], out }),
              },
            ],
          },
        ),
      ],
    }
  },
})
