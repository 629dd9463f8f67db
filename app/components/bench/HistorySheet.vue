<script setup lang="ts">
import { mdiHistory } from '@mdi/js'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import { api } from '~/composables/api'
import { useThumbnail } from '~/composables/thumbnail'
import { useBench } from '~/stores/bench'
import StagePicture from './stage/StagePicture.vue'
import { attempt } from '~/composables/attempt'

/** The steps of this session, and the versions that the server keeps. */
interface Version {
  id: string
  revision: number
  name: string | null
  createdAt: string
}

const WIDTH = 320
const bench = useBench()
const open = ref(false)
const versions = ref<Version[]>([])
const chosen = ref<Version | null>(null)
const former = shallowRef<Card>(bench.card!)
const naming = ref('')
const preview = useThumbnail(`version-${bench.id}`, former, WIDTH)

/** Undone steps first, then what was done, newest first. */
const steps = computed(() => [
  ...bench.future.map(({ label }, i) => ({ label, to: bench.future.length - i, undone: true })).map((s) => s),
  ...[...bench.past].reverse().map(({ label }, i) => ({ label, to: -i, undone: false })),
])

const load = () =>
  attempt(async () => {
    versions.value = await api<Version[]>(`/cards/${bench.id}/versions`)
  })

watch(open, (now) => {
  chosen.value = null
  if (now) void load()
})

/** How many steps back (negative: forward) it is to what stood after a step. */
function go(to: number) {
  for (let i = 0; i < to; i++) bench.redo()
  for (let i = 0; i < -to; i++) bench.undo()
}

const look = (version: Version) =>
  attempt(async () => {
    const { document } = await api<{ document: Card }>(`/cards/${bench.id}/versions/${version.id}`)
    former.value = document
    chosen.value = version
  })

function restore() {
  const { value: card } = former
  bench.edit(`Restore the version of ${when(chosen.value!)}`, () => card)
  open.value = false
}

const keep = () =>
  attempt(async () => {
    await bench.save()
    await api(`/cards/${bench.id}/versions`, 'POST', { name: naming.value })
    naming.value = ''
    await load()
  })

const when = ({ createdAt }: Version) =>
  new Date(createdAt).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <button class="icon-button" aria-label="History" :disabled="!bench.card">
    <VIcon :icon="mdiHistory" size="18" />
    <VTooltip activator="parent" text="History: steps and versions" />
    <VMenu v-model="open" activator="parent" :close-on-content-click="false" location="bottom end">
      <div class="sheet" role="dialog" aria-label="History">
        <section>
          <h3>This session</h3>
          <ol>
            <li v-for="(step, i) in steps" :key="i">
              <button :class="{ undone: step.undone }" :aria-current="step.to === 0" @click="go(step.to)">
                {{ step.label }}
              </button>
            </li>
            <li>
              <button :aria-current="bench.past.length === 0" @click="go(-bench.past.length)">As it was opened</button>
            </li>
          </ol>
        </section>
        <section>
          <h3>Versions</h3>
          <form @submit.prevent="keep">
            <input
              v-model="naming"
              class="plain-field"
              placeholder="Name this version"
              aria-label="Name this version"
              maxlength="120"
            />
            <button class="plain-button" :disabled="!naming.trim()">Keep</button>
          </form>
          <ul>
            <li v-for="version in versions" :key="version.id">
              <button :aria-current="chosen?.id === version.id" @click="look(version)">
                <b v-if="version.name">{{ version.name }}</b> <span class="quiet">{{ when(version) }}</span>
              </button>
            </li>
          </ul>
          <p v-if="versions.length === 0" class="quiet">
            None yet: while you work, one is kept every few minutes by itself.
          </p>
          <div v-if="chosen" class="preview">
            <span class="checker">
              <StagePicture :bitmap="preview.picture.value" :width="WIDTH" :height="180" fluid />
            </span>
            <button class="wax-button" @click="restore">Restore this version</button>
          </div>
        </section>
      </div>
    </VMenu>
  </button>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: 210px 250px;
  gap: 18px;
  max-height: 70vh;
  padding: 14px 16px;
  overflow: auto;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 8px;
  box-shadow: var(--float);
}
h3 {
  margin: 0 0 6px;
  font-size: 13px;
  font-weight: 650;
}
ol,
ul {
  display: grid;
  max-height: 320px;
  padding: 0;
  margin: 0;
  overflow: auto;
  list-style: none;
}
li button {
  width: 100%;
  padding: 4px 6px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 0;
  border-left: 3px solid transparent;
}
li button:hover {
  background: var(--paper-2);
}
li button[aria-current='true'] {
  background: var(--teal-soft);
  border-left-color: var(--teal);
}
.undone {
  color: var(--ink-2) !important;
  text-decoration: line-through;
}
form {
  display: flex;
  gap: 6px;
  padding-bottom: 6px;
}
input {
  flex: 1;
  height: 28px;
  padding: 0 8px;
}
.preview {
  display: grid;
  gap: 8px;
  padding-top: 8px;
}
.preview span {
  overflow: hidden;
  border-radius: 6px;
}
</style>
