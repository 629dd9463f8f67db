<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { useIntersectionObserver } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import { rateLabel, seconds } from '#core/values/rate'
import type { ShelfCard } from '~/stores/cards'
import { useCards } from '~/stores/cards'
import { useThumbnail } from '~/composables/thumbnail'
import StagePicture from '~/components/bench/stage/StagePicture.vue'

const props = defineProps<{ card: ShelfCard }>()
const emit = defineEmits<{ rename: [name: string]; duplicate: []; remove: []; export: [whole: boolean] }>()

const WIDTH = 290
const tile = useTemplateRef<HTMLElement>('tile')
const near = ref(false)
const { stop } = useIntersectionObserver(
  tile,
  (entries) => {
    if (!entries.some(({ isIntersecting }) => isIntersecting)) return
    near.value = true
    stop()
  },
  { rootMargin: '300px' },
)
const cards = useCards()
const document = shallowRef<Card | null>(null)
// A tile that is seen fetches its card; without it the tile stays empty, and all else works.
watch([near, () => props.card.revision], async () => {
  if (near.value) document.value = await cards.documentOf(props.card).catch(() => null)
})
const { picture, playing, progress } = useThumbnail(`shelf-${props.card.id}`, document, WIDTH, near)
const naming = ref(false)
/** Whether its menu is open; null until it was asked for: hundreds of tiles are made without theirs. */
const menu = ref<boolean | null>(null)
const field = ref<HTMLInputElement>()
const about = computed(() => {
  const { length, rate } = props.card
  return `${Math.round(seconds(length, rate) * 10) / 10} s · ${rateLabel(rate)} fps`
})
/** The picture as large as it goes into 16:9. */
const size = computed(() => {
  const { width, height } = props.card.frame
  const fit = Math.min(WIDTH / width, (WIDTH * 9) / 16 / height)
  return { width: width * fit, height: height * fit }
})

async function startNaming() {
  naming.value = true
  await nextTick()
  field.value?.select()
}

function rename() {
  const name = field.value?.value.trim().slice(0, 200)
  naming.value = false
  if (name && name !== props.card.name) emit('rename', name)
}
</script>

<template>
  <article
    ref="tile"
    class="tile"
    :aria-label="card.name"
    @pointerenter="playing = true"
    @pointerleave="playing = false"
  >
    <NuxtLink
      class="picture"
      :to="`/card/${card.id}`"
      :aria-label="`Open ${card.name}`"
      @focus="playing = true"
      @blur="playing = false"
    >
      <StagePicture :bitmap="picture" v-bind="size" />
      <span class="progress" :style="{ width: `${progress * 100}%` }" />
    </NuxtLink>
    <div class="foot">
      <input
        v-if="naming"
        ref="field"
        :value="card.name"
        aria-label="Name"
        @keydown.enter="rename"
        @keydown.escape="naming = false"
        @blur="rename"
      />
      <b v-else @dblclick="startNaming">{{ card.name }}</b>
      <span class="quiet">{{ about }}</span>
      <button class="icon-button" :aria-label="`${card.name}, more`" aria-haspopup="menu" @click="menu = true">
        <VIcon :icon="mdiDotsHorizontal" size="18" />
        <VMenu v-if="menu !== null" v-model="menu" activator="parent" :open-on-click="false" location="bottom end">
          <VList density="compact">
            <VListItem title="Rename" @click="startNaming" />
            <VListItem title="Duplicate" @click="$emit('duplicate')" />
            <VListItem title="Save as a file" subtitle=".card.json" @click="$emit('export', false)" />
            <VListItem title="Save with fonts and pictures" subtitle=".card.zip" @click="$emit('export', true)" />
            <VListItem title="Delete" @click="$emit('remove')" />
          </VList>
        </VMenu>
      </button>
    </div>
  </article>
</template>

<style scoped>
/* What is far down the shelf is laid out when it comes near. */
.tile {
  contain-intrinsic-size: auto 282px auto 196px;
  content-visibility: auto;
}
.picture {
  position: relative;
  display: grid;
  place-items: center;
  aspect-ratio: 16 / 9;
  overflow: hidden;
  background: radial-gradient(90% 80% at 50% 40%, #4b4650, #2c2831);
  border-radius: 8px;
}
.progress {
  position: absolute;
  bottom: 0;
  left: 0;
  height: 3px;
  background: var(--wax);
}
.foot {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 4px 0 0 2px;
}
b {
  flex: 1;
  overflow: hidden;
  font-weight: 650;
  text-overflow: ellipsis;
  white-space: nowrap;
}
input {
  flex: 1;
  min-width: 0;
  height: 24px;
  padding: 0 6px;
  font: inherit;
  color: inherit;
  background: var(--raised);
  border: 1px solid var(--teal);
  border-radius: 5px;
}
.quiet {
  font-size: 12px;
  white-space: nowrap;
}
</style>
