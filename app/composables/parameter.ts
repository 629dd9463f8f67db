import { computed } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { differs, sharedAddresses, writeShared } from '#core/edit/several'
import { changeUnit, storedAt, toggleKey } from '#core/edit/values'
import { isMoving } from '#core/values/moving'
import { defaultOf } from '#core/values/parameters'
import { currentValue } from '#core/time/evaluate'
import { useBench } from '~/stores/bench'
import { useMoment } from './moment'
import { useRibbon } from '~/stores/ribbon'

/** One parameter as its control sees it: the value at the playhead, and what a hand can do with it. */
export function useParameter(place: () => ParameterPlace, referenceOf: (piece: string) => number = () => 0) {
  const bench = useBench()
  const ribbon = useRibbon()
  const { base } = useMoment(() => place().piece)

  const value = computed(() => {
    const { parameter, value: stored } = place()
    return currentValue(parameter, stored, base.value)
  })
  const moving = computed(() => isMoving(place().value))
  const driven = computed(() => {
    const { value: stored } = place()
    return isMoving(stored) && (stored.motors ?? []).some(({ on }) => on)
  })
  const keyHere = computed(() => {
    const { value: stored } = place()
    return isMoving(stored) && stored.keys.some((key) => key.frame === base.value.frame)
  })
  const percent = computed(() => typeof value.value === 'object' && value.value !== null && 'unit' in value.value)
  /** The bare number of a number or length. */
  const amount = computed(() => (percent.value ? (value.value as { value: number }).value : Number(value.value)))

  /** The same value of all selected pieces that have it. */
  const shared = computed(() => sharedAddresses(bench.card!, place().address, bench.selection))
  const mixed = computed(() => shared.value.length > 1 && differs(bench.card!, shared.value))

  function write(next: unknown, mark: string = place().address) {
    const { label } = place()
    const addresses = shared.value
    bench.edit(label, (card) => writeShared(card, addresses, ribbon.frame, next), mark)
  }

  /** Cuts a typed or dragged number to the parameter's range. */
  function writeAmount(next: number, mark?: string) {
    const { parameter } = place()
    if (!('min' in parameter) || !Number.isFinite(next)) return
    const cut = Math.min(parameter.max, Math.max(parameter.min, next))
    write(Math.round(cut * 1000) / 1000, mark)
  }

  const isMovingAt = (address: string) => isMoving(storedAt(bench.card!, address))

  function key() {
    const { address, label } = place()
    const addresses = shared.value.filter((other) => isMovingAt(other) === isMovingAt(address))
    bench.edit(`Key: ${label}`, (card) => addresses.reduce((c, one) => toggleKey(c, one, ribbon.frame), card))
  }

  function reset() {
    const standard = defaultOf(place().parameter)
    bench.endStep()
    write(standard)
    bench.endStep()
  }

  function unit(to: 'px' | '%') {
    const addresses = shared.value
    bench.edit(`Unit of ${place().label}`, (card) =>
      // Each piece has a size of its own that 100 % stands for.
      addresses.reduce((next, address) => changeUnit(next, address, to, referenceOf(address.split('/')[0]!)), card),
    )
  }

  return { value, amount, moving, driven, mixed, keyHere, percent, write, writeAmount, key, reset, unit }
}
