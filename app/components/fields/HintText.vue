<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, onBeforeUnmount, ref } from 'vue'
import { hideHint, showHint } from '~/composables/hint'

/** A hint for the element that it stands in: shown while a pointer rests on it, or it has the focus. */
const props = defineProps<{ text: string }>()
const mark = ref<HTMLElement>()
const owner = computed(() => mark.value?.parentElement ?? null)

useEventListener(owner, 'pointerenter', () => showHint(owner.value!, props.text))
useEventListener(owner, 'focusin', (event: FocusEvent) => {
  if ((event.target as HTMLElement).matches(':focus-visible')) showHint(owner.value!, props.text, 800)
})
useEventListener(owner, ['pointerleave', 'pointerdown', 'focusout', 'keydown'], hideHint)
onBeforeUnmount(hideHint)
</script>

<template><i ref="mark" hidden /></template>
