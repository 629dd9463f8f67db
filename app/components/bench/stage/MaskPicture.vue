<script setup lang="ts">
import { ref, watchPostEffect } from 'vue'

/** What a mask covers, over the stage's picture: hatched, or alone. */
const props = defineProps<{ bitmap: ImageBitmap | null; width: number; height: number; alone: boolean }>()
const canvas = ref<HTMLCanvasElement>()

/** Distance of the lines, and their width, in screen px. */
const [GAP, LINE] = [7, 1.6]

watchPostEffect(() => {
  const { bitmap, width, height, alone } = props
  const target = canvas.value
  if (!target || !bitmap || bitmap.width === 0) return
  const ratio = window.devicePixelRatio
  target.width = Math.round(width * ratio)
  target.height = Math.round(height * ratio)
  const context = target.getContext('2d')!
  if (!alone) hatch(context, target, ratio)
  context.globalCompositeOperation = alone ? 'source-over' : 'destination-in'
  context.drawImage(bitmap, 0, 0, target.width, target.height)
  if (!alone) return
  context.globalCompositeOperation = 'destination-over'
  context.fillStyle = '#000'
  context.fillRect(0, 0, target.width, target.height)
})

/** Dark and light lines beside each other: seen on any picture. */
function hatch(context: CanvasRenderingContext2D, { width, height }: HTMLCanvasElement, ratio: number) {
  context.lineWidth = LINE * ratio
  for (const [shift, colour] of [
    [0, '#fff6ee'],
    [LINE, '#2b2420'],
  ] as const) {
    context.strokeStyle = colour
    context.beginPath()
    for (let x = -height; x < width; x += GAP * ratio) {
      context.moveTo(x + shift * ratio * Math.SQRT2, height)
      context.lineTo(x + height + shift * ratio * Math.SQRT2, 0)
    }
    context.stroke()
  }
}
</script>

<template>
  <canvas ref="canvas" class="mask" :style="{ width: `${width}px`, height: `${height}px` }" data-test="mask-picture" />
</template>

<style scoped>
.mask {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
</style>
