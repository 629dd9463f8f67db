import { group } from 'd3'
import type { Ref } from 'vue'
import { computed } from 'vue'
import type { Card } from '#core/card/schema'
import { programmeOf } from '#core/rosters/programme'
import type { Roster } from '#core/rosters/roster'
import { isBlank, isRendered } from '#core/rosters/roster'
import type { RowCard } from '#core/rosters/rows'
import { columnOf, RowCards } from '#core/rosters/rows'
import type { RowAbout } from '~/components/rosters/row-about'
import { broughtIn, usePictures } from '~/stores/pictures'
import { useRowLooks } from './row-looks'

type Said = Exclude<ReturnType<RowAbout['saidAt']>, null>

/**
 * All that is known of the rows of a roster, filled into a card. `first`: rows that are looked at before all others. There may be
 * thousands: a row is made anew only when it changed, and what the engine found in one touches no other.
 */
export function useRowAbouts(
  card: Ref<Card | null>,
  roster: Ref<Roster | null>,
  first: Readonly<Ref<readonly string[]>>,
) {
  const pictures = usePictures()
  // Another one where pictures came or went: then cells that name them are read again.
  const brought = computed(() => broughtIn([...pictures.list]))
  const cards = computed<RowCards | null>((before) =>
    card.value && roster.value ? new RowCards(card.value, roster.value, brought.value, before ?? null) : null,
  )
  const rows = computed(() => roster.value?.rows.flatMap((row) => cards.value?.of(row) ?? []) ?? [])
  const programme = computed(() => programmeOf(rows.value.filter(({ row }) => isRendered(row))))
  const times = computed(() => group(programme.value.faults, ({ row }) => row))
  const notes = computed(() => group(programme.value.notes, ({ row }) => row))
  const looks = useRowLooks(card, rows, first)

  function aboutOf({ row, title, card: filled, holds, faults: cells }: RowCard): RowAbout {
    const ofTime = times.value.get(row.id) ?? []
    const blank = isBlank(row)
    const faults = blank ? [] : [...cells, ...ofTime]
    const saidAt = (column: string): Said | null => {
      const notRead = cells.find((fault) => columnOf(cards.value?.matches ?? [], fault) === column)
      const notPlaced = ofTime.find((fault) => `:${fault.column}` === column)
      const noted = notes.value.get(row.id)?.find((note) => `:${note.column}` === column)
      const said = notRead ?? notPlaced ?? noted
      return said ? { text: `${said.message} ${said.remedy}`, bad: said !== noted } : null
    }
    return {
      ...{ id: row.id, title, on: row.on, blank, card: filled, holds, faults, saidAt },
      get flags() {
        return blank ? [] : looks.flagsOf(row.id)
      },
    }
  }
  const abouts = computed(() => new Map(rows.value.map((one): [string, RowAbout] => [one.row.id, aboutOf(one)])))

  return { cards, rows, programme, abouts, looks }
}
