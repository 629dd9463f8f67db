<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import type { KeyActionId } from '#core/help/key-actions'
import type { Thing } from '~/composables/found-things'
import { useFoundThings } from '~/composables/found-things'
import { useOpenedField } from '~/composables/opened-field'
import { useSeals } from '~/stores/seals'

/** One field for everything on the bench: type a word of it, choose with the arrows, Enter. */
const props = defineProps<{ does: Partial<Record<KeyActionId, () => unknown>> }>()
const open = defineModel<boolean>({ required: true })

const { find } = useFoundThings(props.does)
const seals = useSeals()
const text = ref('')
const at = ref(0)
const field = useTemplateRef<HTMLInputElement>('field')
const list = useTemplateRef<HTMLElement>('list')
const found = computed(() => find(text.value))

watch(open, (now) => {
  if (!now) return
  text.value = ''
  at.value = 0
  if (!seals.loaded) void seals.load().catch(() => {})
})
useOpenedField(open, field)
watch(text, () => (at.value = 0))

async function move(by: number) {
  const count = found.value.length
  if (count === 0) return
  at.value = (at.value + by + count) % count
  await nextTick()
  list.value?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' })
}

async function take(thing: Thing | undefined) {
  if (!thing) return
  open.value = false
  await nextTick()
  const label: unknown = thing.run()
  if (thing.id.startsWith('value ') && typeof label === 'string') await showValue(label)
  if (thing.id === 'add type') await showValue('Wording')
}

/** A value that was found has the focus in the settings; folded rows unfold. */
async function showValue(label: string) {
  for (let tries = 0; tries < 20; tries++) {
    await nextTick()
    const row = document.querySelector<HTMLElement>(`.settings [aria-label="${CSS.escape(label)}"]`)
    if (row) {
      row.closest('details')?.setAttribute('open', '')
      row.scrollIntoView({ block: 'center' })
      row.focus()
      return
    }
    await new Promise((next) => requestAnimationFrame(next))
  }
}
</script>

<template>
  <VDialog v-model="open" max-width="600" location="top">
    <section class="sheet dialog-sheet" aria-label="Find anything">
      <input
        ref="field"
        v-model="text"
        class="plain-field"
        type="search"
        role="combobox"
        aria-label="Find anything"
        aria-expanded="true"
        aria-controls="found-things"
        :aria-activedescendant="found[at] ? `found-${at}` : undefined"
        placeholder="A piece, a value, an action, a seal, a frame, help"
        @keydown.down.prevent="move(1)"
        @keydown.up.prevent="move(-1)"
        @keydown.enter.prevent="take(found[at])"
      />
      <ul id="found-things" ref="list" role="listbox" aria-label="Found">
        <!-- eslint-disable-next-line vuejs-accessibility/click-events-have-key-events -->
        <li
          v-for="(thing, i) in found"
          :id="`found-${i}`"
          :key="thing.id"
          role="option"
          :aria-selected="i === at"
          @pointermove="at = i"
          @click="take(thing)"
        >
          <b>{{ thing.label }}</b>
          <span class="quiet">{{ thing.about }}</span>
          <kbd v-if="thing.keys">{{ thing.keys }}</kbd>
        </li>
      </ul>
      <p v-if="text.trim() && found.length === 0" class="quiet" role="status">Nothing here is called “{{ text }}”.</p>
      <p v-else-if="!text.trim()" class="quiet">Try “glow”, “opacity”, “3:07”, or the name of a piece.</p>
    </section>
  </VDialog>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 8px;
  padding: 14px;
}
input {
  height: 34px;
  font-size: 15px;
}
ul {
  max-height: min(420px, 60vh);
  padding: 0;
  margin: 0;
  overflow: auto;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1.4fr) auto;
  gap: 12px;
  align-items: baseline;
  padding: 6px 8px;
  cursor: pointer;
  border-radius: 5px;
}
li[aria-selected='true'] {
  background: var(--teal-soft);
}
li > b,
li > span {
  overflow: hidden;
  font-weight: 600;
  text-overflow: ellipsis;
  white-space: nowrap;
}
li > span {
  font-size: 12px;
  font-weight: 400;
}
kbd {
  padding: 1px 6px;
  font: inherit;
  font-size: 12px;
  background: var(--paper-2);
  border-radius: 4px;
}
p {
  margin: 0;
}
</style>
