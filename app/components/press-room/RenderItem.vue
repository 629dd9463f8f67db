<script setup lang="ts">
import { mdiDotsHorizontal, mdiPin } from '@mdi/js'
import { computed } from 'vue'
import { download } from '~/composables/download'
import { aboutRender, badgeWords, sizeWords } from '~/composables/render-words'
import type { RenderRow } from '~/stores/renders'
import { isActive } from '~/stores/renders'
import RenderProgress from './RenderProgress.vue'
import SmallPicture from './SmallPicture.vue'

const props = defineProps<{ row: RenderRow; backdrop: string }>()
defineEmits<{
  cancel: []
  remove: []
  again: []
  goOn: []
  keep: [kept: boolean]
  checks: []
  proof: []
}>()

const active = computed(() => isActive(props.row))
const about = computed(() => aboutRender(props.row))
const badge = computed(() => badgeWords(props.row))
const bytes = computed(() => props.row.files.reduce((sum, file) => sum + file.bytes, 0))
const fileAddress = (index: number) => `/api/renders/${props.row.id}/files/${index}`
const when = computed(() =>
  new Date(props.row.createdAt).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' }),
)
const took = computed(() => {
  const { report } = props.row
  if (!report) return ''
  return `rendered in ${report.seconds.render.toFixed(1)} s, read again in ${report.seconds.check.toFixed(1)} s`
})

/** Files are told apart by what they are for: fill and key. */
function downloadAll() {
  for (const [i, file] of props.row.files.entries()) download(fileAddress(i), file.name)
}
</script>

<template>
  <article class="item" :aria-label="`${row.name}, ${about}`" :data-status="row.status" :data-render="row.id">
    <SmallPicture :row="row" :backdrop="backdrop" />
    <div class="text">
      <div class="title">
        <b>{{ row.name }}</b>
        <VIcon v-if="row.kept" :icon="mdiPin" size="14" title="Kept: it is not cleaned away" />
        <span class="quiet">{{ about }}</span>
      </div>
      <RenderProgress v-if="active" :row="row" />
      <template v-else-if="row.status === 'done'">
        <p>
          <button class="badge" :class="{ none: !row.report?.alpha }" type="button" @click="$emit('checks')">
            {{ badge.title }}
          </button>
          <span class="quiet">{{ badge.more }}</span>
        </p>
        <p class="quiet small">{{ when }} · {{ sizeWords(bytes) }} · {{ took }}</p>
      </template>
      <template v-else-if="row.status === 'failed' && row.fault">
        <p role="alert">
          <b class="bad">Not finished</b> {{ row.fault.message }} <span class="quiet">{{ row.fault.remedy }}</span>
        </p>
        <p class="quiet small">{{ when }}</p>
      </template>
      <p v-else class="quiet">Cancelled; nothing was kept.</p>
    </div>
    <div class="actions">
      <template v-if="row.status === 'done'">
        <a v-if="row.files.length === 1" class="wax-button" :href="fileAddress(0)" :title="row.files[0]!.name" download
          >Download</a
        >
        <button v-else class="wax-button" @click="downloadAll">Download all</button>
        <NuxtLink class="plain-button" :to="`/renders/${row.id}`" title="Lay the file over footage, as an edit does"
          >Try in an edit</NuxtLink
        >
      </template>
      <button v-if="row.status === 'failed'" class="wax-button" @click="$emit('goOn')">Try again</button>
      <button v-if="active" class="plain-button" @click="$emit('cancel')">Cancel</button>
      <button class="icon-button" :aria-label="`${row.name}, more`">
        <VIcon :icon="mdiDotsHorizontal" size="18" />
        <VMenu activator="parent" location="bottom end">
          <VList density="compact">
            <template v-if="row.status === 'done'">
              <VListItem
                v-for="(file, i) in row.files.length > 1 ? row.files : []"
                :key="file.name"
                :title="`Download ${i === 0 ? 'fill' : 'key'}`"
                :subtitle="`${file.name}, ${sizeWords(file.bytes)}`"
                @click="download(fileAddress(i), file.name)"
              />
              <VListItem title="Checks" subtitle="What was read back" @click="$emit('checks')" />
              <VListItem
                title="Sidecar"
                subtitle="Hashes of all frames, as JSON"
                @click="download(`/api/renders/${row.id}/sidecar`, '')"
              />
            </template>
            <VListItem title="Again with other options" subtitle="The card as it was then" @click="$emit('again')" />
            <VListItem title="Proof" subtitle="How the card will be seen" @click="$emit('proof')" />
            <VListItem title="Open the card" @click="navigateTo(`/card/${row.cardId}`)" />
            <VListItem
              v-if="row.status === 'done'"
              :title="row.kept ? 'Keep no longer' : 'Keep'"
              :subtitle="row.kept ? 'It may be cleaned away' : 'It is never cleaned away'"
              @click="$emit('keep', !row.kept)"
            />
            <VListItem v-if="!active" title="Remove" @click="$emit('remove')" />
          </VList>
        </VMenu>
      </button>
    </div>
  </article>
</template>

<style scoped>
.item {
  display: grid;
  grid-template-columns: 176px minmax(0, 1fr) auto;
  gap: 16px;
  align-items: center;
  padding: 10px 14px 10px 10px;
  content-visibility: auto;
  contain-intrinsic-size: auto 121px;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 8px;
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
  overflow: hidden;
  font-size: 14px;
  font-weight: 650;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.title .quiet {
  flex: none;
}
p {
  margin: 0;
}
.small {
  font-size: 12px;
}
.badge {
  padding: 2px 10px;
  margin-right: 10px;
  font: inherit;
  font-weight: 650;
  color: var(--teal);
  cursor: pointer;
  background: var(--teal-soft);
  border: 1px solid transparent;
  border-radius: 20px;
}
.badge:hover {
  border-color: var(--teal);
}
.badge.none {
  color: var(--ink);
  background: var(--paper-3);
}
.bad {
  margin-right: 6px;
  color: var(--wax);
}
.actions {
  display: flex;
  gap: 8px;
  align-items: center;
}
a {
  text-decoration: none;
}
</style>
