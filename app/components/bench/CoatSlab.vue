<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { computed } from 'vue'
import type { Coat } from '#core/card/schema'
import { coatHeadline, coatPaint, coatTitle } from '~/composables/coat-words'
import { paintCss } from '~/composables/paint-css'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import EyeButton from './EyeButton.vue'

const props = defineProps<{ coat: Coat; selected: boolean }>()
defineEmits<{ select: []; toggle: []; duplicate: []; remove: [] }>()

const bench = useBench()
const ribbon = useRibbon()
const moment = computed(() => ({ frame: ribbon.frame, length: bench.card!.length }))
const isFill = computed(() => props.coat.kind === 'fill')
const paint = computed(() => paintCss(coatPaint(props.coat), moment.value))
</script>

<template>
  <div class="slab" :class="{ selected, off: !coat.on, fill: isFill }" :style="{ '--paint': paint }">
    <button class="body" :aria-pressed="selected" @click="$emit('select')">
      <span class="edge" aria-hidden="true" />
      <span class="title">{{ coatTitle(coat) }}</span>
      <span class="amount">{{ coat.on ? coatHeadline(coat, moment) : 'off' }}</span>
    </button>
    <button class="more icon-button" :aria-label="`${coatTitle(coat)}, more`">
      <VIcon :icon="mdiDotsHorizontal" size="16" />
      <VMenu activator="parent" location="bottom end">
        <VList density="compact">
          <VListItem title="Duplicate" @click="$emit('duplicate')" />
          <VListItem title="Take away" @click="$emit('remove')" />
        </VList>
      </VMenu>
    </button>
    <EyeButton :on="coat.on" :label="coatTitle(coat)" @toggle="$emit('toggle')" />
  </div>
</template>

<style scoped>
.slab {
  display: flex;
  align-items: center;
  height: 28px;
  margin: 2px 0;
  overflow: hidden;
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
.amount {
  font-size: 12px;
  color: var(--ink-2);
}
.more {
  width: 20px;
  opacity: 0;
}
.slab:hover .more,
.slab:focus-within .more {
  opacity: 1;
}
</style>
