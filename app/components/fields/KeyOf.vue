<script setup lang="ts">
import { computed } from 'vue'
import { parameterAt } from '#core/card/addresses'
import { useParameter } from '~/composables/parameter'
import { useBench } from '~/stores/bench'
import KeyDot from './KeyDot.vue'

/** The key dot of a value whose field stands elsewhere: wording, paths. */
const props = defineProps<{ address: string }>()

const bench = useBench()
const place = computed(() => parameterAt(bench.card!, props.address)!)
const { moving, keyHere, key } = useParameter(() => place.value)
</script>

<template>
  <KeyDot :moving="moving" :here="keyHere" :label="place.label" @toggle="key" />
</template>
