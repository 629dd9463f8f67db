import { expect, test } from '@jest/globals'
import { readCard } from '#core/card/read'
import { addMotorStart, MOTOR_STARTS } from '#core/edit/motor-starts'
import { seamReport } from '#core/judge/seam'
import { coat, emptyCard, engineWithFonts, solid, withBox } from '../support/engine'

const engine = engineWithFonts()
const box = { id: 'box', x: 160, y: 90, width: 90, height: 40 }
const card = withBox(emptyCard(320, 180, 100), box, { face: [coat('fill', 'f', { paint: solid('#FFFFFF') })] })
const pixels = (one: typeof card, frame: number) => Buffer.from(engine.render(one, frame).pixels.slice())

test.each(MOTOR_STARTS.map((start) => [start.label, start] as const))(
  '%s moves the piece, closes over the loop, and can be read again',
  (_, start) => {
    const moved = addMotorStart(card, ['box'], start, 0)
    expect(readCard(JSON.parse(JSON.stringify(moved))).faults).toBeNull()
    const first = pixels(moved, 0)
    expect([5, 13, 22, 30, 42, 55, 70, 85].some((frame) => !pixels(moved, frame).equals(first))).toBe(true)
    expect(seamReport(moved).filter(({ verdict }) => verdict === 'jump')).toEqual([])
    // Once more puts it behind the first one, and every piece has its own.
    const twice = addMotorStart(moved, ['box'], start, 0)
    expect(JSON.stringify(twice).split('"kind":').length).toBeGreaterThan(JSON.stringify(moved).split('"kind":').length)
  },
)
