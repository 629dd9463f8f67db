<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useBench } from '~/stores/bench'

/** Three notes beside what they speak of, on the first card that somebody opens; once read they are gone for good. */
const gone = useLocalStorage('wax-first-notes', false)
const bench = useBench()
const at = ref(0)
const hasFields = computed(() => (bench.card?.fields.length ?? 0) > 0)
const notes = computed(() => [
  {
    place: 'right',
    text: hasFields.value
      ? 'Your words and colours stand here. For all else, click a piece on the stage or in the stack.'
      : 'What you select, on the stage or in the stack, has its values here. Drag a value, or type it.',
  },
  {
    place: 'below',
    text: 'This is the loop. Space plays it; drag the ruler, or round the ring. The dot beside a value gives it a key here.',
  },
  {
    place: 'above',
    text: 'When it is good: the proof looks it over, and rendering makes files with transparency. It is saved by itself.',
  },
])
const next = () => (at.value < notes.value.length - 1 ? at.value++ : (gone.value = true))
</script>

<template>
  <aside v-if="!gone" :class="['note', notes[at]!.place]" role="note" aria-label="First steps">
    <p>{{ notes[at]!.text }}</p>
    <span class="quiet">{{ at + 1 }} of {{ notes.length }}</span>
    <button class="plain-button" @click="gone = true">Close</button>
    <button class="wax-button" @click="next">{{ at < notes.length - 1 ? 'Next' : 'Done' }}</button>
  </aside>
</template>

<style scoped>
.note {
  position: absolute;
  z-index: 4;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  width: 270px;
  padding: 12px 14px;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 10px;
  box-shadow: var(--float);
}
.note::after {
  position: absolute;
  width: 12px;
  height: 12px;
  content: '';
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-width: 1px 1px 0 0;
}
p {
  width: 100%;
  margin: 0;
  line-height: 1.45;
}
.quiet {
  flex: 1;
  font-size: 12px;
}
.right {
  top: 60px;
  right: 16px;
}
.right::after {
  top: 22px;
  right: -7px;
  rotate: 45deg;
}
.below {
  bottom: 58px;
  left: 50%;
  translate: -50% 0;
}
.below::after {
  bottom: -7px;
  left: 50%;
  rotate: 135deg;
}
.above {
  top: 16px;
  right: 16px;
}
.above::after {
  top: -7px;
  right: 40px;
  rotate: -45deg;
}
</style>
