<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ref, watch } from 'vue'
import type { KeyActionId } from '#core/help/key-actions'
import { KEY_ACTIONS } from '#core/help/key-actions'
import { chordOf, useKeys } from '~/composables/keys'

const open = defineModel<boolean>({ required: true })

const { keysOf, change, asShipped, changed } = useKeys()
const ids = Object.keys(KEY_ACTIONS) as KeyActionId[]
const isUsual = (id: KeyActionId) => 'usual' in KEY_ACTIONS[id]
/** The action that waits for its new key. */
const waiting = ref<KeyActionId | null>(null)
const refusal = ref('')

watch(open, () => {
  waiting.value = null
  refusal.value = ''
})

useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    const chord = open.value && waiting.value ? chordOf(event) : null
    if (!chord) return
    event.preventDefault()
    event.stopPropagation()
    refusal.value = chord === 'Escape' ? '' : (change(waiting.value!, chord) ?? '')
    if (!refusal.value) waiting.value = null
  },
  { capture: true },
)
</script>

<template>
  <VDialog v-model="open" max-width="760">
    <div class="sheet dialog-sheet">
      <h2>Keys</h2>
      <p class="quiet">Press a key’s button to give the action another one. The usual keys stay as they are.</p>
      <dl>
        <div>
          <dt><kbd>Arrows</kbd></dt>
          <dd>Move the piece, or the handle that has the focus, by 1 px; with Shift by 10 px</dd>
        </div>
        <div v-for="id in ids" :key="id">
          <dt>
            <template v-if="isUsual(id)">
              <kbd v-for="key in keysOf(id)" :key="key">{{ key }}</kbd>
            </template>
            <button
              v-else
              class="key"
              :class="{ waiting: waiting === id }"
              :aria-label="`${KEY_ACTIONS[id].does}: ${keysOf(id)[0]}; change`"
              @click="((waiting = id), (refusal = ''))"
            >
              {{ waiting === id ? 'Press a key…' : keysOf(id)[0] }}
            </button>
          </dt>
          <dd>{{ KEY_ACTIONS[id].does }}</dd>
        </div>
      </dl>
      <p v-if="refusal" class="refusal" role="alert">{{ refusal }}</p>
      <footer>
        <button class="plain-button" :disabled="!changed" @click="asShipped">All as shipped</button>
        <button class="plain-button" @click="open = false">Close</button>
      </footer>
    </div>
  </VDialog>
</template>

<style scoped>
h2 {
  margin: 0 0 2px;
  font-size: 16px;
}
dl {
  columns: 2;
  column-gap: 28px;
  margin: 12px 0 14px;
}
dl div {
  display: grid;
  grid-template-columns: 128px 1fr;
  gap: 10px;
  align-items: center;
  min-height: 30px;
  break-inside: avoid;
}
dd {
  margin: 0;
}
kbd,
.key {
  padding: 2px 6px;
  margin-right: 4px;
  font: inherit;
  font-size: 12px;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 4px;
}
kbd {
  border-style: dashed;
}
.key:hover,
.key.waiting {
  border-color: var(--teal);
}
.waiting {
  color: var(--teal);
}
.refusal {
  margin: 0 0 12px;
  color: var(--wax);
}
footer {
  display: flex;
  justify-content: space-between;
}
</style>
