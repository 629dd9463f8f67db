import { beforeEach, describe, expect, jest, test } from '@jest/globals'
import { COATS } from '#core/coats/table'
import { setStored } from '#core/edit/values'
import type { Card } from '#core/card/schema'
import { useFoundThings } from '~/composables/found-things'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { useSeals } from '~/stores/seals'
import { withType } from '../support/engine'
import { freshStores, standInServer, threeBoxes } from './stand-in'

// One field that finds everything: what it lists is gone to or done.

const card = (): Card => withType(threeBoxes(), { id: 'words', name: 'Crew name', wording: 'Ada' }, {})

async function opened() {
  standInServer({ 'GET /cards/card-1': { id: 'card-1', revision: 1, document: card() } })
  const bench = useBench()
  await bench.open('card-1')
  const hold = jest.fn()
  const { find } = useFoundThings({ hold })
  return { bench, find, hold }
}

beforeEach(freshStores)

describe('the field finds', () => {
  test('nothing while no card is open', () => {
    expect(useFoundThings({}).find('a')).toEqual([])
  })

  test('pieces by name; the one that is taken is selected', async () => {
    const { bench, find } = await opened()
    const [first] = find('crew name')
    expect(first).toMatchObject({ label: 'Crew name', about: 'Piece, type' })
    first!.run()
    expect(bench.selectedPiece).toBe('words')
  })

  test('values by label, with their piece and coat selected; what does not count just now is not among them', async () => {
    const { bench, find } = await opened()
    const found = find('front stroke width').find(({ id }) => id === 'value front/stroke-front/width')!
    expect(found.about).toMatch(/^Value\. /)
    expect(found.run()).toBe(found.label)
    expect([bench.selectedPiece, bench.selectedPart]).toEqual(['front', 'stroke-front'])
    // A limit of mitres counts for no corner that is round.
    const limits = () => find('mitre limit').map(({ id }) => id)
    expect(limits()).not.toContain('value front/stroke-front/limit')
    bench.edit('Corners', (now) => setStored(now, 'front/stroke-front/join', 'mitre'))
    expect(limits()).toContain('value front/stroke-front/limit')
  })

  test('actions, with their keys, and does them', async () => {
    const { find, hold } = await opened()
    const found = find('play the hold').find(({ id }) => id === 'action hold')!
    expect(found).toMatchObject({ about: 'Action', keys: 'H' })
    found.run()
    expect(hold).toHaveBeenCalledTimes(1)
  })

  test('kinds of piece to add: as one step, and the new piece selected', async () => {
    const { bench, find } = await opened()
    find('add: ellipse')[0]!.run()
    expect(bench.piece).toMatchObject({ kind: 'ellipse' })
    expect(bench.past.map(({ label }) => label)).toEqual(['Add ellipse'])
    bench.undo()
    expect(bench.card!.pieces).toHaveLength(4)
    // Pictures come from files, groups of what is selected.
    for (const kind of ['picture', 'sequence', 'group', 'twin', 'painting']) {
      expect(find('add').map(({ id }) => id)).not.toContain(`add ${kind}`)
    }
  })

  test.each([
    ['Pour', 'glow'],
    ['Form', 'warp'],
    ['Finish', 'blur'],
  ])('%s: %s goes to the selected piece and is selected there', async (verb, kind) => {
    const { bench, find } = await opened()
    bench.select('back')
    const thing = find(`${verb} ${kind}`).find(({ id }) => id === `${verb} ${kind}`)!
    expect(thing.about).toMatch(/^On the selected piece\. /)
    thing.run()
    const { coats, finishes, outlineSteps } = bench.piece!
    const all = [...coats.face, ...coats.behind, ...finishes, ...outlineSteps]
    expect(all.find(({ id }) => id === bench.selectedPart)).toMatchObject({ kind })
    expect(bench.past).toHaveLength(1)
  })

  test('no kinds to pour while nothing is selected, and what was found before does nothing then', async () => {
    const { bench, find } = await opened()
    const pour = find('pour glow')[0]!
    bench.select(null)
    expect(find('pour').some(({ id }) => id.startsWith('Pour'))).toBe(false)
    pour.run()
    expect(bench.past).toEqual([])
  })

  test('seals by their tags, and presses one on all that are selected', async () => {
    const { bench, find } = await opened()
    const { coats } = bench.card!.pieces.find(({ id }) => id === 'middle')!
    const document = { name: 'River rim', tags: ['evening'], variants: [{ name: 'usual', coats, finishes: null }] }
    useSeals().list = [{ id: 'rim', name: 'River rim', revision: 1, updatedAt: '', document }]
    bench.select('front')
    bench.toggleSelected('back')
    const found = find('evening').find(({ id }) => id === 'seal rim')!
    expect(found.label).toBe('Press: River rim')
    found.run()
    for (const id of ['front', 'back']) {
      const piece = bench.card!.pieces.find((one) => one.id === id)!
      expect(piece.coats.face.map(({ kind }) => kind)).toEqual(coats.face.map(({ kind }) => kind))
      expect(piece.seal).toMatchObject({ id: 'rim' })
    }
  })

  test('frames as they are typed, first of all', async () => {
    const { find } = await opened()
    const ribbon = useRibbon()
    const [first] = find('37')
    expect(first!.label).toBe('Frame 37')
    first!.run()
    expect(ribbon.frame).toBe(37)
    expect(find('100000')).not.toContainEqual(expect.objectContaining({ id: 'frame' }))
  })

  test('help on every kind of coat, and never more than a screenful', async () => {
    const { find } = await opened()
    for (const { kind, label } of COATS) {
      expect(find(`${label} coats`).map(({ id }) => id)).toContain(`help coat-${kind}`)
    }
    expect(find('e').length).toBeLessThanOrEqual(40)
  })
})
