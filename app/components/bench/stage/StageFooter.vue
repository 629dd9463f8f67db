<script setup lang="ts">
import { mdiArrowCollapse, mdiArrowExpand, mdiMonitorShare } from '@mdi/js'
import { computed, ref } from 'vue'
import { BACKDROPS, LOOKS } from '~/composables/backdrops'
import { useBench } from '~/stores/bench'
import { usePanels } from '~/stores/panels'
import { useStage } from '~/stores/stage'

defineProps<{ zooms: readonly number[]; fit: number; cost: number }>()
defineEmits<{ showApart: [] }>()
const zoom = defineModel<'fit' | number>('zoom', { required: true })

const GRIDS = [0, 10, 20, 40, 60, 120]
const bench = useBench()
const stage = useStage()
const panels = usePanels()
const file = ref<HTMLInputElement>()
const guides = computed(() => {
  const names = [stage.safeAreas ? 'safe areas' : '', stage.grid ? `grid ${stage.grid}` : ''].filter(Boolean)
  return names.join(', ')
})

function chooseBackdrop(event: Event) {
  const { value } = event.target as HTMLSelectElement
  if (value === 'bring') {
    ;(event.target as HTMLSelectElement).value = stage.backdrop
    file.value?.click()
  } else stage.backdrop = value
}

function bringIn(event: Event) {
  const [chosen] = (event.target as HTMLInputElement).files ?? []
  if (!chosen) return
  if (stage.ownBackdrop) URL.revokeObjectURL(stage.ownBackdrop)
  stage.ownBackdrop = URL.createObjectURL(chosen)
  stage.backdrop = 'own'
}
</script>

<template>
  <footer class="foot">
    <select
      v-model="zoom"
      aria-label="Zoom"
      title="+ and − zoom, 0 fits the frame; Ctrl and the wheel zoom where you point"
    >
      <option value="fit">Fit, {{ Math.round(fit * 100) }} %</option>
      <option v-for="value in zooms" :key="value" :value="value">{{ value }} %</option>
    </select>
    <span class="quiet" title="What the card is looked at against; never in a render">
      <select :value="stage.backdrop" aria-label="Backdrop" @change="chooseBackdrop">
        <option v-for="choice in BACKDROPS" :key="choice.id" :value="choice.id">{{ choice.label }}</option>
        <option v-if="stage.ownBackdrop" value="own">Own picture</option>
        <option value="bring">Bring in a picture…</option>
        <optgroup label="Palette">
          <option v-for="hex in bench.card?.palette ?? []" :key="hex" :value="hex">{{ hex }}</option>
        </optgroup>
      </select>
    </span>
    <input ref="file" type="file" accept="image/*" hidden data-test="backdrop-file" @change="bringIn" />
    <button class="guides">
      <span class="quiet">Guides</span> <b v-if="guides">{{ guides }}</b>
      <VMenu activator="parent" :close-on-content-click="false" location="top">
        <div class="sheet">
          <label>
            <input v-model="stage.safeAreas" type="checkbox" /> Safe areas, 93 % and 90 %
            <small class="quiet">SMPTE ST 2046-1, EBU R 95</small>
          </label>
          <label><input v-model="stage.routes" type="checkbox" /> The way of a moving piece</label>
          <label>
            Grid
            <select v-model.number="stage.grid" aria-label="Grid">
              <option v-for="step in GRIDS" :key="step" :value="step">{{ step ? `every ${step} px` : 'none' }}</option>
            </select>
          </label>
          <p class="quiet">Pieces come to rest on guides, on the frame and on each other; hold Ctrl to move freely.</p>
        </div>
      </VMenu>
    </button>
    <span v-if="cost" class="quiet cost" title="Time of the last full picture on one core"
      >{{ Math.round(cost) }} ms</span
    >
    <button
      class="icon-button"
      :aria-label="panels.whole ? 'Panels again' : 'Whole window'"
      :title="panels.whole ? 'The panels again (Escape)' : 'The stage in the whole window (W)'"
      @click="panels.whole = !panels.whole"
    >
      <VIcon :icon="panels.whole ? mdiArrowCollapse : mdiArrowExpand" size="16" />
    </button>
    <button
      class="icon-button"
      aria-label="Second window"
      title="The picture alone in a second window, in step, for a second screen"
      @click="$emit('showApart')"
    >
      <VIcon :icon="mdiMonitorShare" size="16" />
    </button>
    <div class="looks" role="radiogroup" aria-label="Look">
      <button
        v-for="choice in LOOKS"
        :key="choice.id"
        role="radio"
        :aria-checked="stage.look === choice.id"
        :title="choice.help"
        @click="stage.look = choice.id"
      >
        {{ choice.label }}
      </button>
    </div>
  </footer>
</template>

<style scoped>
.foot {
  container-type: inline-size;
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 0 10px;
  overflow: hidden;
  white-space: nowrap;
  background: var(--paper);
  border-top: 1px solid var(--line);
}
select,
.guides {
  height: 26px;
  padding: 0 4px;
  font: inherit;
  font-weight: 650;
  color: var(--ink);
  cursor: pointer;
  background: var(--paper);
  border: 1px solid transparent;
  border-radius: 5px;
}
select {
  max-width: 116px;
  text-overflow: ellipsis;
}
.guides {
  flex: none;
  max-width: 176px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.guides .quiet {
  font-weight: 400;
}
select:hover,
.guides:hover {
  border-color: var(--line);
}
.sheet {
  display: grid;
  gap: 10px;
  max-width: 300px;
  padding: 12px 14px;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: 8px;
  box-shadow: var(--float);
}
.sheet label {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
}
.sheet p {
  margin: 0;
  font-size: 12px;
}
input[type='checkbox'] {
  accent-color: var(--teal);
}
@container (max-width: 600px) {
  .cost {
    display: none;
  }
}
.cost {
  margin-left: auto;
}
.looks {
  display: flex;
  flex: none;
  margin-left: auto;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 6px;
}
.cost + .looks {
  margin-left: 0;
}
.looks button {
  height: 26px;
  padding: 0 9px;
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
