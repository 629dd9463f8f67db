<script setup lang="ts">
import { computed } from 'vue'
import type { DeliveryOptions, Option, OptionName } from '#core/formats/deliveries/option'
import type { Delivery } from '#core/formats/deliveries/delivery'
import ColourField from '~/components/fields/ColourField.vue'

// The options of a delivery, made from its table: those that do not matter beside the others are not shown.

const props = defineProps<{ delivery: Delivery }>()
const options = defineModel<DeliveryOptions>({ required: true })

const fields = computed(() =>
  (Object.entries(props.delivery.options) as [OptionName, Option][]).filter(
    ([, { matters }]) => !matters || matters(options.value),
  ),
)

const put = (name: OptionName, value: string | number | boolean) => {
  options.value = { ...options.value, [name]: value }
}
const chosen = (option: Option & { kind: 'choice' }, text: string) =>
  option.choices.find(({ value }) => String(value) === text)!.value
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div v-if="fields.length > 0" class="fields">
    <component
      :is="option.kind === 'colour' ? 'div' : 'label'"
      v-for="[name, option] in fields"
      :key="name"
      class="field"
      :title="option.help"
      :class="option.kind"
    >
      <span>{{ option.label }}</span>
      <select
        v-if="option.kind === 'choice'"
        class="plain-field"
        :value="String(options[name])"
        @change="put(name, chosen(option, text($event)))"
      >
        <option v-for="{ value, label } in option.choices" :key="value" :value="String(value)">{{ label }}</option>
      </select>
      <ColourField
        v-else-if="option.kind === 'colour'"
        :model-value="String(options[name])"
        :label="option.label"
        @update:model-value="put(name, $event.slice(0, 7))"
      />
      <input
        v-else-if="option.kind === 'switch'"
        type="checkbox"
        :checked="options[name] === true"
        @change="put(name, ($event.target as HTMLInputElement).checked)"
      />
      <input
        v-else
        class="plain-field"
        placeholder="none"
        :value="options[name]"
        @change="put(name, text($event).trim())"
      />
    </component>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 12px;
}
.field {
  display: grid;
  gap: 3px;
  align-content: start;
  color: var(--ink-2);
}
.field.switch {
  grid-template-columns: auto 1fr;
  grid-column: 1 / -1;
  gap: 8px;
  align-items: center;
}
.field.switch input {
  order: -1;
}
select,
.plain-field {
  width: 100%;
  height: 30px;
  padding: 0 8px;
}
</style>
