<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { computed, ref } from 'vue'
import NameInput from '../fields/NameInput.vue'
import EyeButton from './EyeButton.vue'

/** A slab of the stack: its edge (a slot), its name, what it says of itself, a menu, and its eye. */
const props = defineProps<{
  title: string
  /** The name that it has without one of its own. */
  plain: string
  amount: string
  works: boolean
  selected: boolean
}>()
const emit = defineEmits<{
  select: []
  toggle: []
  see: []
  rename: [name: string]
  duplicate: []
  copy: []
  remove: []
}>()

const naming = ref(false)
const said = computed(() => (props.works ? props.amount : 'off'))
/** An empty name, or that of its kind, takes its own name away again. */
const rename = (name: string) => emit('rename', name === props.plain ? '' : name.slice(0, 120))
</script>

<template>
  <div class="stack-slab" :class="{ selected, off: !works }">
    <NameInput
      v-if="naming"
      class="naming"
      :value="title"
      :label="`Name of ${title}`"
      @name="rename"
      @close="naming = false"
    />
    <button v-else class="body" :aria-pressed="selected" @click="$emit('select')" @dblclick="naming = true">
      <span class="edge" aria-hidden="true"><slot name="edge" /></span>
      <span class="title">{{ title }}</span>
      <span class="amount">{{ said }}</span>
    </button>
    <button class="more icon-button" :aria-label="`${title}, more`">
      <VIcon :icon="mdiDotsHorizontal" size="16" />
      <VMenu activator="parent" location="bottom end">
        <VList density="compact">
          <VListItem title="See alone" @click="$emit('see')" />
          <VListItem title="Rename" subtitle="Double-click" @click="naming = true" />
          <VListItem title="Duplicate" subtitle="Ctrl+D" @click="$emit('duplicate')" />
          <VListItem title="Copy" subtitle="Ctrl+C" @click="$emit('copy')" />
          <VListItem title="Take away" subtitle="Delete" @click="$emit('remove')" />
        </VList>
      </VMenu>
    </button>
    <EyeButton :on="works" :label="title" @toggle="$emit('toggle')" />
  </div>
</template>

<style scoped>
.stack-slab {
  display: flex;
  align-items: center;
  margin: 2px 0;
  border: 1px solid var(--line);
}
.selected {
  border-color: var(--teal);
  box-shadow: inset 0 0 0 1px var(--teal);
}
.body {
  display: grid;
  flex: 1;
  grid-template-columns: var(--edge-width) 1fr auto;
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
.edge {
  display: block;
  align-self: stretch;
  overflow: hidden;
  border-right: 1px solid var(--line);
  border-radius: var(--edge-rounding);
}
.title {
  overflow: hidden;
  font-weight: var(--title-weight, inherit);
  text-overflow: ellipsis;
  white-space: nowrap;
}
.selected .title {
  font-weight: 650;
}
.off .title,
.off .edge {
  opacity: 0.4;
}
.amount {
  font-size: 12px;
  color: var(--ink-2);
}
.naming {
  flex: 1;
  min-width: 0;
  height: calc(100% - 4px);
  max-height: 24px;
  padding: 0 6px;
  margin: 0 6px;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--teal);
  border-radius: 4px;
}
.more {
  width: 24px;
  opacity: 0;
}
.stack-slab:hover .more,
.stack-slab:focus-within .more {
  opacity: 1;
}
</style>
