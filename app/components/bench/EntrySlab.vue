<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Piece } from '#core/card/schema'
import type { Entry } from '#core/edit/entries'
import { switchValue } from '#core/values/evaluated'
import { entryHeadline, entryTitle, familyOf } from '~/composables/entry-words'
import { useEntryStrip } from '~/composables/entry-strip'
import { useMoment } from '~/composables/moment'
import { useStackWork } from '~/composables/stack-work'
import { useClipboard } from '~/stores/clipboard'
import NameInput from '../fields/NameInput.vue'
import EyeButton from './EyeButton.vue'

/** A finish as a thin glaze on top of the core, a step as a thin form at its foot; its strip shows the piece before and after it. */
const props = defineProps<{ entry: Entry; piece: Piece; selected: boolean }>()
defineEmits<{ select: []; toggle: [] }>()

const { shown: moment } = useMoment(() => props.piece.id)
const work = useStackWork()
const clipboard = useClipboard()
const naming = ref(false)
const works = computed(() => switchValue(props.entry.on, moment.value))
const title = computed(() => entryTitle(props.entry))
const strip = ref<HTMLCanvasElement>()
useEntryStrip(
  strip,
  () => props.piece,
  () => props.entry,
)

function rename(name: string) {
  const plain = entryTitle({ ...props.entry, name: '' })
  work.renameEntry(props.piece, props.entry, name === plain ? '' : name.slice(0, 120))
}
</script>

<template>
  <div class="thin" :class="[familyOf(entry), { selected, off: !works }]">
    <NameInput
      v-if="naming"
      class="naming"
      :value="title"
      :label="`Name of ${title}`"
      @name="rename"
      @close="naming = false"
    />
    <button v-else class="body" :aria-pressed="selected" @click="$emit('select')" @dblclick="naming = true">
      <canvas ref="strip" class="strip" width="68" height="20" aria-hidden="true" />
      <span class="title">{{ title }}</span>
      <span class="amount">{{ works ? entryHeadline(entry, moment) : 'off' }}</span>
    </button>
    <button class="more icon-button" :aria-label="`${title}, more`">
      <VIcon :icon="mdiDotsHorizontal" size="16" />
      <VMenu activator="parent" location="bottom end">
        <VList density="compact">
          <VListItem title="See alone" @click="work.see(piece.id, entry.id)" />
          <VListItem title="Rename" subtitle="Double-click" @click="naming = true" />
          <VListItem title="Duplicate" subtitle="Ctrl+D" @click="work.duplicateEntryOf(piece, entry)" />
          <VListItem title="Copy" subtitle="Ctrl+C" @click="clipboard.keepEntry(entry)" />
          <VListItem title="Take away" subtitle="Delete" @click="work.removeEntryOf(piece, entry)" />
        </VList>
      </VMenu>
    </button>
    <EyeButton :on="works" :label="title" @toggle="$emit('toggle')" />
  </div>
</template>

<style scoped>
.thin {
  display: flex;
  align-items: center;
  height: 24px;
  margin: 2px 0;
  background: color-mix(in srgb, var(--raised) 55%, transparent);
  border: 1px solid var(--line);
  border-radius: 12px 5px 5px 12px;
}
/* A form is cut where a glaze is round. */
.thin.step {
  border-radius: 2px 5px 5px 2px;
}
.thin.step .strip {
  border-radius: 1px 0 0 1px;
}
.thin.selected {
  background: var(--raised);
  border-color: var(--teal);
  box-shadow: inset 0 0 0 1px var(--teal);
}
.body {
  display: grid;
  flex: 1;
  grid-template-columns: 34px 1fr auto;
  gap: 8px;
  align-items: center;
  height: 100%;
  min-width: 0;
  padding: 0 4px 0 0;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
}
/* Left half before, right half after. */
.strip {
  align-self: stretch;
  width: 34px;
  height: 100%;
  background: #3b3f46;
  border-right: 1px solid var(--line);
  border-radius: 11px 0 0 11px;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.selected .title {
  font-weight: 650;
}
.off .title,
.off .strip {
  opacity: 0.4;
}
.amount {
  font-size: 12px;
  color: var(--ink-2);
}
.naming {
  flex: 1;
  min-width: 0;
  height: 20px;
  padding: 0 6px;
  margin: 0 6px;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--teal);
  border-radius: 4px;
}
.more {
  width: 24px;
  opacity: 0;
}
.thin:hover .more,
.thin:focus-within .more {
  opacity: 1;
}
</style>
