<script setup lang="ts">
defineProps<{ on: boolean; label: string }>()
defineEmits<{ toggle: [] }>()
</script>

<template>
  <button
    class="eye"
    :class="{ on }"
    :aria-pressed="on"
    :aria-label="`${label}: ${on ? 'switch off' : 'switch on'}`"
    @click.stop="$emit('toggle')"
  >
    <VTooltip activator="parent" :text="on ? 'Switch off' : 'Switch on'" />
  </button>
</template>

<style scoped>
.eye {
  flex: none;
  width: 24px;
  height: 24px;
  padding: 0;
  cursor: pointer;
  background: none;
  border: 0;
}
.eye::before {
  display: block;
  width: 12px;
  height: 12px;
  margin: auto;
  content: '';
  border: 2px solid var(--line-strong);
  border-radius: 50%;
}
.eye.on::before {
  background: radial-gradient(circle, var(--teal) 34%, transparent 42%);
  border-color: var(--teal);
}
</style>
