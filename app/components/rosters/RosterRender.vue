<script setup lang="ts">
import { computed } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import type { Roster } from '#core/rosters/roster'
import RenderSheet from '~/components/renders/RenderSheet.vue'
import type { ShelfCard } from '~/stores/cards'
import { useBatches } from '~/stores/batches'
import { useRenders } from '~/stores/renders'
import { useRoster } from '~/stores/roster'
import type { RowAbout } from './row-about'

/** Renders rows of a roster: each a file, or all with timecodes in one. */
const props = defineProps<{
  card: ShelfCard
  design: Card
  roster: Roster
  abouts: readonly RowAbout[]
  /** Rows with their place in a programme. */
  placed: number
  chosen: () => string[]
}>()
const open = defineModel<boolean>({ required: true })
const store = useRoster()
const renders = useRenders()
const batches = useBatches()

const isAsked = ({ on, blank }: RowAbout) => on && !blank
const ready = computed(() => props.abouts.filter((about) => isAsked(about) && about.faults.length === 0))
const rows = computed(() => ({
  count: ready.value.length,
  left: props.abouts.filter((about) => isAsked(about) && about.faults.length > 0).length,
  placed: props.placed,
  first: ready.value[0]?.title ?? 'row',
  roster: props.roster.name,
}))
const card = computed(() => ready.value[0]?.card ?? props.design)

async function begin(wish: RenderWish, as: 'rows' | 'programme'): Promise<Fault | null> {
  if (!(await store.save())) return store.saveFault
  await batches.start({
    ...{ cardId: props.card.id, rosterId: store.id, revision: props.card.revision, rosterRevision: store.revision },
    ...{ as, options: wish },
  })
  await navigateTo('/renders')
  return null
}
</script>

<template>
  <RenderSheet
    v-model="open"
    :card="card"
    :frame="0"
    :takes="renders.takes(props.card.id)"
    :rows="rows"
    :begin="begin"
  />
</template>
