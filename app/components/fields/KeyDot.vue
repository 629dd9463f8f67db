<script setup lang="ts">
import HintText from './HintText.vue'
defineProps<{ moving: boolean; here: boolean; label: string; driven?: boolean; drives?: boolean }>()
defineEmits<{ toggle: []; motors: [] }>()
</script>

<template>
  <button
    class="key-dot"
    :class="{ moving, here, driven }"
    :aria-pressed="here"
    :aria-label="here ? `Take the key of ${label} away` : `Set a key of ${label} here`"
    @click="$emit('toggle')"
    @contextmenu.prevent="drives && $emit('motors')"
  >
    <HintText
      :text="
        (here ? 'Take this key away' : moving ? 'Set a key here' : 'Let it move: set the first key here') +
        (drives ? '. Right click: motors' : '')
      "
    />
  </button>
</template>

<style scoped>
.key-dot {
  width: 24px;
  height: 24px;
  padding: 0;
  cursor: pointer;
  background: none;
  border: 0;
  border-radius: 50%;
}
.key-dot::before {
  display: block;
  width: 10px;
  height: 10px;
  margin: auto;
  content: '';
  border: 1.5px solid var(--line-strong);
  border-radius: 50%;
}
.key-dot.moving::before {
  border-color: var(--wax);
}
.key-dot.driven::before {
  border-color: var(--teal);
  border-style: double;
  border-width: 4px;
}
.key-dot.here::before {
  background: var(--wax);
  border-color: var(--wax);
}
</style>
