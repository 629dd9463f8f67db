<script setup lang="ts">
import type { ExampleFile } from '#core/formats/examples'
import { EXAMPLES } from '#core/formats/examples'
import { attempt } from '~/composables/attempt'
import { exampleFile } from '~/composables/example-files'

/** A file to try for each kind that can be brought in here: one press, and it comes. */
const props = defineProps<{ at: ExampleFile['at'] }>()
const emit = defineEmits<{ bring: [files: File[]] }>()
const files = EXAMPLES.filter(({ at }) => at === props.at)

const bring = (example: ExampleFile) => attempt(async () => emit('bring', [await exampleFile(example)]))
</script>

<template>
  <button v-if="files.length === 1" class="plain-button" @click="bring(files[0]!)">Try an example</button>
  <button v-else class="plain-button">
    Examples
    <VMenu activator="parent" location="bottom end">
      <VList density="compact">
        <VListItem
          v-for="file in files"
          :key="file.name"
          :title="file.label"
          :subtitle="file.name"
          @click="bring(file)"
        />
      </VList>
    </VMenu>
  </button>
</template>
