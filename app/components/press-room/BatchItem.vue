<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight, mdiDotsHorizontal } from '@mdi/js'
import { useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { deliveryOf } from '#core/formats/deliveries/table'
import type { ListedBatch } from '#server/renders/batch/listed'
import { download } from '~/composables/download'
import { sizeWords } from '~/composables/render-words'
import { useBatches } from '~/stores/batches'
import type { RenderRow } from '~/stores/renders'
import { isActive } from '~/stores/renders'
import SmallPicture from './SmallPicture.vue'

/** A job of many files with one progress; unfolded, its rows one by one. */
const props = defineProps<{ batch: ListedBatch; backdrop: string }>()
defineEmits<{
  cancel: []
  goOn: []
  remove: []
  checks: [row: RenderRow]
  cancelRow: [id: string]
  goOnRow: [id: string]
}>()

const batches = useBatches()
const open = ref(false)

const waiting = computed(() => {
  const { total, done, failed, cancelled } = props.batch
  return total - done - failed - cancelled
})
const active = computed(() => waiting.value > 0)
const share = computed(() => props.batch.framesDone / Math.max(1, props.batch.framesTotal))
const about = computed(() => {
  const { format, programme, total } = props.batch
  const what = programme ? 'one programme' : `${total} ${total === 1 ? 'file' : 'files'}`
  return `${deliveryOf(format).label} · ${what}`
})
const state = computed(() => {
  const { total, done, failed, cancelled, leftOut, framesDone, framesTotal } = props.batch
  return [
    active.value
      ? `${done} of ${total} finished · ${framesDone} of ${framesTotal} frames`
      : `${done} of ${total} finished and checked`,
    ...(failed > 0 ? [`${failed} failed`] : []),
    ...(cancelled > 0 ? [`${cancelled} cancelled`] : []),
    ...(leftOut.length > 0 ? [`${leftOut.length} left out`] : []),
  ].join(' · ')
})
const small = computed(() =>
  props.batch.small === null
    ? null
    : { id: props.batch.small, small: true, status: 'done' as const, framesDone: 0, attempts: 0 },
)
const rows = computed(() => batches.rows[props.batch.id] ?? [])
const when = computed(() =>
  new Date(props.batch.createdAt).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' }),
)
const address = (what: string) => `/api/batches/${props.batch.id}/${what}`

const look = () => void batches.loadRows(props.batch.id).catch(() => {})
watch(open, (now) => now && look())
// Its rows are looked at while they change and can be seen.
const { pause, resume } = useIntervalFn(look, 1000, { immediate: false })
watch([open, active], ([seen, works]) => (seen && works ? resume() : (pause(), seen && look())))

const WORDS: Record<RenderRow['status'], string> = {
  queued: 'waits',
  running: 'rendering',
  checking: 'read again',
  done: 'checked',
  failed: 'failed',
  cancelled: 'cancelled',
}
</script>

<template>
  <article class="batch" :aria-label="`${batch.rosterName}, ${about}`" :data-batch="batch.id" :data-active="active">
    <div class="item">
      <SmallPicture v-if="small" :row="small" :backdrop="backdrop" />
      <span v-else class="none" />
      <div class="text">
        <div class="title">
          <b>{{ batch.rosterName }}</b>
          <span class="quiet">on {{ batch.cardName }} · {{ about }}</span>
        </div>
        <div
          v-if="active"
          class="progress"
          role="progressbar"
          :aria-label="`${batch.rosterName}, ${state}`"
          :aria-valuenow="Math.round(share * 100)"
          aria-valuemin="0"
          aria-valuemax="100"
        >
          <span :style="{ width: `${share * 100}%` }" />
        </div>
        <p :class="{ bad: !active && batch.failed > 0 }" data-test="batch-state">{{ state }}</p>
        <p class="quiet small">{{ when }}{{ batch.bytes > 0 ? ` · ${sizeWords(batch.bytes)}` : '' }}</p>
      </div>
      <div class="actions">
        <a v-if="!active && batch.done > 0" class="wax-button" :href="address('archive')" download>Download all</a>
        <button v-if="!active && batch.failed + batch.cancelled > 0" class="plain-button" @click="$emit('goOn')">
          Try again
        </button>
        <button v-if="active" class="plain-button" @click="$emit('cancel')">Cancel</button>
        <button class="plain-button" :aria-expanded="open" @click="open = !open">
          <VIcon :icon="open ? mdiChevronDown : mdiChevronRight" size="16" /> Rows
        </button>
        <button class="icon-button" :aria-label="`${batch.rosterName}, more`">
          <VIcon :icon="mdiDotsHorizontal" size="18" />
          <VMenu activator="parent" location="bottom end">
            <VList density="compact">
              <VListItem
                title="Report"
                subtitle="What became of every row, as CSV"
                @click="download(address('report'), '')"
              />
              <VListItem
                v-if="batch.placed && batch.done > 0"
                title="Timeline"
                subtitle="All files at their places, as .otio"
                @click="download(address('timeline'), '')"
              />
              <VListItem title="Open the roster" @click="navigateTo(`/roster/${batch.rosterId}`)" />
              <VListItem title="Open the card" @click="navigateTo(`/card/${batch.cardId}`)" />
              <VListItem v-if="!active" title="Remove" subtitle="With all of its files" @click="$emit('remove')" />
            </VList>
          </VMenu>
        </button>
      </div>
    </div>
    <ul v-if="open" class="rows">
      <li v-for="row in rows" :key="row.id" :data-status="row.status">
        <b>{{ row.rowName }}</b>
        <span class="state" :class="row.status">{{ WORDS[row.status] }}</span>
        <span class="quiet">{{
          row.status === 'running' || row.status === 'checking'
            ? `${row.framesDone} of ${row.framesTotal} frames`
            : row.fault
              ? `${row.fault.message} ${row.fault.remedy}`
              : row.files.map(({ name }) => name).join(' + ') || `${row.framesTotal} frames`
        }}</span>
        <span class="ends">
          <template v-if="row.status === 'done'">
            <button class="plain-button" @click="$emit('checks', row)">Checks</button>
            <NuxtLink class="plain-button" :to="`/renders/${row.id}`" title="Lay the file over footage, as an edit does"
              >Try in an edit</NuxtLink
            >
            <a
              v-for="(file, i) in row.files"
              :key="file.name"
              class="plain-button"
              :href="`/api/renders/${row.id}/files/${i}`"
              download
              >{{ row.files.length > 1 ? (i === 0 ? 'Fill' : 'Key') : 'Download' }}</a
            >
          </template>
          <button v-if="isActive(row)" class="plain-button" @click="$emit('cancelRow', row.id)">Cancel</button>
          <button
            v-if="row.status === 'failed' || row.status === 'cancelled'"
            class="plain-button"
            @click="$emit('goOnRow', row.id)"
          >
            Try again
          </button>
        </span>
      </li>
      <li v-for="{ row, title, fault } in batch.leftOut" :key="row" data-status="left-out">
        <b>{{ title }}</b><span class="state failed">left out</span>
        <span class="quiet">{{ fault.place }}: {{ fault.message }} {{ fault.remedy }}</span>
      </li>
    </ul>
  </article>
</template>

<style scoped>
.batch {
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 8px;
}
.item {
  display: grid;
  grid-template-columns: 176px minmax(0, 1fr) auto;
  gap: 16px;
  align-items: center;
  padding: 10px 14px 10px 10px;
}
.none {
  height: 99px;
  background: var(--paper-3);
  border-radius: 5px;
}
.text {
  display: grid;
  gap: 8px;
}
.title {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.title b {
  font-size: 14px;
  font-weight: 650;
  white-space: nowrap;
}
.title .quiet {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.progress {
  height: 8px;
  overflow: hidden;
  background: var(--paper-3);
  border-radius: 4px;
}
.progress span {
  display: block;
  height: 100%;
  background: var(--wax);
}
p {
  margin: 0;
}
.bad {
  color: var(--wax);
}
.small {
  font-size: 12px;
}
.actions,
.ends {
  display: flex;
  gap: 8px;
  align-items: center;
}
a {
  text-decoration: none;
}
.rows {
  max-height: 420px;
  padding: 0;
  margin: 0;
  overflow: auto;
  list-style: none;
  border-top: 1px solid var(--line);
}
.rows li {
  display: grid;
  grid-template-columns: 220px 84px minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  min-height: 38px;
  padding: 3px 14px;
  border-bottom: 1px solid var(--line);
  content-visibility: auto;
  contain-intrinsic-size: auto 38px;
}
.rows b,
.rows .quiet {
  overflow: hidden;
  font-weight: 500;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.state.done {
  font-weight: 600;
  color: var(--teal);
}
.state.failed {
  font-weight: 600;
  color: var(--wax);
}
.rows .plain-button {
  height: 26px;
}
</style>
