import { beforeEach, describe, expect, test } from '@jest/globals'
import { ref } from 'vue'
import type { Card, PaintingPiece } from '#core/card/schema'
import { KEY_ACTIONS } from '#core/help/key-actions'
import type { KeyActionId } from '#core/help/key-actions'
import { setStored } from '#core/edit/values'
import { useBench } from '~/stores/bench'
import { useBrush } from '~/stores/brush'
import { useClipboard } from '~/stores/clipboard'
import { usePanels } from '~/stores/panels'
import { useRibbon } from '~/stores/ribbon'
import { useSeals } from '~/stores/seals'
import { useStage } from '~/stores/stage'
import { engineWithFonts, withPiece, withType } from '../support/engine'
import { freshStores, standInServer, threeBoxes } from './stand-in'

// The keys of the bench: each does what its sheet says, and none where something else has the keyboard.

const engine = engineWithFonts()
let press: (event: KeyboardEvent) => void
let overlay: object | null

// What listens on the window is heard here: a test has none.
Object.assign(globalThis, {
  window: Object.assign(new EventTarget(), {
    addEventListener: (name: string, listener: (event: Event) => void) => {
      if (name === 'keydown') press = listener as typeof press
    },
  }),
})
const { useShortcuts } = await import('~/composables/shortcuts')

beforeEach(() => {
  freshStores()
  overlay = null
  globalThis.document = { hidden: false, querySelector: () => overlay } as unknown as Document
})

const card = (): Card =>
  withPiece<PaintingPiece>(withType(threeBoxes(), { id: 'words', wording: 'Ada', font: 'anton' }, {}), 'painting', {
    id: 'painting',
  })

async function opened() {
  standInServer({
    'GET /cards/card-1': { id: 'card-1', revision: 1, document: card() },
    'PUT /cards/card-1': { revision: 2 },
  })
  const bench = useBench()
  await bench.open('card-1')
  bench.select('front')
  const called: string[] = []
  const outlook = ref(engine.outlook(bench.card!, 0)) as never
  const does = useShortcuts({ showSheet: () => called.push('sheet'), find: () => called.push('find') }, outlook)
  return { bench, ribbon: useRibbon(), does, called }
}

/** Presses a key while something has the focus; tells whether it was taken. */
function key(chord: string, focus = 'body'): boolean {
  const parts = chord.split('+')
  // `+` itself is a key.
  const name = chord.endsWith('+') ? '+' : parts.at(-1)!
  const held = (modifier: string) => parts.slice(0, -1).includes(modifier)
  let taken = false
  press({
    ...{ key: name === 'Space' ? ' ' : name, code: '', ctrlKey: held('Ctrl'), shiftKey: held('Shift') },
    ...{ altKey: held('Alt'), metaKey: false },
    target: { matches: (selector: string) => selector.split(/,\s*/).some((one) => one.replace(/:.*/, '') === focus) },
    preventDefault: () => (taken = true),
  } as unknown as KeyboardEvent)
  return taken
}
const x = (bench: ReturnType<typeof useBench>, id: string) =>
  (bench.card!.pieces.find((piece) => piece.id === id) as unknown as { x: number }).x

describe('keys', () => {
  test('every action of the sheet is done by the bench, but for those of the stage', async () => {
    const { does } = await opened()
    const ofStage: KeyActionId[] = ['zoomIn', 'zoomOut', 'zoomFit']
    const missing = (Object.keys(KEY_ACTIONS) as KeyActionId[]).filter((id) => !does[id])
    expect(missing).toEqual(ofStage)
  })

  test('play, and step through the frames round the seam', async () => {
    const { ribbon } = await opened()
    key('Space')
    expect(ribbon.playing).toBe(true)
    key('Space')
    key(',')
    expect([ribbon.playing, ribbon.frame]).toEqual([false, 99])
    key('.')
    key('End')
    expect(ribbon.frame).toBe(99)
    key('Home')
    expect(ribbon.frame).toBe(0)
    key('h')
    key('c')
    expect([ribbon.holding, ribbon.curvesOpen]).toEqual([true, true])
  })

  test('arrows move all that is selected, quick ones as one step; they leave a slider its own', async () => {
    const { bench } = await opened()
    bench.toggleSelected('back')
    const [front, back] = [x(bench, 'front'), x(bench, 'back')]
    key('ArrowRight')
    key('Shift+ArrowRight')
    expect([x(bench, 'front') - front, x(bench, 'back') - back]).toEqual([11, 11])
    expect(bench.past.map(({ label }) => label)).toEqual(['Move'])
    expect(key('ArrowLeft', 'input[type=range]')).toBe(false)
    bench.select(null)
    expect(key('ArrowLeft')).toBe(false)
    expect(bench.past).toHaveLength(1)
  })

  test('where keys of the ribbon are selected, they are what is moved, copied and taken away', async () => {
    const { bench, ribbon } = await opened()
    const keys = [
      { frame: 0, value: 100, easing: 'linear' },
      { frame: 20, value: 300, easing: 'linear' },
    ]
    bench.edit('Move', (now) => setStored(now, 'front/x', { keys, loop: false }))
    const frames = () => (x(bench, 'front') as unknown as { keys: { frame: number }[] }).keys.map(({ frame }) => frame)
    ribbon.keys = [{ address: 'front/x', frame: 20 }]
    key('Shift+ArrowRight')
    expect(frames()).toEqual([0, 30])
    key('Ctrl+c')
    expect(useClipboard().last).toBe('keys')
    ribbon.go(50, 100)
    key('Ctrl+v')
    expect(frames()).toEqual([0, 30, 50])
    key('Delete')
    expect(frames()).toEqual([0, 30])
    expect(bench.card!.pieces.some(({ id }) => id === 'front')).toBe(true)
  })

  test('a coat that is selected is what is copied, cut, pasted, doubled and taken away; else the pieces', async () => {
    const { bench } = await opened()
    const kinds = () => bench.piece!.coats.face.map(({ kind }) => kind)
    bench.select('front', 'stroke-front')
    key('Ctrl+d')
    expect(kinds()).toEqual(['fill', 'stroke', 'stroke'])
    key('Delete')
    expect(kinds()).toEqual(['fill', 'stroke'])
    bench.select('front', 'fill-front')
    key('Ctrl+x')
    expect(kinds()).toEqual(['stroke'])
    key('Ctrl+v')
    expect(kinds().sort()).toEqual(['fill', 'stroke'])
    bench.select('back')
    const count = bench.card!.pieces.length
    key('Ctrl+c')
    key('Ctrl+v')
    key('Ctrl+d')
    expect(bench.card!.pieces).toHaveLength(count + 2)
    key('Backspace')
    expect(bench.card!.pieces).toHaveLength(count + 1)
    for (let i = 0; i < 20; i++) key('Ctrl+z')
    expect(bench.card).toEqual(card())
    key('Ctrl+y')
    expect(bench.past).toHaveLength(1)
  })

  test('the selection goes outward with Escape: the coat, its piece, nothing', async () => {
    const { bench } = await opened()
    usePanels().whole = true
    bench.select('front', 'stroke-front')
    key('Escape')
    expect([usePanels().whole, bench.selectedPart]).toEqual([false, 'stroke-front'])
    key('Escape')
    expect([bench.selectedPiece, bench.selectedPart]).toEqual(['front', null])
    key('Escape')
    expect(bench.selectedPiece).toBeNull()
    key('Ctrl+a')
    expect(bench.pieces).toHaveLength(5)
    key('Ctrl+g')
    expect(bench.piece!.kind).toBe('group')
    key('Ctrl+Shift+G')
    expect(bench.card!.pieces).toHaveLength(5)
  })

  test('the brush has its keys only where there is something to paint on', async () => {
    const { bench } = await opened()
    const brush = useBrush()
    brush.size = 40
    for (const chord of ['t', 'e', 'b', 'Shift+B']) key(chord)
    expect([brush.taken, brush.erase, brush.size]).toEqual([false, false, 40])
    bench.select('painting')
    for (const chord of ['t', 'e', 'b']) key(chord)
    expect([brush.taken, brush.erase, brush.size]).toEqual([true, true, 46])
    key('n')
    expect(brush.size).toBe(40)
  })

  test('Enter writes the words of the type piece that is selected, unless a button has the focus', async () => {
    const { bench } = await opened()
    const stage = useStage()
    expect(key('Enter')).toBe(false)
    bench.select('words')
    expect(key('Enter', 'button')).toBe(false)
    expect(stage.editedWords).toBeNull()
    expect(key('Enter')).toBe(true)
    expect(stage.editedWords).toBe('words')
  })

  test('open what they name', async () => {
    const { bench, called } = await opened()
    bench.toggleSelected('back')
    key('p')
    expect(useSeals().pressing).toEqual(['front', 'back'])
    key('/')
    key('?')
    expect(called).toEqual(['find', 'sheet'])
    key('i')
    expect(useStage().alone).not.toBeNull()
  })
})

describe('no key is taken', () => {
  test('while somebody types, but to save', async () => {
    const { bench, ribbon } = await opened()
    for (const focus of ['input', 'textarea', 'select', '[contenteditable=true]']) {
      for (const chord of ['Space', 'Delete', 'Ctrl+z', 'ArrowLeft', 'c']) expect(key(chord, focus)).toBe(false)
      expect(key('Ctrl+s', focus)).toBe(true)
    }
    expect([bench.past, ribbon.playing, ribbon.curvesOpen]).toEqual([[], false, false])
  })

  test('while a sheet is open above the bench', async () => {
    const { bench } = await opened()
    overlay = {}
    expect(key('Delete')).toBe(false)
    expect(key('Escape')).toBe(false)
    expect([bench.past, bench.selectedPiece]).toEqual([[], 'front'])
  })

  test('by the ribbon where Space presses a button', async () => {
    const { ribbon } = await opened()
    expect(key('Space', 'button')).toBe(false)
    expect(ribbon.playing).toBe(false)
  })

  test('that means nothing, or before a card is there', async () => {
    await opened()
    expect(key('F7')).toBe(false)
    useBench().$patch({ card: null })
    expect(key('Space')).toBe(false)
  })
})
