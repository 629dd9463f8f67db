<script setup lang="ts">
defineProps<{ title: string; words: string; on: boolean; head?: boolean }>()
defineEmits<{ choose: [] }>()
</script>

<template>
  <div class="name" :class="{ on, head }" @pointerdown.stop>
    <button :title="title" @click="$emit('choose')">{{ words }}</button>
    <slot />
  </div>
</template>

<style scoped>
.name {
  position: absolute;
  z-index: 1;
  display: flex;
  align-items: center;
  width: var(--names);
  height: 100%;
  padding-left: 22px;
  background: var(--paper);
  border-right: 1px solid var(--line);
}
.name.head {
  padding-left: 12px;
  font-weight: 600;
  background: var(--paper-2);
}
.name.on {
  background: var(--teal-soft);
}
button {
  flex: 1;
  overflow: hidden;
  font: inherit;
  color: inherit;
  text-align: left;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
  background: none;
  border: 0;
}
button::first-letter {
  text-transform: capitalize;
}
</style>
