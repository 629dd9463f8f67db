<script setup lang="ts">
import { ref, watchPostEffect } from 'vue'

const props = defineProps<{
  bitmap: ImageBitmap | null
  width: number
  height: number
  alpha?: boolean
  crisp?: boolean
}>()
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
  <canvas ref="canvas" class="picture" :class="{ crisp }" :style="{ width: `${width}px`, height: `${height}px` }" />
</template>

<style scoped>
.picture {
  display: block;
}
.crisp {
  image-rendering: pixelated;
}
</style>
