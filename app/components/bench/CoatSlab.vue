<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Coat, Piece } from '#core/card/schema'
import { coatHeadline, coatPaint, coatTitle } from '~/composables/coat-words'
import { paintCss } from '~/composables/paint-css'
import { useStackWork } from '~/composables/stack-work'
import { switchValue } from '#core/values/evaluated'
import { useMoment } from '~/composables/moment'
import { useClipboard } from '~/stores/clipboard'
import NameInput from '../fields/NameInput.vue'
import EyeButton from './EyeButton.vue'

const props = defineProps<{ coat: Coat; piece: Piece; selected: boolean }>()
defineEmits<{ select: []; toggle: []; pour: [] }>()

const { shown: moment } = useMoment()
const work = useStackWork()
const clipboard = useClipboard()
const naming = ref(false)
const isFill = computed(() => props.coat.kind === 'fill')
/** Whether it is laid at the playhead. */
const laid = computed(() => switchValue(props.coat.on, moment.value))
const paint = computed(() => paintCss(coatPaint(props.coat), moment.value))

/** An empty name gives the coat the name of its kind again. */
function rename(name: string) {
  const plain = coatTitle({ ...props.coat, name: '' })
  work.renameCoat(props.piece, props.coat, name === plain ? '' : name.slice(0, 120))
}
</script>

<template>
  <div class="slab" :class="{ selected, off: !laid, fill: isFill }" :style="{ '--paint': paint }">
    <button class="gap" :aria-label="`Pour above ${coatTitle(coat)}`" @click="$emit('pour')"><span>+</span></button>
    <NameInput
      v-if="naming"
      class="naming"
      :value="coatTitle(coat)"
      :label="`Name of ${coatTitle(coat)}`"
      @name="rename"
      @close="naming = false"
    />
    <button v-else class="body" :aria-pressed="selected" @click="$emit('select')" @dblclick="naming = true">
      <span class="edge" aria-hidden="true" />
      <span class="title">{{ coatTitle(coat) }}</span>
      <span class="amount">{{ laid ? coatHeadline(coat, moment) : 'off' }}</span>
    </button>
    <button class="more icon-button" :aria-label="`${coatTitle(coat)}, more`">
      <VIcon :icon="mdiDotsHorizontal" size="16" />
      <VMenu activator="parent" location="bottom end">
        <VList density="compact">
          <VListItem title="See alone" @click="work.see(piece.id, coat.id)" />
          <VListItem title="Rename" subtitle="Double-click" @click="naming = true" />
          <VListItem title="Duplicate" subtitle="Ctrl+D" @click="work.duplicateCoatOf(piece, coat)" />
          <VListItem title="Copy" subtitle="Ctrl+C" @click="clipboard.keepCoat(coat)" />
          <VListItem title="Take away" subtitle="Delete" @click="work.removeCoatOf(piece, coat)" />
        </VList>
      </VMenu>
    </button>
    <EyeButton :on="laid" :label="coatTitle(coat)" @toggle="$emit('toggle')" />
  </div>
</template>

<style scoped>
.slab {
  position: relative;
  display: flex;
  align-items: center;
  height: 28px;
  margin: 2px 0;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 5px;
}
.slab.fill {
  height: 40px;
}
.slab.selected {
  border-color: var(--teal);
  box-shadow: inset 0 0 0 1px var(--teal);
}
.slab.off .edge,
.slab.off .title {
  opacity: 0.4;
}
.body {
  display: grid;
  flex: 1;
  grid-template-columns: 26px 1fr auto;
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
.fill .body {
  grid-template-columns: 74px 1fr auto;
}
/* The slab's own paint, as it is cut through. */
.edge {
  align-self: stretch;
  border-radius: 4px 0 0 4px;
  background:
    var(--paint),
    repeating-conic-gradient(#bbb 0 25%, #fff 0 50%) 0 0 / 8px 8px;
  border-right: 1px solid var(--line);
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.selected .title,
.fill .title {
  font-weight: 650;
}
/* Between two slabs: where the next coat is poured. */
.gap {
  position: absolute;
  top: -5px;
  right: 0;
  left: 0;
  z-index: 1;
  height: 8px;
  padding: 0;
  cursor: copy;
  background: none;
  border: 0;
  opacity: 0;
}
.gap::before {
  position: absolute;
  inset: 3px 0 auto;
  height: 2px;
  content: '';
  background: var(--teal);
}
.gap span {
  position: absolute;
  top: -4px;
  left: -20px;
  width: 16px;
  height: 16px;
  font-weight: 650;
  line-height: 15px;
  color: var(--paper);
  background: var(--teal);
  border-radius: 50%;
}
.gap:hover,
.gap:focus-visible {
  opacity: 1;
}
.naming {
  flex: 1;
  min-width: 0;
  height: 22px;
  padding: 0 6px;
  margin: 0 6px;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--teal);
  border-radius: 4px;
}
.amount {
  font-size: 12px;
  color: var(--ink-2);
}
.more {
  width: 24px;
  opacity: 0;
}
.slab:hover .more,
.slab:focus-within .more {
  opacity: 1;
}
</style>
