<script setup lang="ts">
import { computed, ref } from 'vue'
import type { PanelId } from '~/stores/panels'
import { PANELS, usePanels } from '~/stores/panels'

/**
 * The edge between a panel and the stage (WAI-ARIA, window splitter): dragged, moved by arrows, folded by Enter or two presses,
 * as it shipped by Home.
 */
const props = defineProps<{ panel: PanelId; size: number }>()
const panels = usePanels()

const STEP = 16
const upright = computed(() => props.panel !== 'ribbon')
/** Which way the panel grows. */
const sign = computed(() => (props.panel === 'stack' ? 1 : -1))
const folded = computed(() => panels.isFolded(props.panel))
const pulled = ref(false)

function pull(event: PointerEvent) {
  if (event.button !== 0) return
  const edge = event.currentTarget as HTMLElement
  edge.setPointerCapture(event.pointerId)
  const from = upright.value ? event.clientX : event.clientY
  const before = folded.value ? PANELS[props.panel].least : props.size
  pulled.value = true
  const move = (moved: PointerEvent) => {
    const by = (upright.value ? moved.clientX : moved.clientY) - from
    if (Math.abs(by) > 2) panels.resize(props.panel, before + by * sign.value)
  }
  const end = () => {
    pulled.value = false
    edge.removeEventListener('pointermove', move)
    edge.removeEventListener('pointerup', end)
    edge.removeEventListener('pointercancel', end)
  }
  edge.addEventListener('pointermove', move)
  edge.addEventListener('pointerup', end)
  edge.addEventListener('pointercancel', end)
}

function press(event: KeyboardEvent) {
  const [less, more] = upright.value ? ['ArrowLeft', 'ArrowRight'] : ['ArrowUp', 'ArrowDown']
  if (event.key === 'Enter') panels.fold(props.panel)
  else if (event.key === 'Home') panels.reset(props.panel)
  else if (event.key === less) panels.resize(props.panel, props.size - STEP * sign.value)
  else if (event.key === more) panels.resize(props.panel, props.size + STEP * sign.value)
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div
    :class="['edge', upright ? 'upright' : 'level', panel, { folded, pulled }]"
    role="separator"
    tabindex="0"
    :aria-orientation="upright ? 'vertical' : 'horizontal'"
    :aria-label="`${PANELS[panel].label}: ${upright ? 'width' : 'height'}`"
    :aria-valuenow="folded ? 0 : size"
    aria-valuemin="0"
    :aria-valuemax="PANELS[panel].most"
    :title="`Drag for more room; press twice to ${folded ? 'unfold' : 'fold'} it`"
    @pointerdown.prevent="pull"
    @dblclick="panels.fold(panel)"
    @keydown="press"
  />
</template>

<style scoped>
.edge {
  position: absolute;
  z-index: 3;
  touch-action: none;
}
.upright {
  top: 0;
  bottom: 0;
  width: 7px;
  cursor: col-resize;
}
.level {
  top: -3px;
  right: 0;
  left: 0;
  height: 7px;
  cursor: row-resize;
}
.stack {
  left: calc(100% - 4px);
}
.settings {
  right: calc(100% - 4px);
}
.edge:hover,
.edge.pulled,
.edge:focus-visible {
  background: color-mix(in srgb, var(--teal) 55%, transparent);
  outline: none;
}
.folded.upright {
  width: 9px;
  background: var(--paper-3);
}
.folded.level {
  height: 9px;
  background: var(--paper-3);
}
</style>
