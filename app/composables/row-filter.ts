import type { Ref } from 'vue'
import { computed, ref } from 'vue'
import type { Roster, RosterRow } from '#core/rosters/roster'
import type { RowAbout } from '~/components/rosters/row-about'

/** Which rows are shown: those that say certain words, or in which something was found. */
export function useRowFilter(roster: Ref<Roster | null>, abouts: Ref<ReadonlyMap<string, RowAbout>>) {
  const words = ref('')
  const onlyFound = ref(false)

  const hasFindings = ({ id }: RosterRow) => {
    const about = abouts.value.get(id)
    return about !== undefined && about.faults.length + (about.flags?.length ?? 0) > 0
  }
  const says = (row: RosterRow, wanted: readonly string[]) => {
    const text = [row.name, row.note, row.in, row.out, ...Object.values(row.cells)].join(' ').toLowerCase()
    return wanted.every((word) => text.includes(word))
  }
  const rows = computed<readonly RosterRow[]>(() => {
    const all = roster.value?.rows ?? []
    const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
    if (wanted.length === 0 && !onlyFound.value) return all
    return all.filter((row) => says(row, wanted) && (!onlyFound.value || hasFindings(row)))
  })

  return { words, onlyFound, rows }
}
