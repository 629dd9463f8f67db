<script setup lang="ts">
import { mdiKeyboardOutline, mdiMagnify } from '@mdi/js'
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { storeToRefs } from 'pinia'
import { computed, onMounted, ref } from 'vue'
import { allPieces } from '#core/card/tree'
import type { ProofFinding } from '#core/judge/proof/definition'
import { runsByItself } from '#core/edit/clocks'
import { maskAlone } from '#core/stage/mask-alone'
import { rateLabel, ribbonTime } from '#core/values/rate'
import type { Fault } from '#core/errors'
import FirstNotes from '~/components/bench/FirstNotes.vue'
import FindSheet from '~/components/bench/FindSheet.vue'
import LoopRing from '~/components/bench/LoopRing.vue'
import ProofSheet from '~/components/renders/ProofSheet.vue'
import RenderDialog from '~/components/bench/RenderDialog.vue'
import RibbonPanel from '~/components/bench/ribbon/RibbonPanel.vue'
import SettingsPanel from '~/components/bench/SettingsPanel.vue'
import PanelEdge from '~/components/bench/PanelEdge.vue'
import HistorySheet from '~/components/bench/HistorySheet.vue'
import ShortcutSheet from '~/components/bench/ShortcutSheet.vue'
import StackPanel from '~/components/bench/StackPanel.vue'
import StageArea from '~/components/bench/stage/StageArea.vue'
import PressSheet from '~/components/seals/PressSheet.vue'
import SaveSealDialog from '~/components/seals/SaveSealDialog.vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import UndoTools from '~/components/shell/UndoTools.vue'
import { faultOf } from '~/composables/api'
import { useComparison, usePreview } from '~/composables/preview'
import { aloneCard, withoutPart } from '~/composables/shown-card'
import { useShortcuts } from '~/composables/shortcuts'
import { useShowing } from '~/composables/showing'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { useFonts } from '~/stores/fonts'
import { useRibbon } from '~/stores/ribbon'
import { useShownRow } from '~/stores/shown-row'
import { zonesOf } from '#core/time/held'
import type { RibbonShows } from '~/stores/panels'
import { usePanels } from '~/stores/panels'
import { useStage } from '~/stores/stage'
import { attempt } from '~/composables/attempt'

const route = useRoute()
const id = String(route.params.id)
const bench = useBench()
const ribbon = useRibbon()
const fonts = useFonts()
const stage = useStage()
const panels = usePanels()
const notices = useNotices()
const { card, dragging } = storeToRefs(bench)
const scale = ref(0)
const missing = ref<Fault | null>(null)
const rendering = ref(false)
const proving = ref(false)
const keysShown = ref(false)
const finding = ref(false)
/** What is folded leaves its edge. */
const wide = (panel: 'stack' | 'settings') => (panels.isFolded(panel) ? '5px' : `${panels.sizeOf(panel)}px`)
const ribbonShows = computed((): RibbonShows => {
  if (ribbon.curvesOpen) return 'curves'
  const isStill = bench.lanes.length === 0 && bench.pieces.every((piece) => piece.span === null && !runsByItself(piece))
  return isStill ? 'nothing' : 'lanes'
})
const ribbonHeight = computed(() => panels.ribbonHeight(ribbonShows.value))
const high = computed(() => (panels.isFolded('ribbon') ? '6px' : `${ribbonHeight.value}px`))

/** Faults that pass: the saving goes on behind whatever is open. */
const WAITED_FOR = ['no-server', 'no-database', 'server']

bench.card = null
ribbon.reset()
stage.reset()
const engineName = `bench-${id}`
const rows = useShownRow()
rows.stop()
const shown = computed(() => (scale.value > 0 && rows.shown ? aloneCard(rows.shown, stage.alone) : null))
const { picture, fault, outlook, isPlaced, cost } = usePreview({ name: engineName, card: shown, scale, dragging })
/** Without the selected coat, or as the card was when it was opened. */
const former = computed(() =>
  shown.value && bench.piece && bench.selectedPart
    ? withoutPart(shown.value, bench.piece.id, bench.selectedPart)
    : bench.opened,
)
const comparing = computed(() => stage.look === 'split')
const before = useComparison({ name: `${engineName}-before`, card: former, scale }, comparing)
/** What the selected mask covers, where the stage shows that. */
const maskShown = computed(() => stage.maskView !== 'off' && bench.mask !== null && bench.mask !== undefined)
const masked = computed(() => {
  const { mask, piece } = bench
  if (!maskShown.value || !mask || !piece || !card.value) return null
  const reference = outlook.value.find(({ id }) => id === piece.id)?.reference
  const { width, height } = card.value.frame
  return maskAlone(card.value, piece.id, mask.id, reference ?? Math.min(width, height))
})
const mask = useComparison({ name: `${engineName}-mask`, card: masked, scale }, maskShown)
const does = useShortcuts({ showSheet: () => (keysShown.value = true), find: () => (finding.value = true) }, outlook)
const showing = useShowing(id)

onMounted(async () => {
  void fonts.load().catch(() => {})
  try {
    await bench.open(id)
    arrive()
  } catch (error) {
    missing.value = faultOf(error)
  }
})

/** To the piece and the frame where something was found. */
function goTo({ piece, frame, row }: Pick<ProofFinding, 'piece' | 'frame' | 'row'>, roster = '') {
  if (row !== undefined) void attempt(() => rows.choose(roster, row))
  if (piece !== null) bench.select(piece)
  if (frame !== null && card.value) ribbon.go(frame, card.value.length)
}

/** Other places lead to a piece and a frame by the address. */
function arrive() {
  const { piece, frame, roster, row } = route.query
  if (roster) void attempt(() => rows.choose(String(roster), row ? String(row) : null))
  const there = card.value && allPieces(card.value.pieces).some((one) => one.id === piece)
  const number = Number(frame)
  // What is to be filled in is seen at once: most cards begin empty.
  const zones = card.value && card.value.fields.length > 0 ? zonesOf(card.value) : null
  const seen = zones ? Math.floor((zones.hold + zones.out) / 2) : null
  goTo({ piece: there ? String(piece) : null, frame: frame !== undefined && number >= 0 ? Math.floor(number) : seen })
}

/** Whoever was told what is not saved, and leaves again, gives it up. */
let warned = false

/** What is not saved yet goes out before the page does; if that cannot be, the browser asks. */
onBeforeRouteLeave(async () => {
  if (await bench.save()) return true
  const lost = bench.saveFault?.code ?? ''
  if (bench.saveState !== 'conflict' && WAITED_FOR.includes(lost)) {
    notices.say(`“${card.value?.name}” is not saved yet: it is tried again by itself while this window is open.`)
    return true
  }
  if (warned) {
    bench.drop()
    return true
  }
  warned = true
  notices.fault({
    message:
      bench.saveState === 'conflict'
        ? 'This card was changed in another window, and what you did here is not saved.'
        : `What you did is not saved. ${bench.saveFault?.message ?? ''}`,
    remedy: 'Choose what to keep, or leave once more to give it up.',
  })
  return false
})
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

const keepCopy = () => attempt(async () => navigateTo(`/card/${await bench.keepAsCopy()}`))
const takeNewer = () => attempt(() => bench.openNewer())
useIntervalFn(() => void bench.lookForNewer(), 5000)
</script>

<template>
  <div class="bench" :data-ready="picture !== null">
    <PlaceBar v-show="!panels.whole" bench="here">
      <div v-if="card" class="name">
        <b>{{ card.name }}</b>
        <span class="quiet">
          {{ card.frame.width }}×{{ card.frame.height }} · {{ rateLabel(card.rate) }} fps · loop
          {{ ribbonTime(card.length, card.rate) }}
        </span>
        <span class="quiet" role="status" data-test="save-state">{{ saying }}</span>
      </div>
      <div class="tools">
        <UndoTools :past="bench.past" :future="bench.future" @undo="bench.undo()" @redo="bench.redo()" />
        <HistorySheet v-if="card" />
        <button class="icon-button" aria-label="Find anything" title="Find anything" @click="finding = true">
          <VIcon :icon="mdiMagnify" size="18" />
        </button>
        <button class="icon-button" aria-label="Keys" @click="keysShown = true">
          <VIcon :icon="mdiKeyboardOutline" size="18" />
        </button>
        <button class="plain-button" :disabled="!card" @click="proving = true">Proof</button>
        <button class="wax-button" :disabled="!card" @click="rendering = true">Render with transparency</button>
      </div>
    </PlaceBar>
    <p v-if="bench.saveState === 'conflict' || bench.newer" class="strip" role="alert">
      This card was changed in another window. Nothing of yours is lost.
      <button class="plain-button" @click="takeNewer">Open the newer one</button>
      <button class="plain-button" @click="keepCopy">Keep mine as a copy</button>
      <button class="plain-button" title="The other one is kept among the versions" @click="attempt(bench.takeOver)">
        Take over with mine
      </button>
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
        <div v-show="!panels.whole" class="panel" :style="{ width: wide('stack') }">
          <StackPanel v-show="!panels.isFolded('stack')" :outlook="outlook" />
          <PanelEdge panel="stack" :size="panels.sizeOf('stack')" />
        </div>
        <StageArea
          :picture="picture"
          :before="before"
          :mask="maskShown ? mask : null"
          :fault="fault"
          :outlook="outlook"
          :is-placed="isPlaced"
          :cost="cost"
          :engine-name="engineName"
          @scale="scale = $event"
          @show-apart="showing.open()"
        >
          <FirstNotes v-show="!panels.whole" />
        </StageArea>
        <div v-show="!panels.whole" class="panel" :style="{ width: wide('settings') }">
          <SettingsPanel v-show="!panels.isFolded('settings')" :outlook="outlook" :engine-name="engineName" />
          <PanelEdge panel="settings" :size="panels.sizeOf('settings')" />
        </div>
      </div>
      <div v-show="!panels.whole" class="lower" :style="{ height: high }">
        <PanelEdge panel="ribbon" :size="ribbonHeight" />
        <template v-if="!panels.isFolded('ribbon')">
          <LoopRing />
          <RibbonPanel :engine-name="engineName" />
        </template>
      </div>
      <ProofSheet v-model="proving" :card="card" :card-id="id" :engine-name="engineName" @go-to="goTo" />
      <RenderDialog v-model="rendering" />
      <PressSheet />
      <SaveSealDialog :outlook="outlook" />
    </template>
    <div v-else class="missing quiet">Opening…</div>
    <FindSheet v-if="card" v-model="finding" :does="does" />
    <ShortcutSheet v-model="keysShown" />
  </div>
</template>

<style scoped>
.bench {
  display: flex;
  flex-direction: column;
  min-width: 900px;
  height: 100vh;
  min-height: 520px;
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
  grid-template-columns: auto minmax(0, 1fr) auto;
  min-height: 0;
}
.upper > :deep(.stage) {
  grid-column: 2;
  grid-row: 1;
}
.panel {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-row: 1;
  grid-column: 1;
  min-height: 0;
}
.panel:last-child {
  grid-column: 3;
}
.lower {
  display: grid;
  position: relative;
  grid-template-rows: minmax(0, 1fr);
  grid-template-columns: 164px minmax(0, 1fr);
}
.missing {
  padding: 60px;
  text-align: center;
}
</style>
