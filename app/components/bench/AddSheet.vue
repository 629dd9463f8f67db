<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { COATS } from '#core/coats/table'
import { FINISHES } from '#core/finishes/table'
import { MASKS } from '#core/masks/table'
import { STEPS } from '#core/steps/table'
import type { ChoiceParameter } from '#core/values/parameters'
import { useOpenedField } from '~/composables/opened-field'
import HintText from '../fields/HintText.vue'

/** The one sheet that adds to a piece: coats are poured, steps form its outline, finishes are laid on top, masks hold it; found by typing. */
const props = defineProps<{ coats: boolean; steps: boolean }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{
  pour: [kind: string, label: string, side: string]
  form: [kind: string, label: string]
  finish: [kind: string, label: string]
  hold: [kind: string, label: string]
}>()

interface Pour {
  kind: string
  label: string
  help: string
  /** The sides that it can lie on; a single empty one where it has none. */
  sides: { value: string; label: string }[]
}

const POURS = COATS.map(({ kind, label, help, parameters }): Pour => {
  const side = parameters.side as ChoiceParameter | undefined
  return { kind, label, help, sides: side ? [...side.options] : [{ value: '', label }] }
})

/** What holds a piece beside masks. A wash runs with what it treats, and has no face. */
const HOLDS = [
  {
    kind: 'inside',
    label: 'Picture inside',
    help: 'Brings in a picture or a sequence and shows it within the face of this piece',
  },
  { kind: 'clock', label: 'Clock', help: 'Gives what lies in it a time of its own: slower, backward, again, held' },
]

const sought = ref('')
const field = ref<HTMLInputElement>()
const fits = ({ label, help }: { label: string; help: string }) => {
  const words = sought.value.trim().toLowerCase().split(/\s+/)
  return words.every((word) => `${label} ${help}`.toLowerCase().includes(word))
}
const pours = computed(() => (props.coats ? POURS.filter(fits) : []))
const steps = computed(() => (props.steps ? STEPS.filter(fits) : []))
const finishes = computed(() => FINISHES.filter(fits))
const holds = computed(() => (props.coats ? [...MASKS, ...HOLDS] : MASKS).filter(fits))
type Kind = Pick<Pour, 'kind' | 'label'>
const lists = computed(() =>
  [
    { label: 'Form', kinds: steps.value, take: ({ kind, label }: Kind) => emit('form', kind, label) },
    { label: 'Finish', kinds: finishes.value, take: ({ kind, label }: Kind) => emit('finish', kind, label) },
    { label: 'Hold', kinds: holds.value, take: ({ kind, label }: Kind) => emit('hold', kind, label) },
  ].filter(({ kinds }) => kinds.length > 0),
)
const prompt = computed(() =>
  props.steps ? 'Find a coat, step or finish' : props.coats ? 'Find a coat or finish' : 'Find a finish',
)

watch(open, (now) => now && (sought.value = ''))
useOpenedField(open, field)

/** Enter takes the first one that is called so, or else the first that is found. */
function first() {
  const all = [
    ...pours.value.map(({ kind, label, sides }) => ({ label, take: () => emit('pour', kind, label, sides[0]!.value) })),
    ...lists.value.flatMap(({ kinds, take }) => kinds.map((one) => ({ label: one.label, take: () => take(one) }))),
  ]
  const words = sought.value.trim().toLowerCase()
  const called = all.find(({ label }) => label.toLowerCase().startsWith(words))
  ;(called ?? all[0])?.take()
}
</script>

<template>
  <VMenu v-model="open" activator="parent" location="bottom start" :close-on-content-click="false">
    <div class="sheet">
      <input
        ref="field"
        v-model="sought"
        class="plain-field"
        :placeholder="prompt"
        :aria-label="prompt"
        @keydown.enter.prevent="first"
        @keydown.esc="open = false"
      />
      <div v-if="pours.length + lists.length > 0" class="lists" role="menu" aria-label="Pour, form or finish">
        <section v-if="pours.length > 0" role="none">
          <h3 aria-hidden="true">Pour</h3>
          <div class="pours" role="none">
            <div v-for="choice in pours" :key="choice.kind" class="row" role="group" :aria-label="choice.label">
              <span class="kind" aria-hidden="true">{{ choice.label }}<HintText :text="choice.help" /></span>
              <span class="sides" role="none">
                <button
                  v-for="side in choice.sides"
                  :key="side.value"
                  role="menuitem"
                  :aria-label="side.value ? `${choice.label}, ${side.value}` : choice.label"
                  @click="emit('pour', choice.kind, choice.label, side.value)"
                >
                  {{ side.label }}
                </button>
              </span>
            </div>
          </div>
        </section>
        <section v-for="list in lists" :key="list.label" role="none">
          <h3 aria-hidden="true">{{ list.label }}</h3>
          <div class="kinds" :class="list.label.toLowerCase()" role="group" :aria-label="list.label">
            <button v-for="choice in list.kinds" :key="choice.kind" role="menuitem" @click="list.take(choice)">
              {{ choice.label }}<HintText :text="choice.help" />
            </button>
          </div>
        </section>
      </div>
      <p v-else class="quiet">Nothing is called that.</p>
    </div>
  </VMenu>
</template>

<style scoped>
.sheet {
  padding: 10px 14px 14px;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 8px;
  box-shadow: var(--float);
}
.sheet input {
  width: 100%;
}
.lists {
  display: flex;
  gap: 22px;
  align-items: start;
}
h3 {
  margin: 10px 0 6px;
  font-size: 12px;
  font-weight: 650;
  color: var(--ink-2);
}
.pours {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 5px 12px;
  align-items: center;
}
.row {
  display: contents;
}
.kind {
  font-weight: 650;
}
.sides {
  display: flex;
  gap: 5px;
}
.kinds {
  display: grid;
  grid-template-columns: repeat(3, 108px);
  gap: 5px;
}
.kinds.hold {
  grid-template-columns: 108px;
}
.kinds.form {
  grid-template-columns: repeat(2, 84px);
}
button {
  height: 28px;
  padding: 0 10px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 6px;
}
button:hover,
button:focus-visible {
  background: var(--teal-soft);
  border-color: var(--teal);
}
</style>
