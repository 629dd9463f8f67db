<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { computed, onMounted, ref } from 'vue'
import type { CardField } from '#core/card/fields'
import { WaxError } from '#core/errors'
import { zonesOf } from '#core/time/held'
import { writeValue } from '#core/edit/values'
import { namedByWords } from '#core/edit/wording'
import { fillField } from '#core/rosters/fill'
import { isWhole, moveField, removeField, renameField } from '#core/rosters/field-edit'
import { parameterAt } from '#core/card/addresses'
import { movesByKeys } from '#core/rosters/kinds/definition'
import { fieldKind } from '#core/rosters/kinds/table'
import { undoOffer } from '~/composables/undo-offer'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { broughtIn, usePictures } from '~/stores/pictures'
import { useRibbon } from '~/stores/ribbon'
import ColourField from '../../fields/ColourField.vue'
import HintText from '../../fields/HintText.vue'

/** One field of the form: what the card itself has there. */
const props = defineProps<{ field: CardField }>()
const bench = useBench()
const ribbon = useRibbon()
const notices = useNotices()
const pictures = usePictures()
const naming = ref(false)

const kind = computed(() => fieldKind(props.field.kind))
const there = computed(() => isWhole(bench.card!, props.field))
const moves = computed(() => props.field.at.some((address) => movesByKeys(bench.card!, address)))
const value = computed(() => (there.value ? kind.value.written(bench.card!, props.field) : ''))
const place = computed(() => parameterAt(bench.card!, props.field.at[0]!))
const options = computed(() => {
  const parameter = place.value?.parameter
  return parameter?.type === 'choice' ? parameter.options : []
})
const unit = computed(() => {
  const parameter = place.value?.parameter
  return parameter?.type === 'number' ? parameter.unit : ''
})
const held = computed(() => {
  const zones = zonesOf(bench.card!)
  return zones ? zones.out - zones.hold : 0
})
const index = computed(() => bench.card!.fields.findIndex(({ id }) => id === props.field.id))

onMounted(() => {
  if (props.field.kind === 'picture') void pictures.load().catch(() => {})
})

const placesOf = ({ at }: CardField) => at.map((address) => address.split('/')[0]!)

/** Writes at all of its places; what moves gets a key here, as on its own row. */
function write(text: string, mark = '') {
  const { field } = props
  bench.edit(
    field.label,
    (card) => {
      try {
        const filled = fillField({ card, holds: 1 }, field, text, broughtIn(pictures.list)).card
        return field.kind === 'wording' ? namedByWords(card, filled, placesOf(field)) : filled
      } catch (error) {
        if (!(error instanceof WaxError)) throw error
        if (error.fault.code === 'field-moves') {
          const plain = field.kind === 'number' ? Number(text) : field.kind === 'switch' ? text === 'on' : text
          return field.at.reduce((next, address) => writeValue(next, address, ribbon.frame, plain), card)
        }
        notices.fault(error.fault)
        return card
      }
    },
    mark,
  )
}

function rename(event: Event) {
  naming.value = false
  bench.edit('Name of a field', (card) => renameField(card, props.field.id, (event.target as HTMLInputElement).value))
}

/** To the values that it fills. */
function show() {
  const [piece, part] = props.field.at[0]!.split('/')
  bench.select(piece!, part && place.value?.part === part ? part : null)
}

function remove() {
  const { id, label } = props.field
  bench.edit('No field any more', (card) => removeField(card, id))
  notices.say(`“${label}” is no field any more.`, undoOffer(bench))
}

const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="entry" :class="field.kind">
    <input
      v-if="naming"
      class="plain-field name"
      :value="field.label"
      maxlength="80"
      aria-label="Name of the field"
      autofocus
      @change="rename"
      @blur="naming = false"
    />
    <span v-else class="label" @dblclick="naming = true">
      {{ field.label }}
      <HintText :text="`${kind.label}. ${kind.help}`" />
    </span>
    <p v-if="!there" class="gone" role="alert">What it fills is no longer on the card.</p>
    <textarea
      v-else-if="field.kind === 'wording'"
      class="plain-field"
      :value="value"
      :rows="value.includes('\n') ? 2 : 1"
      :aria-label="field.label"
      @input="write(text($event), field.id)"
      @change="bench.endStep()"
    />
    <ColourField
      v-else-if="field.kind === 'colour'"
      :model-value="value"
      :label="field.label"
      @update:model-value="write($event, field.id)"
    />
    <input
      v-else-if="field.kind === 'switch'"
      type="checkbox"
      :checked="value === 'on'"
      :aria-label="field.label"
      @change="write(($event.target as HTMLInputElement).checked ? 'on' : 'off')"
    />
    <select
      v-else-if="field.kind === 'choice'"
      class="plain-field"
      :value="value"
      :aria-label="field.label"
      @change="write(text($event))"
    >
      <option v-for="option in options" :key="option.value" :value="option.value">{{ option.label }}</option>
    </select>
    <select
      v-else-if="field.kind === 'variant'"
      class="plain-field"
      :value="value"
      :aria-label="field.label"
      @change="write(text($event))"
    >
      <option v-for="variant in field.variants" :key="variant.name">{{ variant.name }}</option>
    </select>
    <select
      v-else-if="field.kind === 'picture'"
      class="plain-field"
      :value="value"
      :aria-label="field.label"
      @change="write(text($event))"
    >
      <option value="" disabled>Choose a picture</option>
      <option v-for="picture in pictures.list" :key="picture.id" :value="picture.id">{{ picture.fileName }}</option>
    </select>
    <span v-else-if="field.kind === 'hold'" class="quiet">{{ held }} frames; rows say their own</span>
    <span v-else class="number">
      <input
        class="plain-field"
        :value="value"
        inputmode="decimal"
        :aria-label="field.label"
        @change="write(text($event))"
      />
      {{ unit }}
    </span>
    <button class="icon-button" :aria-label="`Field ${field.label}, more`">
      <VIcon :icon="mdiDotsHorizontal" size="16" />
      <VMenu activator="parent" location="bottom end">
        <VList density="compact">
          <VListItem title="Rename" @click="naming = true" />
          <VListItem v-if="there && field.kind !== 'hold'" title="Show what it fills" @click="show" />
          <VListItem
            title="Move up"
            :disabled="index === 0"
            @click="bench.edit('Order of the fields', (card) => moveField(card, field.id, index - 1))"
          />
          <VListItem
            title="Move down"
            :disabled="index === bench.card!.fields.length - 1"
            @click="bench.edit('Order of the fields', (card) => moveField(card, field.id, index + 1))"
          />
          <VListItem title="No field any more" @click="remove" />
        </VList>
      </VMenu>
    </button>
    <p v-if="there && moves" class="moves quiet" role="status">
      It moves by keys: rows cannot fill it; here a key is set.
    </p>
  </div>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 72px 1fr 26px;
  gap: 6px;
  align-items: center;
}
.entry.wording {
  align-items: start;
}
.label {
  overflow: hidden;
  line-height: 1.2;
  color: var(--ink-2);
  overflow-wrap: break-word;
}
.name {
  min-width: 0;
}
textarea {
  min-width: 0;
  min-height: 28px;
  padding: 4px 8px;
  resize: vertical;
}
input[type='checkbox'] {
  width: 15px;
  height: 15px;
  accent-color: var(--teal);
}
.number {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--ink-2);
}
.number input {
  width: 84px;
}
select {
  min-width: 0;
}
.moves {
  grid-column: 1 / -1;
  margin: 0;
  font-size: 12px;
}
.gone {
  margin: 0;
  font-size: 12px;
  color: var(--wax);
}
</style>
