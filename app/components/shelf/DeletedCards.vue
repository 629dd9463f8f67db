<script setup lang="ts">
import { ref, watch } from 'vue'
import { faultOf } from '~/composables/api'
import type { DeletedCard } from '~/stores/cards'
import { useCards } from '~/stores/cards'
import { useNotices } from '~/stores/notices'

/** Cards that were deleted, to be brought back. */
const cards = useCards()
const notices = useNotices()
const open = ref(false)
const list = ref<DeletedCard[]>([])

async function load() {
  try {
    list.value = await cards.loadDeleted()
  } catch (error) {
    notices.fault(faultOf(error))
  }
}

async function restore(card: DeletedCard) {
  try {
    await cards.restore(card)
    notices.say(`“${card.name}” is back on the shelf.`)
    await load()
  } catch (error) {
    notices.fault(faultOf(error))
  }
}

watch([open, () => cards.list.length], () => open.value && void load())
const when = (date: string) => new Date(date).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <section class="deleted">
    <button class="plain" :aria-expanded="open" @click="open = !open">Deleted cards</button>
    <ul v-if="open">
      <li v-for="card in list" :key="card.id">
        <b>{{ card.name }}</b> <span class="quiet">{{ when(card.deletedAt) }}</span>
        <button class="plain-button" :aria-label="`Bring ${card.name} back`" @click="restore(card)">Bring back</button>
      </li>
      <li v-if="list.length === 0" class="quiet">Nothing was deleted.</li>
    </ul>
  </section>
</template>

<style scoped>
.deleted {
  padding: 14px 0 6px;
}
.plain {
  padding: 2px 0;
  font: inherit;
  color: var(--ink-2);
  cursor: pointer;
  background: none;
  border: 0;
}
.plain:hover {
  text-decoration: underline;
}
ul {
  display: grid;
  gap: 4px;
  padding: 6px 0 0;
  margin: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
}
.plain-button {
  height: 24px;
}
</style>
