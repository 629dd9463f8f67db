import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { KEY_ACTIONS } from '#core/help/key-actions'
import type { Moving } from '#core/values/moving'
import { setStored, storedAt } from '#core/edit/values'
import { useCounted } from '~/composables/counted'
import { useKeyWork } from '~/composables/key-work'
import { chordOf, useKeys } from '~/composables/keys'
import { NAMES, useRibbonView } from '~/composables/ribbon-view'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { nextTick, ref } from 'vue'
import { freshStores, standInServer, threeBoxes } from './stand-in'

const moving = (...keys: [number, number][]) => ({ keys: keys.map(([frame, value]) => ({ frame, value })) })

afterEach(() => {
  jest.useRealTimers()
})
beforeEach(async () => {
  // What would be saved after a rest is not.
  jest.useFakeTimers()
  freshStores()
  const document = setStored(
    setStored(threeBoxes(), 'front/x', moving([10, 1], [20, 2], [30, 3])),
    'front/opacity',
    moving([10, 50], [40, 100]),
  )
  standInServer({ 'GET /cards/card-1': { id: 'card-1', revision: 1, document } })
  await useBench().open('card-1')
})

const framesOf = (address: string) =>
  (storedAt(useBench().card!, address) as Moving<number>).keys.map(({ frame }) => frame)
const valuesOf = (address: string) =>
  (storedAt(useBench().card!, address) as Moving<number>).keys.map(({ value }) => value)
const choose = (...frames: number[]) => {
  useRibbon().keys = frames.map((frame) => ({ address: 'front/x', frame }))
}
const lastStep = () => useBench().past.at(-1)?.label

describe('the selected keys', () => {
  test('are nudged, quick nudges as one step, and stay selected where they are then', () => {
    choose(10, 20)
    const work = useKeyWork()
    work.nudge(1)
    work.nudge(1)
    expect(framesOf('front/x')).toEqual([12, 22, 30])
    expect(useRibbon().keys.map(({ frame }) => frame)).toEqual([12, 22])
    expect(lastStep()).toBe('Move 2 keys')
    useBench().undo()
    expect(framesOf('front/x')).toEqual([10, 20, 30])
  })

  test('are spread and squeezed about the playhead', () => {
    choose(10, 20, 30)
    useRibbon().frame = 20
    useKeyWork().spread(2)
    expect(framesOf('front/x')).toEqual([0, 20, 40])
    expect(lastStep()).toBe('Spread 3 keys')
    useKeyWork().spread(0.5)
    expect(framesOf('front/x')).toEqual([10, 20, 30])
    expect(lastStep()).toBe('Squeeze 3 keys')
  })

  test('are reversed, eased and taken away', () => {
    choose(10, 30)
    useKeyWork().reverse()
    expect(valuesOf('front/x')).toEqual([3, 2, 1])
    useKeyWork().ease('ease-in')
    const { keys } = storedAt(useBench().card!, 'front/x') as Moving<number>
    expect(keys.map(({ easing }) => easing)).toEqual(['ease-in', undefined, 'ease-in'])
    useKeyWork().remove()
    expect(framesOf('front/x')).toEqual([20])
    expect(useRibbon().keys).toEqual([])
  })

  test('are copied and pasted at the playhead on other pieces', () => {
    choose(10, 20)
    const work = useKeyWork()
    work.copy()
    useBench().select('back')
    useRibbon().frame = 50
    work.paste()
    expect(framesOf('back/x')).toEqual([50, 60])
    expect(useRibbon().keys).toEqual([
      { address: 'back/x', frame: 50 },
      { address: 'back/x', frame: 60 },
    ])
  })

  test('without a copy nothing is pasted', () => {
    useKeyWork().paste()
    expect(useBench().past).toEqual([])
  })
})

describe('the ribbon', () => {
  test('comes round the loop in both directions, to whole frames', () => {
    const ribbon = useRibbon()
    const at = (frame: number) => (ribbon.go(frame, 100), ribbon.frame)
    expect([0, 99.4, 99.6, 100, 250, -1, -101].map(at)).toEqual([0, 99, 0, 0, 50, 99, 99])
  })

  test('keys are chosen alone or beside the others; a chosen one can be let go', () => {
    const ribbon = useRibbon()
    const key = (frame: number) => ({ address: 'front/x', frame })
    ribbon.choose(key(10), false)
    ribbon.choose(key(20), true)
    expect([10, 20, 30].map((frame) => ribbon.isChosen('front/x', frame))).toEqual([true, true, false])
    // A press on one of several leaves them all, for a drag.
    ribbon.choose(key(20), false)
    expect(ribbon.keys).toHaveLength(2)
    ribbon.choose(key(10), true)
    expect(ribbon.keys).toEqual([key(20)])
    // The keys of another value at the same frame, and others of the same value, stay.
    const other = { address: 'front/y', frame: 20 }
    ribbon.choose(other, true)
    ribbon.choose(key(20), true)
    expect(ribbon.keys).toEqual([other])
    ribbon.choose(key(30), false)
    expect(ribbon.keys).toEqual([key(30)])
    ribbon.reset()
    expect(ribbon.keys).toEqual([])
  })

  test('stretches whose pictures are ready', () => {
    const ribbon = useRibbon()
    ribbon.ready = [true, true, false, true, false, false, true]
    expect(ribbon.readyRuns).toEqual([
      [0, 2],
      [3, 4],
      [6, 7],
    ])
  })

  test('frames are counted as the designer wishes', () => {
    const ribbon = useRibbon()
    const counted = useCounted()
    const as = (how: typeof ribbon.counting) => ((ribbon.counting = how), counted(63))
    expect([as('seconds'), as('frames'), as('timecode'), as('drop')]).toEqual([
      '2:13',
      '63',
      '00:00:02:13',
      '00:00:02:13',
    ])
    useBench().edit('Rate', (card) => ({ ...card, rate: { numerator: 30000, denominator: 1001 } }))
    expect(((ribbon.counting = 'drop'), counted(1800))).toBe('00:01:00;02')
  })
})

describe('what the ribbon shows', () => {
  const shown = (view: ReturnType<typeof useRibbonView>) => view.x.value.domain().map((v) => Math.round(v * 1e6) / 1e6)

  const wheel = (values: Partial<WheelEvent>) =>
    ({
      deltaX: 0,
      deltaY: 0,
      clientX: NAMES,
      preventDefault: () => {},
      currentTarget: { getBoundingClientRect: () => ({ left: 0 }) },
      ...values,
    }) as unknown as WheelEvent

  test('is the whole loop and a little beyond the seam', () => {
    const view = useRibbonView(ref(NAMES + 1100))
    expect(shown(view)).toEqual([-5, 105])
    expect(view.isWhole.value).toBe(true)
    expect(view.x.value(0)).toBeCloseTo(NAMES + 50, 6)
  })

  test('is zoomed about the pointer, within limits, and moved along', () => {
    const view = useRibbonView(ref(NAMES + 1100))
    const under = view.x.value.invert(700)
    view.wheel(wheel({ ctrlKey: true, deltaY: -300, clientX: 700 }))
    expect(view.isWhole.value).toBe(false)
    expect(view.x.value.invert(700)).toBeCloseTo(under, 6)
    const [from] = view.x.value.domain() as [number, number]
    view.wheel(wheel({ shiftKey: true, deltaY: 50 }))
    expect(view.x.value.domain()[0]).toBeGreaterThan(from)
    for (let i = 0; i < 40; i++) view.wheel(wheel({ ctrlKey: true, deltaY: -900, clientX: 700 }))
    const [low, high] = view.x.value.domain() as [number, number]
    expect(high - low).toBeCloseTo(12, 6)
    for (let i = 0; i < 40; i++) view.wheel(wheel({ deltaX: 4000 }))
    expect(view.x.value.domain()[1]).toBeLessThan(101)
    for (let i = 0; i < 40; i++) view.wheel(wheel({ ctrlKey: true, deltaY: 900 }))
    expect(shown(view)).toEqual([-5, 105])
  })

  test('a plain wheel scrolls the lanes and not the time', () => {
    const view = useRibbonView(ref(NAMES + 1100))
    view.wheel(wheel({ deltaY: 300 }))
    expect(shown(view)).toEqual([-5, 105])
  })

  test('is the whole again when the loop gets another length', async () => {
    const view = useRibbonView(ref(NAMES + 1100))
    view.wheel(wheel({ ctrlKey: true, deltaY: -300, clientX: 700 }))
    useBench().edit('Length', (card) => ({ ...card, length: 200 }))
    await nextTick()
    expect(shown(view)).toEqual([-10, 210])
  })
})

describe('keys of the keyboard', () => {
  const press = (key: string, held: Partial<KeyboardEvent> = {}) => ({ key, ...held }) as KeyboardEvent

  test('are written as chords', () => {
    expect(chordOf(press('g', { ctrlKey: true, shiftKey: true }))).toBe('Ctrl+Shift+G')
    expect(chordOf(press('Z', { metaKey: true }))).toBe('Ctrl+Z')
    expect(chordOf(press(' '))).toBe('Space')
    expect(chordOf(press('Delete', { shiftKey: true }))).toBe('Shift+Delete')
    expect(chordOf(press('?', { shiftKey: true }))).toBe('?')
    expect(chordOf(press('i', { altKey: true }))).toBe('Alt+I')
    for (const key of ['Shift', 'Control', 'Alt', 'Meta', 'Dead']) expect(chordOf(press(key))).toBeNull()
  })

  test('no two actions share one as they ship', () => {
    const all = Object.values(KEY_ACTIONS).flatMap(({ keys }) => keys)
    expect(new Set(all).size).toBe(all.length)
  })

  test('are the designer’s own: changed, refused where taken, as shipped again', () => {
    const keys = useKeys()
    expect(keys.actionOf(press('c'))).toBe('curves')
    expect(keys.actionOf(press('q'))).toBeNull()
    expect(keys.change('curves', 'Q')).toBeNull()
    expect([keys.actionOf(press('q')), keys.actionOf(press('c'))]).toEqual(['curves', null])
    expect(keys.changed.value).toBe(true)
    expect(keys.change('curves', 'Space')).toContain('Play the loop')
    expect(keys.change('curves', 'Ctrl+ArrowLeft')).toContain('ArrowLeft')
    expect(keys.keysOf('curves')).toEqual(['Q'])
    keys.asShipped()
    expect(keys.actionOf(press('c'))).toBe('curves')
  })
})
