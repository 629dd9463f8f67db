import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Card } from '#core/card/schema'
import type { RowCard } from '#core/rosters/rows'
import { RowCards } from '#core/rosters/rows'
import type { Roster } from '#core/rosters/roster'
import { useBench } from './bench'
import { broughtIn, usePictures } from './pictures'
import { useRosters } from './rosters'

/** The row of a roster that the bench shows in place of what the card itself says. The card stays what it is. */
export const useShownRow = defineStore('shown-row', () => {
  const bench = useBench()
  const rosters = useRosters()
  const pictures = usePictures()
  const rosterId = ref('')
  const roster = shallowRef<Roster | null>(null)
  const index = ref(0)
  const on = ref(false)

  const rows = computed(() => roster.value?.rows ?? [])
  const filled = computed<RowCard | null>(() => {
    const row = rows.value[index.value]
    if (!on.value || !bench.card || !roster.value || !row) return null
    return new RowCards(bench.card, roster.value, broughtIn(pictures.list)).of(row)
  })
  /** The card as the stage shows it. */
  const shown = computed<Card | null>(() => filled.value?.card ?? bench.card)

  async function choose(id: string, row: string | null = null) {
    rosterId.value = id
    if (id === '') return stop()
    const [{ document }] = await Promise.all([rosters.find(id), pictures.load().catch(() => {})])
    roster.value = document
    index.value = Math.max(0, row === null ? 0 : document.rows.findIndex((one) => one.id === row))
    on.value = document.rows.length > 0
  }

  /** Goes round. */
  function step(by: 1 | -1) {
    const count = rows.value.length
    if (count > 0) index.value = (index.value + by + count) % count
    on.value = count > 0
  }

  function stop() {
    on.value = false
    rosterId.value = ''
    roster.value = null
  }

  return { rosterId, roster, rows, index, on, filled, shown, choose, step, stop }
})
