<script setup lang="ts">
import { mdiTag, mdiTagOutline } from '@mdi/js'
import { computed, ref } from 'vue'
import {
  addPlace,
  fieldAt,
  freeLabel,
  kindFor,
  makeField,
  removePlace,
  renameField,
  variantsOf,
} from '#core/rosters/field-edit'
import { movesByKeys } from '#core/rosters/kinds/definition'
import { undoOffer } from '~/composables/undo-offer'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { useSeals } from '~/stores/seals'

/** Makes a value a field, which rows of a roster fill, and shows that it is one. It stands in the gutter of its row. */
const props = defineProps<{ address: string }>()

const bench = useBench()
const notices = useNotices()
const seals = useSeals()
const open = ref(false)

const kind = computed(() => (bench.card ? kindFor(bench.card, props.address) : null))
const field = computed(() => (bench.card ? fieldAt(bench.card, props.address) : undefined))
/** Other fields that could fill it as well. */
const others = computed(
  () => bench.card?.fields.filter((one) => one.kind === kind.value?.kind && one.id !== field.value?.id) ?? [],
)
const moves = computed(() => bench.card !== null && movesByKeys(bench.card, props.address))
const suggested = computed(() => (bench.card && kind.value ? freeLabel(bench.card, props.address) : ''))

/** Of the seal that the piece carries. */
function variants() {
  const piece = props.address.split('/')[0]
  const seal = bench.pieces.find(({ id }) => id === piece)?.seal
  const found = seals.list.find(({ id }) => id === seal?.id)
  return found ? variantsOf(found.document) : []
}

const title = computed(() => {
  if (field.value && moves.value) return `Field “${field.value.label}”: it moves by its keys, so rows cannot fill it`
  if (field.value) return `Field “${field.value.label}”: rows of a roster fill it`
  return moves.value ? 'It moves by its keys, so rows cannot fill it' : 'Make it a field, which rows of a roster fill'
})

function press() {
  if (field.value) {
    open.value = true
    return
  }
  const label = suggested.value
  if (moves.value) {
    const remedy = 'Take its keys away first, all but one.'
    notices.fault({ message: `“${label}” moves by its keys, so it has no one value that rows could fill.`, remedy })
    return
  }
  bench.edit(`Field: ${label}`, (card) => makeField(card, props.address, variants()))
  notices.say(`“${label}” is a field now: rows of a roster fill it.`, undoOffer(bench))
}

function rename(event: Event) {
  const input = event.target as HTMLInputElement
  const { id, label } = field.value!
  const wanted = input.value.trim()
  if (wanted === label) return
  const before = bench.card
  bench.edit('Name of a field', (card) => renameField(card, id, wanted))
  if (bench.card !== before) return
  input.value = label
  notices.fault({ message: `“${wanted}” is no name for a field.`, remedy: 'Choose one that no other field has.' })
}

/** Lets another field fill this value too, with the same cell. */
function join(id: string) {
  open.value = false
  bench.edit('Field', (card) => addPlace(removePlace(card, props.address), id, props.address))
}

function remove() {
  open.value = false
  bench.edit('No field any more', (card) => removePlace(card, props.address))
}
</script>

<template>
  <span v-if="kind" class="mark" :class="{ on: field, open }">
    <button
      :aria-label="field ? `Field ${field.label}` : `Make ${suggested} a field`"
      :aria-pressed="field !== undefined"
      :title="title"
      @click="press"
    >
      <VIcon :icon="field ? mdiTag : mdiTagOutline" size="14" />
      <VMenu
        v-if="field"
        v-model="open"
        activator="parent"
        :open-on-click="false"
        :close-on-content-click="false"
        location="start"
      >
        <div class="sheet" @keydown.escape="open = false">
          <label>
            Field
            <input
              class="plain-field"
              :value="field.label"
              maxlength="80"
              aria-label="Name of the field"
              @change="rename"
            />
          </label>
          <p class="quiet">{{ kind.help }}.</p>
          <label v-if="others.length > 0">
            Filled with
            <select class="plain-field" value="" @change="join(($event.target as HTMLSelectElement).value)">
              <option value="">its own cell</option>
              <option v-for="other in others" :key="other.id" :value="other.id">the same as {{ other.label }}</option>
            </select>
          </label>
          <button class="plain-button" @click="remove">No field any more</button>
        </div>
      </VMenu>
    </button>
  </span>
</template>

<style scoped>
.mark {
  position: absolute;
  top: 50%;
  left: -25px;
  transform: translateY(-50%);
}
button {
  cursor: pointer;
}
.mark > button {
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  padding: 0;
  color: var(--ink-2);
  background: none;
  border: 0;
  border-radius: 4px;
  opacity: 0;
}
*:hover > .mark > button,
*:focus-within > .mark > button,
.mark > button:focus-visible,
.mark.open > button,
.mark.on > button {
  opacity: 1;
}
.mark.on > button {
  color: var(--teal);
}
.sheet {
  display: grid;
  gap: 10px;
  width: 250px;
  padding: 12px;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 8px;
}
.sheet p {
  margin: 0;
  font-size: 12px;
}
.sheet label {
  display: grid;
  gap: 4px;
  color: var(--ink-2);
}
</style>
