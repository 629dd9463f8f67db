<script setup lang="ts">
import { watch } from 'vue'
import { useNotices } from '~/stores/notices'

const notices = useNotices()
const route = useRoute()

// What could not be done any more, or would be done to a page that was left, is not offered.
watch(
  () => ({ path: route.path, stands: notices.current?.action?.stands?.() ?? null }),
  (now, before) => {
    if (now.stands === false || (now.stands && now.path !== before.path)) notices.current = null
  },
)

async function act() {
  const { action } = notices.current!
  notices.current = null
  await action?.run()
}
</script>

<template>
  <VSnackbar
    :model-value="notices.current !== null"
    :timeout="notices.current?.lasts ? -1 : notices.current?.bad ? 12000 : 7000"
    :color="notices.current?.bad ? 'primary' : undefined"
    location="bottom"
    @update:model-value="(open: boolean) => !open && (notices.current = null)"
  >
    <span role="status">{{ notices.current?.text }} {{ notices.current?.remedy }}</span>
    <template #actions>
      <button v-if="notices.current?.action" class="plain-button" @click="act">
        {{ notices.current.action.label }}
      </button>
      <button v-else class="plain-button" @click="notices.current = null">Close</button>
    </template>
  </VSnackbar>
</template>
