<script setup lang="ts">
import { useElementSize, useEventListener, useLocalStorage, useTitle } from '@vueuse/core'
import { computed, onMounted, onScopeDispose, ref, shallowRef, useTemplateRef } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import StagePicture from '~/components/bench/stage/StagePicture.vue'
import { api, faultOf } from '~/composables/api'
import { BACKDROPS } from '~/composables/backdrops'
import { usePreview } from '~/composables/preview'
import type { ShowMessage } from '~/composables/showing'
import { channelOf } from '~/composables/showing'
import { useRibbon } from '~/stores/ribbon'

// The card alone, over a backdrop, in step with its bench: for a second screen.

const id = String(useRoute().params.id)
const ribbon = useRibbon()
const card = shallowRef<Card | null>(null)
const missing = ref<Fault | null>(null)
const room = useTemplateRef<HTMLElement>('room')
const { width, height } = useElementSize(room)
const backdrop = useLocalStorage('wax-show-backdrop', 'black')
useTitle(computed(() => `${card.value?.name ?? 'Card'} · shown`))

const fit = computed(() =>
  card.value ? Math.min(width.value / card.value.frame.width, height.value / card.value.frame.height) : 0,
)
/** No more pixels than the card has. */
const scale = computed(() => Math.min(1, fit.value * window.devicePixelRatio))
const shown = computed(() => (scale.value > 0 ? card.value : null))
const { picture, fault } = usePreview({ name: `show-${id}`, card: shown, scale, dragging: ref(false) })
const size = computed(() => ({
  width: (card.value?.frame.width ?? 0) * fit.value,
  height: (card.value?.frame.height ?? 0) * fit.value,
}))
const ground = computed(() => BACKDROPS.find((one) => one.id === backdrop.value) ?? BACKDROPS[1]!)

ribbon.reset()
const channel = channelOf(id)
channel.onmessage = ({ data }: MessageEvent<ShowMessage>) => {
  if (data === 'begun') channel.postMessage('here')
  else if ('card' in data) card.value = data.card
  else if (card.value) ribbon.go(data.frame, card.value.length)
}
onMounted(async () => {
  channel.postMessage('here')
  // Without its bench it shows the card as it was saved.
  try {
    const { document } = await api<{ document: Card }>(`/cards/${id}`)
    card.value ??= document
  } catch (error) {
    missing.value = faultOf(error)
  }
})
useEventListener(window, 'pagehide', () => channel.postMessage('gone'))
onScopeDispose(() => channel.close())

function wholeScreen() {
  if (document.fullscreenElement) void document.exitFullscreen()
  else void document.documentElement.requestFullscreen().catch(() => {})
}
</script>

<template>
  <main ref="room" class="room" aria-label="The card alone" @dblclick="wholeScreen">
    <div
      class="screen"
      :class="ground.moving"
      :style="{ width: `${size.width}px`, height: `${size.height}px`, background: ground.css }"
    >
      <StagePicture :bitmap="picture" v-bind="size" />
    </div>
    <label class="choice">
      Backdrop
      <select v-model="backdrop" class="plain-field">
        <option v-for="one in BACKDROPS" :key="one.id" :value="one.id">{{ one.label }}</option>
      </select>
      <button class="plain-button" @click="wholeScreen">Whole screen</button>
    </label>
    <p v-if="missing ?? fault" class="fault" role="alert">
      {{ (missing ?? fault)!.message }} {{ (missing ?? fault)!.remedy }}
    </p>
  </main>
</template>

<style scoped>
.room {
  position: relative;
  display: grid;
  place-items: center;
  height: 100vh;
  overflow: hidden;
  background: #000;
}
.choice {
  position: absolute;
  right: 12px;
  bottom: 12px;
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 6px 10px;
  background: var(--paper);
  border-radius: 8px;
  box-shadow: var(--float);
  opacity: 0;
}
.room:hover .choice,
.choice:focus-within {
  opacity: 1;
}
.fault {
  position: absolute;
  bottom: 12px;
  left: 12px;
  padding: 6px 10px;
  margin: 0;
  color: var(--wax);
  background: var(--paper);
  border-radius: 8px;
}
</style>
