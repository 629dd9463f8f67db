import { defineStart } from '../definition'
import { EASE, fades, keys, stays } from '../moves'
import { bevel, dressed, ellipse, fill, group, shadow, stroke, type } from '../parts'

const FROM = 10
const START = 0.6
const HOLD = [START, START + FROM] as const
const LASTS = START + FROM + 1

/** Ten seconds: a ring that runs out, and a number that ticks. */
export const countdownRing = defineStart({
  id: 'countdown-ring',
  label: 'Countdown',
  kind: 'countdown',
  character: 'relief',
  tells: 'Ten seconds on a dial: a ring that runs out, and a number that ticks.',
  lasts: LASTS,
  hold: HOLD,
  words: [{ id: 'until', label: 'Until', at: ['until/wording'] }],
  colours: [
    { id: 'dial', label: 'Dial', at: ['dial/dial-fill/paint/colour'] },
    { id: 'words', label: 'Number', at: ['number/number-fill/paint/colour', 'until/until-fill/paint/colour'] },
    { id: 'ring', label: 'Ring', at: ['ring/ring-fill/paint/colour'] },
  ],
  read: [
    ['words', 'dial'],
    ['ring', 'dial'],
  ],
  palettes: [
    { label: 'Signal lamp', colours: { dial: '#1A1820', words: '#FFF6E6', ring: '#F2A33C' } },
    { label: 'Starter’s flag', colours: { dial: '#F4EFE2', words: '#1D2026', ring: '#A3271F' } },
    { label: 'Deep water', colours: { dial: '#0C2B38', words: '#F2F8F7', ring: '#5FD3C4' } },
    { label: 'Plum', colours: { dial: '#2A1030', words: '#FFF0FA', ring: '#F08AB4' } },
  ],
  draw(room, { dial, words, ring }) {
    const { u, width, height } = room
    const end = START + FROM
    const seconds = Array.from({ length: FROM }, (_, i) => START + i)
    const out = [end + 0.1, end + 0.6] as const
    return {
      pieces: [
        group(
          'clock',
          'Clock',
          [
            type(
              {
                ...{ id: 'number', name: 'Number', wording: '', font: 'anton', size: u(300) },
                ...{ x: 0, y: -u(30) },
              },
              {
                ...{ width: u(480), features: 'tnum' },
                wording: keys(room, [[0, `${FROM}`], ...seconds.map((at, i) => [at, `${FROM - i}`] as const)]),
                scale: keys(room, [
                  [0, 100],
                  ...seconds.flatMap((at) => [[at, 112, EASE.arrive] as const, [at + 0.5, 100] as const]),
                ]),
                ...dressed([
                  bevel('number-bevel', u(7), {
                    profile: 'ovolo',
                    relief: 80,
                    smoothing: u(2),
                    litOpacity: 40,
                    shadeOpacity: 40,
                  }),
                  fill('number-fill', words),
                ]),
              },
            ),
            type(
              {
                ...{
                  id: 'until',
                  name: 'Until',
                  wording: 'Until the start',
                  font: 'barlow-condensed-bold',
                  size: u(54),
                },
                ...{ x: 0, y: u(180) },
              },
              {
                ...{
                  letterCase: 'upper',
                  tracking: 110,
                  width: u(430),
                  opacity: fades(room, [0.3, 0.6], [end, end + 0.3]),
                },
                ...dressed([fill('until-fill', words)]),
              },
            ),
            ellipse('ring', 'Ring', u(640), {
              ...{ x: 0, y: 0 },
              outlineSteps: [
                {
                  ...{ id: 'ring-drawn', kind: 'draw-on' },
                  end: keys(room, [
                    [0, 100],
                    [START, 100, EASE.even],
                    [end, 0],
                    [LASTS - 0.1, 100],
                  ]),
                },
                // The last of the list works first: a line, of which a part is there.
                { id: 'ring-line', kind: 'line', thickness: u(30), cap: 'round' },
              ],
              ...dressed([
                bevel('ring-bevel', u(8), {
                  profile: 'ovolo',
                  relief: 60,
                  smoothing: u(3),
                  litOpacity: 50,
                  shadeOpacity: 30,
                }),
                fill('ring-fill', ring),
              ]),
            }),
            ellipse('groove', 'Groove', u(640), {
              ...{ x: 0, y: 0 },
              outlineSteps: [{ id: 'groove-line', kind: 'line', thickness: u(38) }],
              ...dressed([
                shadow('groove-shade', u(4), u(10), { side: 'inside', opacity: 60 }),
                fill('groove-fill', '#000000', { opacity: 22 }),
              ]),
            }),
            ellipse('dial', 'Dial', u(760), {
              ...{ x: 0, y: 0 },
              ...dressed(
                [
                  bevel('dial-bevel', u(16), {
                    profile: 'ogee',
                    relief: 70,
                    smoothing: u(3),
                    litOpacity: 45,
                    shadeOpacity: 50,
                  }),
                  stroke('dial-edge', u(3), '#FFFFFF', { side: 'inside', opacity: 12 }),
                  fill('dial-fill', dial),
                ],
                [shadow('dial-shadow', u(18), u(54), { opacity: 60 })],
              ),
            }),
          ],
          {
            ...{ x: width / 2, y: height / 2 },
            scale: stays(room, 70, 100, { in: [0, START], out, arrive: EASE.over }),
            opacity: fades(room, [0, 0.3], [end + 0.2, end + 0.6]),
          },
        ),
      ],
    }
  },
})
