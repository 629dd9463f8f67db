<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Piece } from '#core/card/schema'
import type { Entry } from '#core/edit/entries'
import { switchValue } from '#core/values/evaluated'
import { entryHeadline, entryTitle, familyOf } from '~/composables/entry-words'
import { useEntryStrip } from '~/composables/entry-strip'
import { useMoment } from '~/composables/moment'
import { useStackWork } from '~/composables/stack-work'
import { useClipboard } from '~/stores/clipboard'
import StackSlab from './StackSlab.vue'

/** A finish as a thin glaze on top of the core, a step as a thin form at its foot; its strip shows the piece before and after it. */
const props = defineProps<{ entry: Entry; piece: Piece; selected: boolean }>()
defineEmits<{ select: []; toggle: [] }>()

const { shown: moment } = useMoment(() => props.piece.id)
const work = useStackWork()
const clipboard = useClipboard()
const works = computed(() => switchValue(props.entry.on, moment.value))
const strip = ref<HTMLCanvasElement>()
useEntryStrip(
  strip,
  () => props.piece,
  () => props.entry,
)
</script>

<template>
  <StackSlab
    class="thin"
    :class="familyOf(entry)"
    :title="entryTitle(entry)"
    :plain="entryTitle({ ...entry, name: '' })"
    :amount="entryHeadline(entry, moment)"
    :works="works"
    :selected="selected"
    @select="$emit('select')"
    @toggle="$emit('toggle')"
    @see="work.see(piece.id, entry.id)"
    @rename="work.renameEntry(piece, entry, $event)"
    @duplicate="work.duplicateEntryOf(piece, entry)"
    @copy="clipboard.keepEntry(entry)"
    @remove="work.removeEntryOf(piece, entry)"
  >
    <template #edge><canvas ref="strip" class="strip" width="68" height="20" /></template>
  </StackSlab>
</template>

<style scoped>
.thin {
  --edge-width: 34px;
  --edge-rounding: 11px 0 0 11px;

  height: 24px;
  background: color-mix(in srgb, var(--raised) 55%, transparent);
  border-radius: 12px 5px 5px 12px;
}
/* A form is cut where a glaze is round. */
.thin.step {
  --edge-rounding: 1px 0 0 1px;

  border-radius: 2px 5px 5px 2px;
}
.thin.selected {
  background: var(--raised);
}
/* Left half before, right half after. */
.strip {
  display: block;
  width: 34px;
  height: 100%;
  background: #3b3f46;
}
</style>
