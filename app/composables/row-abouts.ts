import type { Ref } from 'vue'
import { computed } from 'vue'
import type { Card } from '#core/card/schema'
import { columnOf } from '#core/rosters/rows'
import { RowCards } from '#core/rosters/rows'
import type { TimeFault } from '#core/rosters/programme'
import { programmeOf } from '#core/rosters/programme'
import type { Roster } from '#core/rosters/roster'
import type { RowAbout } from '~/components/rosters/row-about'
import { knownPicture, usePictures } from '~/stores/pictures'
import { useRowLooks } from './row-looks'

/** All that is known of the rows of a roster, filled into a card. */
export function useRowAbouts(card: Ref<Card | null>, roster: Ref<Roster | null>, first: Ref<string | null>) {
  const pictures = usePictures()
  const cards = computed(() =>
    card.value && roster.value
      ? new RowCards(card.value, roster.value, { picture: (name) => knownPicture(pictures.list, name) })
      : null,
  )
  const rows = computed(() => roster.value?.rows.flatMap((row) => cards.value?.of(row) ?? []) ?? [])
  const programme = computed(() => programmeOf(rows.value.filter(({ row }) => row.on)))
  const times = computed(() => {
    const found = new Map<string, TimeFault[]>()
    for (const fault of programme.value.faults) found.set(fault.row, [...(found.get(fault.row) ?? []), fault])
    return found
  })
  const looks = useRowLooks(card, rows, first)

  const abouts = computed(() => {
    const matches = cards.value?.matches ?? []
    return new Map(
      rows.value.map(({ row, title, card: filled, holds, faults }): [string, RowAbout] => {
        const own = times.value.get(row.id) ?? []
        const at = new Map<string, string>()
        for (const fault of faults) {
          const column = columnOf(matches, fault)
          if (column) at.set(column, `${fault.message} ${fault.remedy}`)
        }
        for (const fault of [...own, ...programme.value.notes.filter((note) => note.row === row.id)]) {
          at.set(`:${fault.column}`, `${fault.message} ${fault.remedy}`)
        }
        return [
          row.id,
          {
            ...{ id: row.id, title, on: row.on, card: filled, holds },
            faults: [...faults, ...own],
            flags: looks.flagsOf(row.id),
            faultAt: (column) => at.get(column) ?? null,
          },
        ]
      }),
    )
  })

  return { cards, rows, programme, abouts, looks }
}
