<script setup lang="ts">
import { computed, watch } from 'vue'
import type { Fault } from '#core/errors'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import RenderSheet from '~/components/renders/RenderSheet.vue'
import { useBench } from '~/stores/bench'
import { useRenders } from '~/stores/renders'
import { useRibbon } from '~/stores/ribbon'

const open = defineModel<boolean>({ required: true })
const bench = useBench()
const renders = useRenders()
const ribbon = useRibbon()
const takes = computed(() => renders.takes(bench.id))

watch(open, (now) => {
  if (now) void renders.load().catch(() => {})
})

async function begin(wish: RenderWish): Promise<Fault | null> {
  // What is rendered is what the bench shows: the last change must have arrived.
  if (!(await bench.save())) return bench.saveFault
  await renders.start(bench.id, bench.revision, wish)
  await navigateTo('/renders')
  return null
}
</script>

<template>
  <RenderSheet v-model="open" :card="bench.card!" :frame="ribbon.frame" :takes="takes" :begin="begin" />
</template>
