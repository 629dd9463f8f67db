<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { onMounted, ref } from 'vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import 'swagger-ui-dist/swagger-ui.css'

// What other programs can ask of the server, from the document that the server makes of its routes.

useTitle('API · Wax Ribbon')
const guide = ref<HTMLElement>()

onMounted(async () => {
  const { SwaggerUIBundle } = await import('swagger-ui-dist')
  SwaggerUIBundle({
    domNode: guide.value!,
    url: '/api/open-api',
    // The part of it that sends documents elsewhere to be judged is off.
    validatorUrl: null,
    defaultModelsExpandDepth: 0,
    docExpansion: 'list',
  })
})
</script>

<template>
  <div class="page">
    <PlaceBar
      ><a class="plain-button raw" href="/api/open-api" download="wax-ribbon.openapi.json">As OpenAPI 3.1</a></PlaceBar
    >
    <main ref="guide" class="guide" />
  </div>
</template>

<style scoped>
.page {
  display: flex;
  flex-direction: column;
  height: 100vh;
  background: var(--paper);
}
.raw {
  margin-left: auto;
  text-decoration: none;
}
.guide {
  flex: 1;
  overflow: auto;
  /* It knows only light pages. */
  background: #fdfaf5;
}
</style>
