import { computed } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { changeUnit, toggleKey, writeValue } from '#core/card/edit/values'
import { isMoving } from '#core/card/moving'
import { defaultOf } from '#core/card/parameters'
import { currentValue } from '#core/time/evaluate'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'

/** One parameter as its control sees it: the value at the playhead, and what a hand can do with it. */
export function useParameter(place: () => ParameterPlace, reference: () => number = () => 0) {
  const bench = useBench()
  const ribbon = useRibbon()

  const value = computed(() => {
    const { parameter, value: stored } = place()
    const length = bench.card?.length ?? 1
    return currentValue(parameter, stored, { frame: ribbon.frame, length })
  })
  const moving = computed(() => isMoving(place().value))
  const keyHere = computed(() => {
    const { value: stored } = place()
    return isMoving(stored) && stored.keys.some((key) => key.frame === ribbon.frame)
  })
  const percent = computed(() => typeof value.value === 'object' && value.value !== null && 'unit' in value.value)
  /** The bare number of a number or length. */
  const amount = computed(() => (percent.value ? (value.value as { value: number }).value : Number(value.value)))

  function write(next: unknown, mark: string = place().address) {
    const { address, label } = place()
    bench.edit(label, (card) => writeValue(card, address, ribbon.frame, next), mark)
  }

  /** Cuts a typed or dragged number to the parameter's range. */
  function writeAmount(next: number, mark?: string) {
    const { parameter } = place()
    if (!('min' in parameter) || !Number.isFinite(next)) return
    const cut = Math.min(parameter.max, Math.max(parameter.min, next))
    write(Math.round(cut * 1000) / 1000, mark)
  }

  function key() {
    const { address, label } = place()
    bench.edit(`Key: ${label}`, (card) => toggleKey(card, address, ribbon.frame))
  }

  function reset() {
    const standard = defaultOf(place().parameter)
    bench.settle()
    write(standard)
    bench.settle()
  }

  function unit(to: 'px' | '%') {
    const { address, label } = place()
    bench.edit(`Unit of ${label}`, (card) => changeUnit(card, address, to, reference()))
  }

  return { value, amount, moving, keyHere, percent, write, writeAmount, key, reset, unit }
}
