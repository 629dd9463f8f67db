<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { useElementVisibility } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import { rateLabel, seconds } from '#core/values/rate'
import type { ShelfCard } from '~/stores/cards'
import { useCards } from '~/stores/cards'
import { keepPicture, keptPicture } from '~/composables/kept-pictures'
import { useScrolling } from '~/composables/scrolling'
import { useThumbnail } from '~/composables/thumbnail'
import StagePicture from '~/components/bench/stage/StagePicture.vue'

const props = defineProps<{ card: ShelfCard }>()
const emit = defineEmits<{ rename: [name: string]; duplicate: []; remove: []; export: [whole: boolean] }>()

/** As wide as most tiles are, and a little more: a tile takes its share of the window. */
const WIDTH = 320
const tile = useTemplateRef<HTMLElement>('tile')
const near = useElementVisibility(tile, { rootMargin: '300px' })
const scrolling = useScrolling()
const cards = useCards()
const document = shallowRef<Card | null>(null)
/** The picture as large as it goes into the 16:9 of its tile, as shares of it. */
const share = computed(() => {
  const { width, height } = props.card.frame
  const fit = Math.min(16 / width, 9 / height)
  return { width: (width * fit) / 16, height: (height * fit) / 9 }
})
/** What the picture shows. */
const stamp = computed(() => [props.card.revision, props.card.updatedAt, devicePixelRatio].join(' '))
/** The stamp of the document that is there: a newer one may be on its way. */
let drawnFrom = ''
/** From an earlier visit. */
const former = shallowRef<ImageBitmap | null>(null)
const { picture, playing, progress } = useThumbnail(
  `shelf-${props.card.id}`,
  document,
  () => WIDTH * share.value.width,
  near,
  undefined,
  // Kept or not, it is there.
  (made) => void keepPicture(props.card.id, drawnFrom, made).catch(() => {}),
)
const looked = computed(() => (near.value && !scrolling.value ? stamp.value : null))
watch(looked, async (now) => {
  if (now === null || document.value) return
  const found = await keptPicture(props.card.id, now).catch(() => null)
  if (found) former.value = found
  else await fetchCard()
})
watch(stamp, () => document.value && fetchCard())
watch(playing, (now) => now && !document.value && fetchCard())

/** Without its card the tile stays empty, and all else works. */
async function fetchCard() {
  const now = stamp.value
  const found = await cards.documentOf(props.card).catch(() => null)
  drawnFrom = now
  document.value = found
}
const naming = ref(false)
/** Whether its menu is open; null until it was asked for: hundreds of tiles are made without theirs. */
const menu = ref<boolean | null>(null)
const field = ref<HTMLInputElement>()
const about = computed(() => {
  const { length, rate } = props.card
  return `${Math.round(seconds(length, rate) * 10) / 10} s · ${rateLabel(rate)} fps`
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
      <StagePicture
        :bitmap="picture ?? former"
        :width="WIDTH"
        :height="(WIDTH * 9) / 16"
        :style="{ width: `${share.width * 100}%`, height: `${share.height * 100}%` }"
      />
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
/* Plain and square, as the frame is: hundreds of rounded clips and gradients cost a scrolling shelf half of its pictures. */
.picture {
  position: relative;
  display: grid;
  place-items: center;
  aspect-ratio: 16 / 9;
  background: #38343d;
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
