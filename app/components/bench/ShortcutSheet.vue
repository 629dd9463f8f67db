<script setup lang="ts">
import { SHORTCUTS } from '~/composables/shortcuts'

const open = defineModel<boolean>({ required: true })
</script>

<template>
  <VDialog v-model="open" max-width="460">
    <div class="sheet">
      <h2>Keys</h2>
      <dl>
        <template v-for="{ keys, does } in SHORTCUTS" :key="does">
          <dt>
            <kbd v-for="key in keys" :key="key">{{ key }}</kbd>
          </dt>
          <dd>{{ does }}</dd>
        </template>
      </dl>
      <button class="plain-button" @click="open = false">Close</button>
    </div>
  </VDialog>
</template>

<style scoped>
.sheet {
  padding: 20px;
  color: var(--ink);
  background: var(--paper);
  border-radius: 10px;
}
h2 {
  margin: 0 0 10px;
  font-size: 16px;
}
dl {
  display: grid;
  grid-template-columns: 150px 1fr;
  gap: 8px 12px;
  margin: 0 0 16px;
}
dd {
  margin: 0;
}
kbd {
  padding: 2px 6px;
  margin-right: 4px;
  font: inherit;
  font-size: 12px;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 4px;
}
</style>
