<script setup lang="ts">
defineProps<{ moving: boolean; here: boolean; label: string }>()
defineEmits<{ toggle: [] }>()
</script>

<template>
  <button
    class="key-dot"
    :class="{ moving, here }"
    :aria-pressed="here"
    :aria-label="here ? `Take the key of ${label} away` : `Set a key of ${label} here`"
    @click="$emit('toggle')"
  >
    <VTooltip
      activator="parent"
      :text="here ? 'Take this key away' : moving ? 'Set a key here' : 'Let it move: set the first key here'"
    />
  </button>
</template>

<style scoped>
.key-dot {
  width: 18px;
  height: 18px;
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
.key-dot.here::before {
  background: var(--wax);
  border-color: var(--wax);
}
</style>
