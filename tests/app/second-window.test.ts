import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { effectScope, nextTick } from 'vue'
import { useShowing } from '~/composables/showing'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { freshStores, OtherWindows, standInServer, threeBoxes } from './stand-in'

// The window that shows only the picture, on a second screen, in step with the bench.

async function opened() {
  standInServer({ 'GET /cards/card-1': { id: 'card-1', revision: 1, document: threeBoxes() } })
  const bench = useBench()
  await bench.open('card-1')
  OtherWindows.told = []
  const scope = effectScope()
  const showing = scope.run(() => useShowing('card-1'))!
  return { bench, ribbon: useRibbon(), showing, scope }
}
const told = () => OtherWindows.told.splice(0)
let ended = 0

beforeEach(() => {
  freshStores()
  ended = 0
  ;(OtherWindows.prototype as { close?: () => void }).close = () => ended++
})
afterEach(() => {
  delete (OtherWindows.prototype as { close?: () => void }).close
})

describe('the window for a second screen', () => {
  test('is sent nothing while nobody looks, but that the bench is there', async () => {
    const { bench, ribbon } = await opened()
    expect(told()).toEqual(['begun'])
    bench.edit('Name', (card) => ({ ...card, name: 'Other' }))
    ribbon.go(7, 100)
    await nextTick()
    expect(told()).toEqual([])
  })

  test('gets card and frame when it says that it is there, and then what changes', async () => {
    const { bench, ribbon, showing } = await opened()
    ribbon.go(7, 100)
    await nextTick()
    told()
    OtherWindows.say('here')
    expect(told()).toEqual([{ card: bench.card }, { frame: 7 }])
    expect(showing.watched.value).toBe(true)
    bench.edit('Name', (card) => ({ ...card, name: 'Other' }))
    await nextTick()
    expect(told()).toEqual([{ card: expect.objectContaining({ name: 'Other' }) }])
    bench.undo()
    ribbon.go(8, 100)
    await nextTick()
    expect(told()).toEqual([{ card: expect.objectContaining({ name: 'Three boxes' }) }, { frame: 8 }])
  })

  test('what is sent can be copied: none of the interface’s own wrappers', async () => {
    await opened()
    told()
    OtherWindows.say('here')
    expect(() => structuredClone(told())).not.toThrow()
  })

  test('that was closed is sent no more; one that comes again gets all', async () => {
    const { ribbon, showing } = await opened()
    OtherWindows.say('here')
    OtherWindows.say('gone')
    expect(showing.watched.value).toBe(false)
    told()
    ribbon.go(9, 100)
    await nextTick()
    expect(told()).toEqual([])
    OtherWindows.say('here')
    expect(told()).toEqual([{ card: expect.anything() }, { frame: 9 }])
  })

  test('is let go with the bench', async () => {
    const { ribbon, scope } = await opened()
    OtherWindows.say('here')
    told()
    scope.stop()
    ribbon.go(3, 100)
    await nextTick()
    expect([told(), ended]).toEqual([[], 1])
  })
})
