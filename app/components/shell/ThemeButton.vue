<script setup lang="ts">
import { mdiWeatherNight, mdiWhiteBalanceSunny } from '@mdi/js'
import { useLocalStorage } from '@vueuse/core'
import { watch } from 'vue'
import { useTheme } from 'vuetify'

/** Paper by day, dark by evening; kept for the next visit. */
const theme = useTheme()
const wished = useLocalStorage<'paper' | 'evening'>(
  'wax-theme',
  theme.global.name.value === 'evening' ? 'evening' : 'paper',
)
watch(wished, (name) => theme.change(name), { immediate: true })
</script>

<template>
  <button
    class="icon-button"
    :aria-label="wished === 'evening' ? 'Day colours' : 'Evening colours'"
    @click="wished = wished === 'evening' ? 'paper' : 'evening'"
  >
    <VIcon :icon="wished === 'evening' ? mdiWhiteBalanceSunny : mdiWeatherNight" size="17" />
    <VTooltip activator="parent" :text="wished === 'evening' ? 'Day colours' : 'Evening colours'" />
  </button>
</template>
