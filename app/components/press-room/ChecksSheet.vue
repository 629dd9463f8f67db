<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Fault } from '#core/errors'
import { deliveryOf } from '#core/formats/deliveries/table'
import type { RenderReport } from '#server/renders/report'
import { api, faultOf } from '~/composables/api'
import { aboutRender, sizeWords } from '~/composables/render-words'
import type { RenderRow } from '~/stores/renders'

// What was read back from the files of a render and held against what the engine made.

const props = defineProps<{ row: RenderRow | null }>()
const open = defineModel<boolean>({ required: true })
const report = ref<RenderReport | null>(null)
const fault = ref<Fault | null>(null)
const loses = computed(() => props.row && deliveryOf(props.row.options.format).loses)

watch(open, async (now) => {
  if (!now || !props.row) return
  report.value = null
  fault.value = null
  try {
    ;({ report: report.value } = await api<{ report: RenderReport | null }>(`/renders/${props.row.id}`))
  } catch (error) {
    fault.value = faultOf(error)
  }
})
</script>

<template>
  <VDialog v-model="open" max-width="680">
    <section v-if="row" class="sheet dialog-sheet" aria-label="Checks">
      <header>
        <h2>Checks of {{ row.name }}</h2>
        <p class="quiet">{{ aboutRender(row) }}</p>
      </header>
      <p>
        The finished {{ row.files.length > 1 ? 'files were' : 'file was' }} read again, by the decoder that other
        programs use, and held against the frames as the engine made them.
        <template v-if="loses">What this form does not keep: {{ loses }}.</template>
      </p>
      <p v-if="fault" class="fault-text" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
      <table v-if="report" class="plain-table">
        <thead>
          <tr>
            <th>Check</th>
            <th>In the file</th>
            <th>Wanted</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(check, i) in report.checks"
            :key="i"
            :class="{ 'fault-text': !check.passed }"
            :data-check="check.name"
          >
            <th>{{ check.label }}</th>
            <td>{{ check.found }}</td>
            <td class="quiet">{{ check.expected }}</td>
          </tr>
        </tbody>
      </table>
      <ul v-if="row.files.length > 0">
        <li v-for="file in row.files" :key="file.name">
          {{ file.name }} <span class="quiet">{{ sizeWords(file.bytes) }}</span>
        </li>
      </ul>
      <div class="foot">
        <a class="plain-button" :href="`/api/renders/${row.id}/sidecar`" download>Sidecar</a>
        <button type="button" class="plain-button" @click="open = false">Close</button>
      </div>
    </section>
  </VDialog>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 14px;
}
p {
  margin: 0;
}
header p {
  margin-top: 4px;
}
ul {
  padding: 0;
  margin: 0;
  list-style: none;
}
</style>
