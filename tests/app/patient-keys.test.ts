import { expect, test } from '@jest/globals'
import { effectScope, nextTick, ref } from 'vue'
import { usePatientKeys } from '~/composables/patient-keys'

class Press extends Event {
  readonly key: string
  readonly shiftKey: boolean
  constructor(type: string, { key, shiftKey = false }: { key: string; shiftKey?: boolean }) {
    super(type, { cancelable: true })
    this.key = key
    this.shiftKey = shiftKey
  }
}

test('arrow keys wait until it is known where the handles stand; each finds what the one before it did', async () => {
  const stage = new EventTarget()
  const isKnown = ref(true)
  const place = ref(0)
  const heard: string[] = []
  const scope = effectScope()
  scope.run(() => usePatientKeys(ref(stage), () => isKnown.value))
  stage.addEventListener('keydown', (event) => {
    const { key, shiftKey } = event as Press
    heard.push(`${shiftKey ? 'Shift+' : ''}${key} at ${place.value}`)
    isKnown.value = false
  })
  const press = (key: string, shiftKey = false) => stage.dispatchEvent(new Press('keydown', { key, shiftKey }))
  const becomeKnown = async () => {
    // The engine's answer takes its time.
    await nextTick()
    place.value++
    isKnown.value = true
    await nextTick()
    await nextTick()
  }
  press('ArrowLeft')
  // Its key does nothing else while it waits.
  expect(press('ArrowRight', true)).toBe(false)
  press('ArrowUp')
  press('Enter')
  expect(heard).toEqual(['ArrowLeft at 0', 'Enter at 0'])
  await becomeKnown()
  expect(heard.slice(2)).toEqual(['Shift+ArrowRight at 1'])
  await becomeKnown()
  expect(heard.slice(3)).toEqual(['ArrowUp at 2'])
  await becomeKnown()
  expect(heard).toHaveLength(4)
  // Where words are written they move the caret.
  Object.assign(stage, { matches: () => true })
  isKnown.value = false
  press('ArrowRight')
  expect(heard.slice(4)).toEqual(['ArrowRight at 3'])
  scope.stop()
})
