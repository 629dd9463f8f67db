<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { UnseenReason } from '#core/help/unseen-words'
import { UNSEEN } from '#core/help/unseen-words'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { onEngine } from '~/workers/engine-pool'

/** Why the selected piece is not to be seen at the playhead, and what helps; nothing while it is seen. */
const props = defineProps<{ piece: string; engineName: string }>()
const bench = useBench()
const ribbon = useRibbon()
const reason = ref<UnseenReason | null>(null)
const words = computed(() => UNSEEN.find(({ id }) => id === reason.value))

/** The hand rests so long before the engine is asked. */
const REST = 500
let asked = 0
async function ask() {
  const mine = ++asked
  if (ribbon.playing || bench.dragging) return
  const found = await onEngine(
    (face) => face.unseen(props.engineName, props.piece, ribbon.frame),
    () => null,
  )
  if (mine === asked) reason.value = found
}
const later = useDebounceFn(ask, REST)
watch(
  () => props.piece,
  () => (reason.value = null),
)
watch([() => bench.card, () => props.piece, () => ribbon.frame, () => ribbon.playing], () => void later(), {
  immediate: true,
})
</script>

<template>
  <p v-if="words" class="unseen" role="status"><b>Not to be seen here.</b> {{ words.says }} {{ words.remedy }}</p>
</template>

<style scoped>
.unseen {
  padding: 7px 9px;
  margin: 0 0 8px;
  font-size: 12px;
  line-height: 1.4;
  background: var(--paper-2);
  border-left: 3px solid var(--wax);
  border-radius: 4px;
}
</style>
