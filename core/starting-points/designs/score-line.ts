import { defineStart } from '../definition'
import { EASE, fades, stays } from '../moves'
import { bevel, box, dressed, fill, group, ramp, shadow, type } from '../parts'

const HOLD = [1.5, 6.7] as const

/** Two crews and their points: beside each other where there is room, else one upon the other. */
export const scoreLine = defineStart({
  id: 'score-line',
  label: 'Score line',
  kind: 'score',
  character: 'glossy',
  tells: 'Two crews and their points, beside each other or, in narrow frames, one upon the other.',
  lasts: 8,
  hold: HOLD,
  words: [
    { id: 'home', label: 'First crew', at: ['home/wording'] },
    { id: 'home-points', label: 'Points of the first crew', at: ['home-points/wording'] },
    { id: 'guest', label: 'Second crew', at: ['guest/wording'] },
    { id: 'guest-points', label: 'Points of the second crew', at: ['guest-points/wording'] },
  ],
  colours: [
    { id: 'home', label: 'First crew', at: ['home-plate/home-plate-fill/paint/colour'] },
    { id: 'guest', label: 'Second crew', at: ['guest-plate/guest-plate-fill/paint/colour'] },
    { id: 'words', label: 'Names', at: ['home/home-fill/paint/colour', 'guest/guest-fill/paint/colour'] },
    {
      ...{ id: 'points', label: 'Points' },
      at: ['home-points/home-points-fill/paint/colour', 'guest-points/guest-points-fill/paint/colour'],
    },
    {
      ...{ id: 'board', label: 'Board' },
      at: ['home-board/home-board-fill/paint/colour', 'guest-board/guest-board-fill/paint/colour'],
    },
  ],
  read: [
    ['words', 'home'],
    ['words', 'guest'],
    ['points', 'board'],
  ],
  palettes: [
    {
      label: 'Grebe and Heron',
      colours: { home: '#8C1D36', guest: '#14566B', words: '#FFFFFF', points: '#FFE3A1', board: '#14141B' },
    },
    {
      label: 'Day race',
      colours: { home: '#F0B23A', guest: '#8CCBC0', words: '#1A1712', points: '#1A1712', board: '#FAF6EA' },
    },
    {
      label: 'Pitch',
      colours: { home: '#1E6B3C', guest: '#3A3F8F', words: '#FFFFFF', points: '#FFFFFF', board: '#10131A' },
    },
    {
      label: 'Ice',
      colours: { home: '#DCE9F2', guest: '#F6D9D2', words: '#16202B', points: '#F4F8FB', board: '#1B2B3B' },
    },
  ],
  draw(room, { home, guest, words, points, board }) {
    const { u, width, height, foot, span, shape } = room
    const beside = shape === 'wide'
    const high = u(124)
    const boardWide = u(150)
    const nameWide = beside ? Math.min(u(560), span / 2 - boardWide) : Math.min(u(720), span - boardWide)
    const y = shape === 'upright' ? height * 0.3 : foot - (beside ? high / 2 : high) - u(8)
    const middle = width / 2
    const side = (id: 'home' | 'guest', sign: -1 | 1, crew: string, said: string, count: string, colour: string) => {
      const row = beside ? y : y + (sign * (high + u(6))) / 2
      const boardX = beside
        ? middle + (sign * (boardWide + u(4))) / 2
        : middle + (nameWide + boardWide) / 2 - boardWide / 2
      const plateX = beside ? middle + sign * (boardWide + nameWide / 2 + u(4)) : middle - boardWide / 2
      const away = beside ? -sign * nameWide : 0
      return [
        type(
          {
            id: `${id}-points`,
            name: `${crew}, points`,
            wording: count,
            font: 'anton',
            size: u(96),
            x: boardX,
            y: row,
          },
          {
            ...{ width: boardWide - u(20), features: 'tnum', opacity: fades(room, [0.9, 1.2], [6.8, 7]) },
            scale: stays(room, 160, 100, { in: [0.9, 1.4], out: [6.9, 7.2], arrive: EASE.arrive }),
            ...dressed([fill(`${id}-points-fill`, points)]),
          },
        ),
        box(`${id}-board`, `${crew}, board`, {
          ...{ x: boardX, y: row, width: boardWide, height: high },
          stretchY: stays(room, 0, 100, { in: [0.2, 0.8], out: [7, 7.5] }),
          ...dressed([fill(`${id}-board-gloss`, gloss), fill(`${id}-board-fill`, board)]),
        }),
        group(
          `${id}-side`,
          crew,
          [
            type(
              {
                ...{ id, name: `${crew}, name`, wording: said, font: 'barlow-condensed-bold', size: u(74), y: row },
                x: beside ? plateX : plateX - nameWide / 2 + u(36),
              },
              {
                ...{ align: beside ? 'centre' : 'left', letterCase: 'upper', tracking: 30, width: nameWide - u(70) },
                ...dressed([fill(`${id}-fill`, words)]),
              },
            ),
            box(`${id}-plate`, `${crew}, plate`, {
              ...{ x: plateX, y: row, width: nameWide, height: high },
              ...dressed([
                bevel(`${id}-plate-bevel`, u(5), { relief: 50, litOpacity: 45, shadeOpacity: 35 }),
                fill(`${id}-plate-gloss`, gloss),
                fill(`${id}-plate-fill`, colour),
              ]),
            }),
          ],
          {
            x: stays(room, away, 0, { in: [0.5, 1.2], out: [6.8, 7.4] }),
            masks: [
              {
                ...{ id: `${id}-opening`, kind: 'box', name: 'Opening', space: 'card', y: row, height: high },
                x: beside
                  ? stays(room, middle + sign * (boardWide + u(4)), plateX, { in: [0.5, 1.2], out: [6.8, 7.4] })
                  : stays(room, plateX + nameWide / 2, plateX, { in: [0.5, 1.2], out: [6.8, 7.4] }),
                width: stays(room, 0, nameWide, { in: [0.5, 1.2], out: [6.8, 7.4] }),
              },
            ],
          },
        ),
      ]
    }
    return {
      pieces: [
        group(
          'score',
          'Score',
          [
            ...side('home', -1, 'First crew', 'Grebe', '3', home),
            ...side('guest', 1, 'Second crew', 'Heron', '1', guest),
          ],
          dressed([], [shadow('score-shadow', u(10), u(30), { opacity: 50 })]),
        ),
      ],
    }
  },
})

/** A light upper half, whatever the colour beneath. */
const gloss = ramp(90, [0, '#00000030'], [49, '#00000000'], [51, '#FFFFFF12'], [100, '#FFFFFF38'])
