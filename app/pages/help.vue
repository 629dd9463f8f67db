<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { findTopics, HELP_CHAPTERS } from '#core/help/topics'
import HelpEntry from '~/components/help/HelpEntry.vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'

// What there is and what it does, from the tables that the bench is made from.

useTitle('Help · Wax Ribbon')
const route = useRoute()
const router = useRouter()
const words = ref(String(route.query.find ?? ''))
const found = computed(() => findTopics(words.value))
const searching = computed(() => words.value.trim() !== '')
const groups = computed(() =>
  searching.value
    ? [{ chapter: '', topics: found.value }]
    : HELP_CHAPTERS.map((chapter) => ({ chapter, topics: found.value.filter((topic) => topic.chapter === chapter) })),
)
const anchorOf = (chapter: string) => `chapter-${chapter.toLowerCase().replace(/[^a-z]+/g, '-')}`

watch(words, (now) => void router.replace({ query: now ? { find: now } : {}, hash: '' }))

function goTo(id: string) {
  document.getElementById(id)?.scrollIntoView({ block: 'start' })
}
onMounted(async () => {
  await nextTick()
  if (route.hash) goTo(route.hash.slice(1))
})
</script>

<template>
  <div class="place-page">
    <PlaceBar>
      <input v-model="words" class="place-search" type="search" placeholder="Find in help" aria-label="Find in help" />
    </PlaceBar>
    <main class="place-room help">
      <nav aria-label="Chapters">
        <button v-for="chapter in HELP_CHAPTERS" :key="chapter" :disabled="searching" @click="goTo(anchorOf(chapter))">
          {{ chapter }}
        </button>
        <NuxtLink to="/api-guide">For other programs</NuxtLink>
      </nav>
      <div class="topics">
        <p v-if="found.length === 0" role="status">Nothing in help says “{{ words }}”. Try one word of it.</p>
        <section v-for="{ chapter, topics } in groups" :key="chapter" :aria-label="chapter || 'Found'">
          <h2 v-if="chapter" :id="anchorOf(chapter)">{{ chapter }}</h2>
          <HelpEntry v-for="topic in topics" :key="topic.id" :topic="topic" :chapter="searching" />
        </section>
      </div>
    </main>
  </div>
</template>

<style scoped>
.help {
  display: grid;
  grid-template-columns: 170px minmax(0, 860px);
  gap: 34px;
}
nav {
  position: sticky;
  top: 0;
  display: flex;
  flex-direction: column;
  gap: 2px;
  align-self: start;
}
nav button,
nav a {
  padding: 5px 8px;
  font: inherit;
  color: inherit;
  text-align: left;
  text-decoration: none;
  cursor: pointer;
  background: none;
  border: 0;
  border-radius: 6px;
}
nav a {
  margin-top: 8px;
  color: var(--ink-2);
}
nav button:hover:enabled,
nav a:hover {
  background: var(--paper-2);
}
h2 {
  margin: 22px 0 8px;
  font-size: 17px;
  scroll-margin-top: 8px;
}
section:first-child h2 {
  margin-top: 0;
}
@media (max-width: 760px) {
  .help {
    grid-template-columns: minmax(0, 1fr);
  }
  nav {
    position: static;
    flex-flow: row wrap;
  }
}
</style>
