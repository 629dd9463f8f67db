<script setup lang="ts">
import { computed } from 'vue'
import type { Coat, Piece } from '#core/card/schema'
import { coatHeadline, coatPaint, coatTitle } from '~/composables/coat-words'
import { paintCss } from '~/composables/paint-css'
import { useStackWork } from '~/composables/stack-work'
import { switchValue } from '#core/values/evaluated'
import { useMoment } from '~/composables/moment'
import { useClipboard } from '~/stores/clipboard'
import StackSlab from './StackSlab.vue'

/** A coat; between it and the one above the next coat is poured. */
const props = defineProps<{ coat: Coat; piece: Piece; selected: boolean }>()
defineEmits<{ select: []; toggle: []; pour: [] }>()

const { shown: moment } = useMoment()
const work = useStackWork()
const clipboard = useClipboard()
/** Whether it is laid at the playhead. */
const laid = computed(() => switchValue(props.coat.on, moment.value))
const paint = computed(() => paintCss(coatPaint(props.coat), moment.value))
</script>

<template>
  <div class="slab" :class="{ fill: coat.kind === 'fill' }" :style="{ '--paint': paint }">
    <button class="gap" :aria-label="`Pour above ${coatTitle(coat)}`" @click="$emit('pour')"><span>+</span></button>
    <StackSlab
      class="own"
      :title="coatTitle(coat)"
      :plain="coatTitle({ ...coat, name: '' })"
      :amount="coatHeadline(coat, moment)"
      :works="laid"
      :selected="selected"
      @select="$emit('select')"
      @toggle="$emit('toggle')"
      @see="work.see(piece.id, coat.id)"
      @rename="work.renameCoat(piece, coat, $event)"
      @duplicate="work.duplicateCoatOf(piece, coat)"
      @copy="clipboard.keepCoat(coat)"
      @remove="work.removeCoatOf(piece, coat)"
    >
      <template #edge><span class="paint" /></template>
    </StackSlab>
  </div>
</template>

<style scoped>
.slab {
  position: relative;
}
.own {
  --edge-width: 26px;
  --edge-rounding: 4px 0 0 4px;

  height: 28px;
  background: var(--raised);
  border-radius: 5px;
}
.fill .own {
  --edge-width: 74px;
  --title-weight: 650;

  height: 40px;
}
/* The slab's own paint, as it is cut through. */
.paint {
  display: block;
  height: 100%;
  background:
    var(--paint),
    repeating-conic-gradient(#bbb 0 25%, #fff 0 50%) 0 0 / 8px 8px;
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
</style>
