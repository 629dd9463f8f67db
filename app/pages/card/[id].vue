<script setup lang="ts">
import { mdiKeyboardOutline, mdiRedo, mdiUndo } from '@mdi/js'
import { useEventListener } from '@vueuse/core'
import { storeToRefs } from 'pinia'
import { computed, onMounted, ref } from 'vue'
import { rateLabel, ribbonTime } from '#core/time/rate'
import type { Fault } from '#core/errors'
import LoopRing from '~/components/bench/LoopRing.vue'
import RenderDialog from '~/components/bench/RenderDialog.vue'
import RibbonLanes from '~/components/bench/RibbonLanes.vue'
import SettingsPanel from '~/components/bench/SettingsPanel.vue'
import ShortcutSheet from '~/components/bench/ShortcutSheet.vue'
import StackPanel from '~/components/bench/StackPanel.vue'
import StageArea from '~/components/bench/StageArea.vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import { faultOf } from '~/composables/api'
import { usePreview } from '~/composables/preview'
import { useShortcuts } from '~/composables/shortcuts'
import { useBench } from '~/stores/bench'
import { useFonts } from '~/stores/fonts'
import { useRibbon } from '~/stores/ribbon'

const id = String(useRoute().params.id)
const bench = useBench()
const ribbon = useRibbon()
const fonts = useFonts()
const { card, dragging } = storeToRefs(bench)
const scale = ref(0)
const missing = ref<Fault | null>(null)
const rendering = ref(false)
const keysShown = ref(false)

bench.card = null
ribbon.$patch({ frame: 0, playing: false, selectedKey: null, ready: [] })
const shown = computed(() => (scale.value > 0 ? card.value : null))
const { picture, fault, outlook, cost } = usePreview({ name: `bench-${id}`, card: shown, scale, dragging })
useShortcuts(() => (keysShown.value = true))

onMounted(async () => {
  void fonts.load().catch(() => {})
  try {
    await bench.open(id)
  } catch (error) {
    missing.value = faultOf(error)
  }
})

/** What is not saved yet goes out before the page does; if that cannot be, the browser asks. */
onBeforeRouteLeave(() => bench.save())
useEventListener(window, 'beforeunload', (event) => {
  if (!bench.hasUnsaved()) return
  void bench.save()
  event.preventDefault()
})

const saying = computed(() => {
  switch (bench.saveState) {
    case 'saved':
      return 'saved'
    case 'failed':
      return 'not saved yet'
    case 'conflict':
      return 'changed elsewhere'
    default:
      return 'saving…'
  }
})

async function keepCopy() {
  const copy = await bench.keepAsCopy()
  await navigateTo(`/card/${copy}`)
}

async function takeNewer() {
  await bench.open(id)
}
</script>

<template>
  <div class="bench" :data-ready="picture !== null">
    <PlaceBar bench="here">
      <div v-if="card" class="name">
        <b>{{ card.name }}</b>
        <span class="quiet">
          {{ card.frame.width }}×{{ card.frame.height }} · {{ rateLabel(card.rate) }} fps · loop
          {{ ribbonTime(card.length, card.rate) }}
        </span>
        <span class="quiet" role="status" data-test="save-state">{{ saying }}</span>
      </div>
      <div class="tools">
        <button class="icon-button" :disabled="bench.past.length === 0" aria-label="Undo" @click="bench.undo()">
          <VIcon :icon="mdiUndo" size="18" /><VTooltip
            activator="parent"
            :text="`Undo: ${bench.past.at(-1)?.label ?? ''}`"
          />
        </button>
        <button class="icon-button" :disabled="bench.future.length === 0" aria-label="Redo" @click="bench.redo()">
          <VIcon :icon="mdiRedo" size="18" /><VTooltip
            activator="parent"
            :text="`Redo: ${bench.future.at(-1)?.label ?? ''}`"
          />
        </button>
        <button class="icon-button" aria-label="Keys" @click="keysShown = true">
          <VIcon :icon="mdiKeyboardOutline" size="18" />
        </button>
        <button class="wax-button" :disabled="!card" @click="rendering = true">Render with transparency</button>
      </div>
    </PlaceBar>
    <p v-if="bench.saveState === 'conflict'" class="strip" role="alert">
      This card was changed in another window. Nothing of yours is lost.
      <button class="plain-button" @click="keepCopy">Keep mine as a copy</button>
      <button class="plain-button" @click="takeNewer">Open the newer one</button>
    </p>
    <p v-else-if="bench.saveState === 'failed' && bench.saveFault" class="strip" role="alert">
      Not saved: {{ bench.saveFault.message }} {{ bench.saveFault.remedy }}
    </p>
    <div v-if="missing" class="missing">
      <p>{{ missing.message }} {{ missing.remedy }}</p>
      <NuxtLink to="/">To the shelf</NuxtLink>
    </div>
    <template v-else-if="card">
      <div class="upper">
        <StackPanel />
        <StageArea :picture="picture" :fault="fault" :outlook="outlook" :cost="cost" @scale="scale = $event" />
        <SettingsPanel :outlook="outlook" />
      </div>
      <div class="lower">
        <LoopRing />
        <RibbonLanes />
      </div>
      <RenderDialog v-model="rendering" />
    </template>
    <div v-else class="missing quiet">Opening…</div>
    <ShortcutSheet v-model="keysShown" />
  </div>
</template>

<style scoped>
.bench {
  display: flex;
  flex-direction: column;
  height: 100vh;
  background: var(--paper);
}
.name {
  display: flex;
  gap: 10px;
  align-items: baseline;
  min-width: 0;
  margin: 0 auto;
  white-space: nowrap;
}
.name b {
  overflow: hidden;
  font-weight: 650;
  text-overflow: ellipsis;
}
.name .quiet {
  font-size: 12px;
}
.tools {
  display: flex;
  gap: 4px;
  align-items: center;
}
.tools .icon-button {
  font-size: 16px;
}
.tools .wax-button {
  margin-left: 8px;
}
.strip {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 6px 14px;
  margin: 0;
  color: var(--wax);
  background: var(--paper-2);
  border-bottom: 1px solid var(--line);
}
.upper {
  display: grid;
  flex: 1;
  grid-template-columns: 264px minmax(0, 1fr) 316px;
  min-height: 0;
}
.lower {
  display: grid;
  grid-template-columns: 164px minmax(0, 1fr);
  height: 216px;
  border-top: 1px solid var(--line);
}
.missing {
  padding: 60px;
  text-align: center;
}
</style>
