<script setup lang="ts">
import { computed } from 'vue'
import { deliveryOf } from '#core/formats/deliveries/table'
import type { RenderRow } from '~/stores/renders'

const props = defineProps<{ row: RenderRow }>()
defineEmits<{ cancel: []; remove: [] }>()

const active = computed(() => ['queued', 'running', 'checking'].includes(props.row.status))
const share = computed(() => props.row.framesDone / props.row.framesTotal)
const about = computed(() => {
  const { options, framesTotal } = props.row
  const { label, options: table } = deliveryOf(options.format)
  const bits = table.bits?.kind === 'choice' ? table.bits.choices.find(({ value }) => value === options.bits) : null
  return `${label}${bits ? `, ${bits.label}` : ''} · ${framesTotal} ${framesTotal === 1 ? 'frame' : 'frames'}`
})
const doing = computed(() => {
  const { status, framesDone, framesTotal, attempts } = props.row
  if (status === 'queued')
    return attempts > 0
      ? 'The render worker stopped; the render starts again by itself'
      : 'Waiting for the render worker'
  if (status === 'running') return `${framesDone} of ${framesTotal} frames rendered`
  if (status === 'checking') return `Reading the file again: ${framesDone} of ${framesTotal} frames compared`
  if (status === 'cancelled') return 'Cancelled; nothing was kept'
  return ''
})
const megabytes = (bytes: number) => (bytes / 1e6).toFixed(1)
const when = computed(() =>
  new Date(props.row.createdAt).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' }),
)
</script>

<template>
  <article class="item" :aria-label="`${row.name}, ${about}`" :data-status="row.status">
    <div class="text">
      <div class="title">
        <b>{{ row.name }}</b> <span class="quiet">{{ about }}</span>
      </div>
      <div
        v-if="active"
        class="progress"
        role="progressbar"
        :aria-valuenow="Math.round(share * 100)"
        aria-valuemin="0"
        aria-valuemax="100"
      >
        <span :class="row.status" :style="{ width: `${share * 100}%` }" />
      </div>
      <p v-if="doing" class="quiet">{{ doing }}</p>
      <template v-if="row.status === 'done' && row.report">
        <p>
          <template v-if="row.report.alpha">
            <b class="good">Transparency verified</b> alpha differs by at most
            {{ row.report.alpha.largest.toFixed(2) }}, on average {{ row.report.alpha.mean.toFixed(3) }} of 255
          </template>
          <template v-else><b>No transparency</b> read again and held against the frames</template>
        </p>
        <ul class="checks">
          <li v-for="check in row.report.checks" :key="check.name" :class="{ bad: !check.passed }">
            {{ check.label }}: {{ check.found }}
          </li>
        </ul>
        <p class="quiet">
          rendered in {{ row.report.seconds.render.toFixed(1) }} s, read again in
          {{ row.report.seconds.check.toFixed(1) }} s
        </p>
      </template>
      <p v-if="row.status === 'failed' && row.fault" role="alert">
        <b class="bad">Not finished</b> {{ row.fault.message }} {{ row.fault.remedy }}
      </p>
      <p class="quiet when">{{ when }}</p>
    </div>
    <div class="actions">
      <template v-if="row.status === 'done'">
        <a
          v-for="(file, i) in row.files"
          :key="file.name"
          class="wax-button"
          :href="`/api/renders/${row.id}/files/${i}`"
          :title="file.name"
          download
          >Download {{ row.files.length > 1 ? (i === 0 ? 'fill ' : 'key ') : '' }}{{ megabytes(file.bytes) }} MB</a
        >
        <a
          class="plain-button"
          :href="`/api/renders/${row.id}/sidecar`"
          download
          title="What was made, from what, with the hashes of all frames"
          >Sidecar</a
        >
      </template>
      <button v-if="active" class="plain-button" @click="$emit('cancel')">Cancel</button>
      <button v-else class="plain-button" @click="$emit('remove')">Remove</button>
    </div>
  </article>
</template>

<style scoped>
.item {
  display: flex;
  gap: 16px;
  align-items: flex-start;
  justify-content: space-between;
  padding: 14px 16px;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 8px;
}
.text {
  flex: 1;
  min-width: 0;
}
.title b {
  font-weight: 650;
}
p {
  margin: 6px 0 0;
}
.when {
  font-size: 12px;
}
.progress {
  height: 10px;
  margin-top: 8px;
  overflow: hidden;
  background: var(--paper-3);
  border-radius: 5px;
}
.progress span {
  display: block;
  height: 100%;
  background: var(--teal);
  transition: width 0.3s linear;
}
.progress .checking {
  background: var(--wax);
}
.checks {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 0;
  margin: 6px 0 0;
  list-style: none;
}
.checks li {
  padding: 3px 8px;
  font-size: 12px;
  background: var(--paper-2);
  border-radius: 5px;
}
.good {
  color: var(--teal);
}
.bad {
  color: var(--wax);
}
.actions {
  display: flex;
  gap: 8px;
}
a {
  text-decoration: none;
}
</style>
