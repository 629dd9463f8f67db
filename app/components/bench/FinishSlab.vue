<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Finish, Piece } from '#core/card/schema'
import { switchValue } from '#core/values/evaluated'
import { finishHeadline, finishTitle } from '~/composables/finish-words'
import { useFinishStrip } from '~/composables/finish-strip'
import { useMoment } from '~/composables/moment'
import { useStackWork } from '~/composables/stack-work'
import { useClipboard } from '~/stores/clipboard'
import NameInput from '../fields/NameInput.vue'
import EyeButton from './EyeButton.vue'

/** One finish as a thin glaze on top of the core; its strip shows the piece before and after it. */
const props = defineProps<{ finish: Finish; piece: Piece; selected: boolean }>()
defineEmits<{ select: []; toggle: [] }>()

const { shown: moment } = useMoment(() => props.piece.id)
const work = useStackWork()
const clipboard = useClipboard()
const naming = ref(false)
const works = computed(() => switchValue(props.finish.on, moment.value))
const title = computed(() => finishTitle(props.finish))
const strip = ref<HTMLCanvasElement>()
useFinishStrip(
  strip,
  () => props.piece,
  () => props.finish,
)

function rename(name: string) {
  const plain = finishTitle({ ...props.finish, name: '' })
  work.renameFinish(props.piece, props.finish, name === plain ? '' : name.slice(0, 120))
}
</script>

<template>
  <div class="glaze" :class="{ selected, off: !works }">
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
      <span class="amount">{{ works ? finishHeadline(finish, moment) : 'off' }}</span>
    </button>
    <button class="more icon-button" :aria-label="`${title}, more`">
      <VIcon :icon="mdiDotsHorizontal" size="16" />
      <VMenu activator="parent" location="bottom end">
        <VList density="compact">
          <VListItem title="See alone" @click="work.see(piece.id, finish.id)" />
          <VListItem title="Rename" subtitle="Double-click" @click="naming = true" />
          <VListItem title="Duplicate" subtitle="Ctrl+D" @click="work.duplicateFinishOf(piece, finish)" />
          <VListItem title="Copy" subtitle="Ctrl+C" @click="clipboard.keepFinish(finish)" />
          <VListItem title="Take away" subtitle="Delete" @click="work.removeFinishOf(piece, finish)" />
        </VList>
      </VMenu>
    </button>
    <EyeButton :on="works" :label="title" @toggle="$emit('toggle')" />
  </div>
</template>

<style scoped>
.glaze {
  display: flex;
  align-items: center;
  height: 24px;
  margin: 2px 0;
  background: color-mix(in srgb, var(--raised) 55%, transparent);
  border: 1px solid var(--line);
  border-radius: 12px 5px 5px 12px;
}
.glaze.selected {
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
.glaze:hover .more,
.glaze:focus-within .more {
  opacity: 1;
}
</style>
