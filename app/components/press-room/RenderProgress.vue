<script setup lang="ts">
import { computed } from 'vue'
import { rateWords } from '~/composables/render-words'
import type { RenderRow } from '~/stores/renders'
import { useRenders } from '~/stores/renders'

// How far a render is, how fast, for how long yet, and who is at it.

const props = defineProps<{ row: RenderRow }>()
const renders = useRenders()

const share = computed(() => props.row.framesDone / props.row.framesTotal)
const words = computed(() => {
  const { status, framesDone, framesTotal, workers, runs } = props.row
  const writes = runs !== null && runs.done === runs.total
  // One that goes on may have all its frames already.
  if (status === 'queued' && !writes) return ['Waits for a worker']
  const count = `${framesDone} of ${framesTotal} frames`
  const done =
    status === 'checking'
      ? `Reading the file again: ${count} compared`
      : writes
        ? `Writing the file: ${count} written`
        : `${count} rendered`
  const pace = renders.paces.get(props.row.id)
  return [done, ...rateWords(pace), ...(workers.length > 0 ? [`on ${workers.join(', ')}`] : [])]
})
</script>

<template>
  <div
    class="progress"
    role="progressbar"
    :aria-label="`${row.name}, ${words[0]}`"
    :aria-valuenow="Math.round(share * 100)"
    aria-valuemin="0"
    aria-valuemax="100"
  >
    <span :class="row.status" :style="{ width: `${share * 100}%` }" />
  </div>
  <p class="quiet">{{ words.join(' · ') }}</p>
</template>

<style scoped>
.progress {
  height: 8px;
  overflow: hidden;
  background: var(--paper-3);
  border-radius: 4px;
}
.progress span {
  display: block;
  height: 100%;
  background: var(--teal);
  transition: width 0.4s linear;
}
.progress .checking {
  background: var(--wax);
}
p {
  margin: 0;
}
</style>
