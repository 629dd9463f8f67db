import type { Ref } from 'vue'
import { computed } from 'vue'
import type { Card } from '#core/card/schema'
import { columnOf } from '#core/rosters/rows'
import { RowCards } from '#core/rosters/rows'
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
  const times = computed(() => Map.groupBy(programme.value.faults, ({ row }) => row))
  const notes = computed(() => Map.groupBy(programme.value.notes, ({ row }) => row))
  const looks = useRowLooks(card, rows, first)

  const abouts = computed(() => {
    const matches = cards.value?.matches ?? []
    return new Map(
      rows.value.map(({ row, title, card: filled, holds, faults }): [string, RowAbout] => {
        const own = times.value.get(row.id) ?? []
        const at = new Map<string, { text: string; bad: boolean }>()
        for (const fault of faults) {
          const column = columnOf(matches, fault)
          if (column) at.set(column, { text: `${fault.message} ${fault.remedy}`, bad: true })
        }
        for (const [list, bad] of [
          [notes.value.get(row.id) ?? [], false],
          [own, true],
        ] as const) {
          for (const { column, message, remedy } of list) at.set(`:${column}`, { text: `${message} ${remedy}`, bad })
        }
        return [
          row.id,
          {
            ...{ id: row.id, title, on: row.on, card: filled, holds },
            faults: [...faults, ...own],
            flags: looks.flagsOf(row.id),
            saidAt: (column) => at.get(column) ?? null,
          },
        ]
      }),
    )
  })

  return { cards, rows, programme, abouts, looks }
}
