<script setup lang="ts">
import { ref } from 'vue'
import { changePiece } from '#core/edit/stack'
import type { Piece, PicturePiece } from '#core/card/schema'
import { withChosenFile } from '~/composables/chosen-file'
import { useBench } from '~/stores/bench'
import { usePictures } from '~/stores/pictures'
import FieldMark from '../fields/FieldMark.vue'

const props = defineProps<{ piece: PicturePiece }>()
const bench = useBench()
const pictures = usePictures()
const file = ref<HTMLInputElement>()

void pictures.load().catch(() => {})

/** A picture comes in at its own size, made smaller where it is larger than the frame. */
function choose(id: string) {
  const chosen = pictures.list.find((picture) => picture.id === id)
  if (!chosen) return
  const { width, height } = bench.card!.frame
  const fit = Math.min(1, width / chosen.width, height / chosen.height)
  const change = {
    picture: id,
    width: Math.max(1, Math.round(chosen.width * fit)),
    height: Math.max(1, Math.round(chosen.height * fit)),
  }
  bench.edit('Picture', (card) => changePiece(card, props.piece.id, change as Partial<Piece>))
}

const bringIn = (event: Event) => withChosenFile(event, async (chosen) => choose(await pictures.bringIn(chosen)))
</script>

<template>
  <div class="picture">
    <FieldMark :address="`${piece.id}/picture`" />
    <select
      class="plain-field"
      :value="piece.picture ?? ''"
      aria-label="Picture"
      @change="choose(($event.target as HTMLSelectElement).value)"
    >
      <option value="" disabled>Choose a picture</option>
      <option v-for="{ id, fileName, width, height } in pictures.list" :key="id" :value="id">
        {{ fileName }} · {{ width }}×{{ height }}
      </option>
    </select>
    <button class="plain-button" @click="file?.click()">Bring in…</button>
    <input
      ref="file"
      type="file"
      accept="image/png,image/jpeg,image/webp"
      hidden
      data-test="picture-file"
      @change="bringIn"
    />
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
  padding-bottom: 8px;
}
select {
  height: 30px;
}
</style>
