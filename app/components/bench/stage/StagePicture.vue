<script setup lang="ts">
import { computed, ref, watchPostEffect } from 'vue'

const props = defineProps<{
  bitmap: ImageBitmap | null
  width: number
  height: number
  alpha?: boolean
  crisp?: boolean
  /** Fills the width that there is, instead of the size given. */
  fluid?: boolean
  /** The part of the width that is shown, as shares; null for all. */
  clip?: [number, number] | null
}>()
const clipPath = computed(() =>
  props.clip ? `inset(0 ${(1 - props.clip[1]) * 100}% 0 ${props.clip[0] * 100}%)` : undefined,
)
const canvas = ref<HTMLCanvasElement>()

watchPostEffect(() => {
  const { bitmap } = props
  const target = canvas.value
  if (!target || !bitmap || bitmap.width === 0) return
  if (target.width !== bitmap.width || target.height !== bitmap.height) {
    target.width = bitmap.width
    target.height = bitmap.height
  }
  const context = target.getContext('2d')!
  context.globalCompositeOperation = 'copy'
  context.drawImage(bitmap, 0, 0)
  if (!props.alpha) return
  // White where the card is, as strong as its alpha; then black behind it.
  context.globalCompositeOperation = 'source-in'
  context.fillStyle = '#fff'
  context.fillRect(0, 0, target.width, target.height)
  context.globalCompositeOperation = 'destination-over'
  context.fillStyle = '#000'
  context.fillRect(0, 0, target.width, target.height)
})
</script>

<template>
  <canvas
    ref="canvas"
    class="picture"
    :class="{ crisp }"
    :style="fluid ? { width: '100%' } : { width: `${width}px`, height: `${height}px`, clipPath }"
  />
</template>

<style scoped>
.picture {
  display: block;
}
.crisp {
  image-rendering: pixelated;
}
</style>
