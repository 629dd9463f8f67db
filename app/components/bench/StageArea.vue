<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watchEffect } from 'vue'
import type { PieceOutlook } from '#core/frame/engine'
import type { Fault } from '#core/errors'
import type { BackdropId, LookId } from '~/composables/backdrops'
import { BACKDROPS, LOOKS } from '~/composables/backdrops'
import { useBench } from '~/stores/bench'
import StageHandles from './StageHandles.vue'
import StagePicture from './StagePicture.vue'

defineProps<{ picture: ImageBitmap | null; fault: Fault | null; outlook: PieceOutlook[]; cost: number }>()
const emit = defineEmits<{ scale: [value: number] }>()

const ZOOMS = [25, 50, 100, 200, 400, 800, 1600]
const MARGIN = 26

const bench = useBench()
const mat = ref<HTMLElement>()
const { width: matWidth, height: matHeight } = useElementSize(mat)
const zoomChoice = ref<'fit' | number>('fit')
const backdrop = ref<BackdropId>('dusk')
const look = ref<LookId>('colour')
const safeAreas = ref(false)

const frame = computed(() => bench.card?.frame ?? { width: 16, height: 9 })
const fit = computed(() => {
  const across = look.value === 'both' ? 2 : 1
  const w = (matWidth.value - MARGIN * (across + 1)) / across / frame.value.width
  const h = (matHeight.value - MARGIN * 2) / frame.value.height
  return Math.max(0.02, Math.min(w, h))
})
const zoom = computed(() => (zoomChoice.value === 'fit' ? fit.value : zoomChoice.value / 100))
const size = computed(() => ({
  width: Math.round(frame.value.width * zoom.value),
  height: Math.round(frame.value.height * zoom.value),
}))
const css = computed(() => BACKDROPS.find(({ id }) => id === backdrop.value)!.css)
const screens = computed(() => {
  if (look.value === 'both') return ['#ffffff', '#000000']
  return [look.value === 'alpha' ? '#000000' : css.value]
})

// The engine never makes more pixels than the card has: above 100 % the card's own pixels are enlarged.
watchEffect(() => {
  if (matWidth.value > 0) emit('scale', Math.min(1, size.value.width / frame.value.width))
})

function wheel(event: WheelEvent) {
  if (!event.ctrlKey) return
  event.preventDefault()
  const now = zoom.value * 100
  const next = event.deltaY < 0 ? ZOOMS.find((z) => z > now + 0.5) : [...ZOOMS].reverse().find((z) => z < now - 0.5)
  if (next) zoomChoice.value = next
}
</script>

<template>
  <main class="stage">
    <div ref="mat" class="mat" @wheel="wheel">
      <div class="screens">
        <div
          v-for="(ground, i) in screens"
          :key="i"
          class="screen"
          :style="{ width: `${size.width}px`, height: `${size.height}px`, background: ground }"
        >
          <StagePicture :bitmap="picture" v-bind="size" :alpha="look === 'alpha'" :crisp="zoom > 1" />
          <!-- EBU R 95: action safe 3.5 %, graphics safe 5 % from each edge. -->
          <template v-if="safeAreas">
            <span class="safe" style="inset: 3.5%" />
            <span class="safe" style="inset: 5%" />
          </template>
          <StageHandles :outlook="outlook" :zoom="zoom" />
        </div>
      </div>
      <p v-if="fault" class="fault" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
    </div>
    <footer class="foot">
      <select v-model="zoomChoice" aria-label="Zoom">
        <option value="fit">Fit, {{ Math.round(fit * 100) }} %</option>
        <option v-for="value in ZOOMS" :key="value" :value="value">{{ value }} %</option>
      </select>
      <label class="quiet">
        Backdrop
        <select v-model="backdrop" aria-label="Backdrop">
          <option v-for="choice in BACKDROPS" :key="choice.id" :value="choice.id">{{ choice.label }}</option>
        </select>
      </label>
      <label class="quiet safe-toggle"><input v-model="safeAreas" type="checkbox" /> Safe areas</label>
      <span v-if="cost" class="quiet cost" :title="'Time of the last full picture on one core'"
        >{{ Math.round(cost) }} ms</span
      >
      <div class="looks" role="radiogroup" aria-label="Look">
        <button
          v-for="choice in LOOKS"
          :key="choice.id"
          role="radio"
          :aria-checked="look === choice.id"
          :title="choice.help"
          @click="look = choice.id"
        >
          {{ choice.label }}
        </button>
      </div>
    </footer>
  </main>
</template>

<style scoped>
.stage {
  display: grid;
  grid-template-rows: 1fr 38px;
  min-width: 0;
  min-height: 0;
}
.mat {
  position: relative;
  display: grid;
  min-height: 0;
  overflow: auto;
  background: var(--mat);
}
.screens {
  display: flex;
  gap: 26px;
  padding: 26px;
  margin: auto;
}
.screen {
  position: relative;
  box-shadow: 0 0 0 1px #0006;
}
.safe {
  position: absolute;
  pointer-events: none;
  border: 1px dashed #ffffff88;
  outline: 1px dashed #00000066;
  outline-offset: -2px;
}
.fault {
  position: absolute;
  inset: auto 0 0;
  padding: 8px 14px;
  margin: 0;
  color: #fff6ee;
  background: #9b2d26;
}
.foot {
  display: flex;
  gap: 14px;
  align-items: center;
  padding: 0 12px;
  white-space: nowrap;
  background: var(--paper);
  border-top: 1px solid var(--line);
}
select {
  height: 26px;
  padding: 0 4px;
  font: inherit;
  font-weight: 650;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid transparent;
  border-radius: 5px;
}
select:hover {
  border-color: var(--line);
}
.safe-toggle {
  display: flex;
  gap: 5px;
  align-items: center;
}
input[type='checkbox'] {
  accent-color: var(--teal);
}
.cost {
  margin-left: auto;
}
.looks {
  display: flex;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 6px;
}
.cost + .looks {
  margin-left: 0;
}
.looks {
  margin-left: auto;
}
.looks button {
  height: 26px;
  padding: 0 10px;
  font: inherit;
  color: var(--ink-2);
  cursor: pointer;
  background: var(--raised);
  border: 0;
}
.looks button[aria-checked='true'] {
  font-weight: 650;
  color: var(--paper);
  background: var(--teal);
}
</style>
