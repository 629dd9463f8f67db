import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import type { Card, GroupPiece } from '#core/card/schema'
import { useStackWork } from '~/composables/stack-work'
import { useBench } from '~/stores/bench'
import { useClipboard } from '~/stores/clipboard'
import { useNotices } from '~/stores/notices'
import { useRibbon } from '~/stores/ribbon'
import { useStage } from '~/stores/stage'
import { freshStores, standInServer, threeBoxes } from './stand-in'

async function stack() {
  freshStores()
  standInServer({ 'GET /cards/card-1': { id: 'card-1', revision: 1, document: threeBoxes() } })
  const bench = useBench()
  await bench.open('card-1')
  return { bench, work: useStackWork() }
}

let { bench, work } = {} as Awaited<ReturnType<typeof stack>>
beforeEach(async () => {
  // What would be saved after a rest is not.
  jest.useFakeTimers()
  ;({ bench, work } = await stack())
})
afterEach(() => {
  jest.useRealTimers()
})

const ids = (card: Card | null = bench.card) => card!.pieces.map(({ id }) => id)
const piece = (id: string) => bench.card!.pieces.find((one) => one.id === id)!
const faceOf = (id: string) => piece(id).coats.face.map((coat) => coat.id)
const lastStep = () => bench.past.at(-1)?.label

describe('pieces', () => {
  test('are duplicated together as one step, and the copies selected', () => {
    bench.selectAll(['front', 'back'])
    work.duplicatePieces(work.together(piece('front')))
    expect(bench.card!.pieces.map(({ name }) => name)).toEqual(['front, copy', 'front', 'middle', 'back, copy', 'back'])
    expect(bench.pieces.map(({ name }) => name)).toEqual(['front, copy', 'back, copy'])
    expect(lastStep()).toBe('Duplicate 2 pieces')
    bench.undo()
    expect(ids()).toEqual(['front', 'middle', 'back'])
  })

  test('one that is not selected stands alone', () => {
    bench.selectAll(['front', 'back'])
    expect(work.together(piece('middle')).map(({ id }) => id)).toEqual(['middle'])
    work.removePieces(work.together(piece('middle')))
    expect(ids()).toEqual(['front', 'back'])
    expect(lastStep()).toBe('Delete middle')
  })

  test('are copied and pasted in front, with ids of their own, again and again', () => {
    bench.selectAll(['middle'])
    work.copyPieces(bench.pieces)
    expect(useNotices().current).toMatchObject({ text: 'Copied: middle', bad: false })
    work.paste()
    work.paste()
    expect(bench.card!.pieces.map(({ name }) => name)).toEqual(['middle', 'middle', 'front', 'middle', 'back'])
    expect(new Set(ids()).size).toBe(5)
    expect(bench.selection).toEqual([ids()[0]])
  })

  test('are switched and locked together', () => {
    work.setOn(bench.card!.pieces, false)
    expect(bench.card!.pieces.map(({ on }) => on)).toEqual([false, false, false])
    expect(lastStep()).toBe('3 pieces off')
    work.setLocked([piece('front')], true)
    expect(piece('front').locked).toBe(true)
    expect(lastStep()).toBe('Lock front')
  })

  test('one whose eye moves gets a key at the playhead', () => {
    bench.edit('Keys', (card) => ({
      ...card,
      pieces: card.pieces.map((one) =>
        one.id === 'front' ? { ...one, on: { keys: [{ frame: 0, value: true }] } } : one,
      ),
    }))
    useRibbon().frame = 12
    work.setOn([piece('front')], false)
    expect(piece('front').on).toEqual({
      keys: [
        { frame: 0, value: true },
        { frame: 12, value: false },
      ],
    })
  })

  test('are grouped about the middle of what they are, and taken apart where they stood', () => {
    const outlook = ['front', 'middle'].map((id, i) => ({
      id,
      bounds: { left: 100 * i, top: 0, right: 100 * i + 60, bottom: 40 },
      parent: { scale: 1, rotation: 0, x: 0, y: 0 },
    }))
    expect(work.groupable([piece('front'), piece('middle')])).toBe(true)
    work.group([piece('front'), piece('middle')], outlook as never)
    const group = bench.piece as GroupPiece
    expect(group.pieces.map(({ id }) => id)).toEqual(['front', 'middle'])
    expect({ x: group.anchorX, y: group.anchorY }).toEqual({ x: 80, y: 20 })
    work.ungroup(group)
    expect(ids()).toEqual(['front', 'middle', 'back'])
    expect(piece('front')).toMatchObject({ x: 300, y: 90 })
    expect(bench.selection).toEqual(['front', 'middle'])
  })

  test('are seen alone, and with the others again', () => {
    const stage = useStage()
    work.see('front', null)
    expect(stage.alone).toEqual({ piece: 'front', part: null })
    work.see('front', 'fill-front')
    expect(stage.alone).toEqual({ piece: 'front', part: 'fill-front' })
    work.see('front', 'fill-front')
    expect(stage.alone).toBeNull()
  })
})

describe('coats', () => {
  const stroke = () => piece('front').coats.face[1]!

  test('are duplicated in front of themselves and selected', () => {
    work.duplicateCoatOf(piece('front'), stroke())
    expect(faceOf('front')).toEqual(['fill-front', 'stroke-1', 'stroke-front'])
    expect(bench.coat?.id).toBe('stroke-1')
    expect(lastStep()).toBe('Duplicate stroke, outside')
  })

  test('are taken away, the piece stays selected', () => {
    bench.select('front', 'stroke-front')
    work.removeCoatOf(piece('front'), stroke())
    expect(faceOf('front')).toEqual(['fill-front'])
    expect(bench.selectedPart).toBeNull()
    expect(bench.selectedPiece).toBe('front')
  })

  test('are renamed by hand; the same name is no step', () => {
    work.renameCoat(piece('front'), stroke(), 'Rim')
    expect(stroke().name).toBe('Rim')
    const steps = bench.past.length
    work.renameCoat(piece('front'), stroke(), 'Rim')
    expect(bench.past).toHaveLength(steps)
  })

  test('one is pasted on several pieces; it is what was copied last that is pasted', () => {
    const clipboard = useClipboard()
    work.copyPieces([piece('back')])
    clipboard.keepCoat(stroke())
    bench.selectAll(['middle', 'back'])
    work.paste()
    expect(faceOf('middle')).toHaveLength(3)
    expect(faceOf('back')).toHaveLength(3)
    expect(bench.coat?.kind).toBe('stroke')
    expect(ids()).toHaveLength(3)
    bench.select(null)
    work.paste()
    expect(ids()).toHaveLength(4)
  })

  test('a whole core is copied, pasted in place of others, and cleared', () => {
    work.pasteCores([piece('back')])
    expect(bench.past).toEqual([])
    work.copyCore(piece('front'))
    work.pasteCores([piece('middle'), piece('back')])
    const widths = bench.card!.pieces.map(({ coats }) => coats.face[1]!.width)
    expect(widths).toEqual([6, 6, 6])
    expect(new Set(bench.card!.pieces.flatMap(({ coats }) => coats.face.map(({ id }) => id))).size).toBe(6)
    work.clearCores([piece('back')])
    expect(faceOf('back')).toEqual([])
  })
})
