<script setup lang="ts">
import ThemeButton from './ThemeButton.vue'

defineProps<{ bench?: string; roster?: string }>()
</script>

<template>
  <header class="bar">
    <NuxtLink class="mark" to="/"><img src="/mark.svg" alt="" width="26" height="26" />Wax Ribbon</NuxtLink>
    <nav aria-label="Places">
      <NuxtLink to="/" active-class="" exact-active-class="on">Shelf</NuxtLink>
      <span v-if="bench" class="on">Bench</span>
      <span v-if="roster" class="on">Roster</span>
      <NuxtLink to="/renders" active-class="on">Press room</NuxtLink>
      <NuxtLink to="/help" active-class="on">Help</NuxtLink>
    </nav>
    <slot />
    <ThemeButton />
  </header>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 18px;
  align-items: center;
  height: 44px;
  padding: 0 14px;
  background: var(--paper);
  border-bottom: 1px solid var(--line);
}
.mark,
nav > * {
  flex: none;
  white-space: nowrap;
}
.mark {
  display: flex;
  gap: 8px;
  align-items: center;
  font-weight: 700;
  color: inherit;
  text-decoration: none;
}
nav {
  display: flex;
  gap: 2px;
}
nav > * {
  padding: 6px 12px;
  color: var(--ink-2);
  text-decoration: none;
  border-radius: 6px;
}
nav a:hover {
  color: var(--ink);
}
nav .on {
  font-weight: 650;
  color: var(--ink);
  background: var(--paper-2);
}
@media (max-width: 820px) {
  .place-page > .bar {
    flex-wrap: wrap;
    height: auto;
    padding: 6px 14px;
  }
}
</style>
