<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { setStored } from '#core/edit/values'
import type { StoredTexture } from '#core/values/moving'
import { PATTERNS } from '#core/values/paints'
import { withChosenFile } from '~/composables/chosen-file'
import { useBench } from '~/stores/bench'
import { usePictures } from '~/stores/pictures'
import ParameterRow from './ParameterRow.vue'
import HintText from './HintText.vue'

const props = defineProps<{ address: string; paint: StoredTexture; places: readonly ParameterPlace[] }>()
const bench = useBench()
const pictures = usePictures()
const file = ref<HTMLInputElement>()
void pictures.load().catch(() => {})

const rows = computed(() => {
  const counts: readonly string[] = PATTERNS.find(({ value }) => value === props.paint.pattern)!.counts
  return props.places.filter(
    ({ address }) =>
      address.startsWith(`${props.address}/`) && counts.includes(address.slice(props.address.length + 1)),
  )
})

function put(label: string, change: Partial<StoredTexture>) {
  bench.edit(label, (card) => setStored(card, props.address, { ...props.paint, ...change }))
}

function choose(pattern: StoredTexture['pattern']) {
  if (pattern !== 'picture') return put('Texture', { pattern })
  const [first] = pictures.list
  if (first) put('Texture', { pattern, picture: props.paint.picture ?? first.id })
  else file.value?.click()
}

const bringIn = (event: Event) =>
  withChosenFile(event, async (chosen) =>
    put('Picture', { pattern: 'picture', picture: await pictures.bringIn(chosen) }),
  )
</script>

<template>
  <div class="texture">
    <div class="pattern">
      <select
        class="plain-field"
        :value="paint.pattern"
        aria-label="Pattern"
        @change="choose(($event.target as HTMLSelectElement).value as StoredTexture['pattern'])"
      >
        <option v-for="pattern in PATTERNS" :key="pattern.value" :value="pattern.value">{{ pattern.label }}</option>
      </select>
      <button class="plain-button" @click="file?.click()">
        Bring in…
        <HintText text="A picture of your own: PNG, JPEG or WebP" />
      </button>
      <input
        ref="file"
        type="file"
        accept="image/png,image/jpeg,image/webp"
        hidden
        data-test="picture-file"
        @change="bringIn"
      />
    </div>
    <div v-if="paint.pattern === 'picture'" class="pictures">
      <button
        v-for="picture in pictures.list"
        :key="picture.id"
        :aria-label="picture.fileName"
        :aria-pressed="picture.id === paint.picture"
        :style="{ backgroundImage: `url(/api/pictures/${picture.id}/file)` }"
        @click="put('Picture', { picture: picture.id })"
      />
    </div>
    <ParameterRow v-for="place in rows" :key="place.address" :place="place" />
    <select
      class="plain-field hang"
      :value="paint.hang"
      aria-label="The texture hangs on"
      @change="put('Texture hangs on', { hang: ($event.target as HTMLSelectElement).value as 'piece' })"
    >
      <option value="piece">Hangs on the piece</option>
      <option value="card">Hangs on the card</option>
    </select>
  </div>
</template>

<style scoped>
.pattern {
  display: flex;
  gap: 6px;
  padding: 4px 0;
}
select {
  flex: 1;
  height: 28px;
}
.hang {
  width: 100%;
  margin: 4px 0;
}
.plain-button {
  height: 28px;
  padding: 0 10px;
}
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 4px 0;
}
.pictures button {
  width: 44px;
  height: 34px;
  cursor: pointer;
  background: var(--raised) center / cover;
  border: 1px solid var(--line);
  border-radius: 5px;
}
.pictures button[aria-pressed='true'] {
  outline: 2px solid var(--teal);
}
</style>
