<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import { computed } from 'vue'
import type { Entry, EntryFamily } from '#core/edit/entries'
import { entriesOf, moveEntry } from '#core/edit/entries'
import { writeValue } from '#core/edit/values'
import type { Piece } from '#core/card/schema'
import { switchValue } from '#core/values/evaluated'
import { entryTitle } from '~/composables/entry-words'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import EntrySlab from './EntrySlab.vue'

/** The finishes of a piece, thin glazes on top of its core, the steps at its foot, or its masks: the lowest one works first. */
const props = defineProps<{ piece: Piece; family: EntryFamily }>()
const entries = computed<Entry[]>(() => entriesOf(props.piece, props.family))
const LABELS = { finish: 'finishes', step: 'outline steps', mask: 'masks' }
const bench = useBench()
const ribbon = useRibbon()
const { shown: moment } = useMoment(() => props.piece.id)

/** The list gives the new order; the entry that is not where it was is the one that was dragged. */
function reorder(order: Entry[]) {
  const old = entries.value
  const moved =
    order.find((entry, i) => old[i] !== entry && old.indexOf(entry) !== i - 1) ??
    order.find((entry, i) => old[i] !== entry)
  if (!moved || order.length !== old.length) return
  bench.edit(`Move ${entryTitle(moved).toLowerCase()}`, (card) =>
    moveEntry(card, props.piece.id, moved.id, order.indexOf(moved)),
  )
}

function toggle(entry: Entry) {
  const on = !switchValue(entry.on, moment.value)
  bench.edit(`${entryTitle(entry)} ${on ? 'on' : 'off'}`, (card) =>
    writeValue(card, `${props.piece.id}/${entry.id}/on`, ribbon.frame, on),
  )
}
</script>

<template>
  <VueDraggable
    :model-value="entries"
    :animation="120"
    :aria-label="LABELS[family]"
    filter=".eye, .more"
    :prevent-on-filter="false"
    @update:model-value="reorder"
  >
    <EntrySlab
      v-for="entry in entries"
      :key="entry.id"
      :entry="entry"
      :piece="piece"
      :selected="bench.selectedPart === entry.id"
      @select="bench.select(piece.id, entry.id)"
      @toggle="toggle(entry)"
    />
  </VueDraggable>
</template>
