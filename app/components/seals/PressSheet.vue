<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { pressedWith, pressSeal } from '#core/seals/press'
import { updateSeal } from '#core/rosters/field-edit'
import { faultOf } from '~/composables/api'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import type { ShelfSeal } from '~/stores/seals'
import { useSeals } from '~/stores/seals'
import SealSwatch from './SealSwatch.vue'

/** Chooses a seal for the pieces that wait for one. */
const bench = useBench()
const seals = useSeals()
const notices = useNotices()
const words = ref('')
const open = computed({
  get: () => seals.pressing !== null,
  set: (on) => {
    if (!on) seals.pressing = null
  },
})
const found = computed(() => seals.search(words.value))
const tags = computed(() => [...new Set(seals.list.flatMap(({ document }) => document.tags))].sort())

watch(open, async (now) => {
  if (!now || seals.loaded) return
  await seals.load().catch((error: unknown) => notices.fault(faultOf(error)))
})

function press(seal: ShelfSeal, variant: string) {
  const ids = seals.pressing ?? []
  bench.edit(`Press ${seal.name}`, (card) => pressSeal(card, ids, { ...seal.document, id: seal.id }, variant))
  seals.pressing = null
}

/** Pieces of this card that carry a seal, for pressing its newer form again. */
const worn = (seal: ShelfSeal) => (bench.card ? pressedWith(bench.card, seal.id).length : 0)

function renew(seal: ShelfSeal) {
  const count = worn(seal)
  bench.edit(`Update ${seal.name}`, (card) => updateSeal(card, { ...seal.document, id: seal.id }))
  notices.say(`“${seal.name}” was pressed again on ${count} ${count === 1 ? 'piece' : 'pieces'}.`)
}
</script>

<template>
  <VDialog v-model="open" max-width="920" scrollable>
    <section class="sheet" role="dialog" aria-label="Press a seal">
      <header>
        <h2>Press a seal</h2>
        <input
          v-model="words"
          class="plain-field"
          type="search"
          placeholder="Find by name or tag"
          aria-label="Find a seal"
        />
        <button
          v-for="tag in tags"
          :key="tag"
          class="tag"
          :aria-pressed="words === tag"
          @click="words = words === tag ? '' : tag"
        >
          {{ tag }}
        </button>
      </header>
      <div class="grid">
        <article v-for="seal in found" :key="seal.id">
          <button
            v-for="(variant, i) in seal.document.variants"
            v-show="i === 0"
            :key="variant.name"
            class="main"
            :aria-label="`Press ${seal.name}`"
            @click="press(seal, variant.name)"
          >
            <SealSwatch
              :id="`${seal.id}-${seal.revision}`"
              :variant="variant"
              :light="seal.document.tags.includes('light')"
            />
          </button>
          <div class="foot">
            <b>{{ seal.name }}</b>
            <span class="variants">
              <button
                v-for="variant in seal.document.variants.slice(1)"
                :key="variant.name"
                :aria-label="`Press ${seal.name}, ${variant.name}`"
                @click="press(seal, variant.name)"
              >
                {{ variant.name }}
              </button>
              <button v-if="worn(seal) > 0" :title="`${worn(seal)} on this card`" @click="renew(seal)">
                Update {{ worn(seal) }}
              </button>
            </span>
          </div>
        </article>
      </div>
      <p v-if="seals.loaded && found.length === 0" class="quiet none">
        {{
          seals.list.length
            ? `No seal is called or tagged “${words}”.`
            : 'No seals yet: save the core of a piece as one.'
        }}
      </p>
    </section>
  </VDialog>
</template>

<style scoped>
.sheet {
  outline: 0;
  display: flex;
  flex-direction: column;
  max-height: 84vh;
  color: var(--ink);
  background: var(--paper);
  border-radius: 10px;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  padding: 14px 18px 10px;
  border-bottom: 1px solid var(--line);
}
h2 {
  margin: 0 10px 0 0;
  font-size: 15px;
  font-weight: 650;
}
input {
  width: 190px;
  height: 28px;
  padding: 0 9px;
}
.tag {
  height: 24px;
  padding: 0 9px;
  font: inherit;
  font-size: 12px;
  color: var(--ink-2);
  cursor: pointer;
  background: none;
  border: 1px solid var(--line);
  border-radius: 12px;
}
.tag[aria-pressed='true'] {
  color: var(--paper);
  background: var(--teal);
  border-color: var(--teal);
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(196px, 1fr));
  gap: 14px;
  padding: 16px 18px 20px;
  overflow: auto;
}
.main {
  display: block;
  width: 100%;
  padding: 0;
  overflow: hidden;
  cursor: pointer;
  background: none;
  border: 2px solid transparent;
  border-radius: 8px;
}
.main:hover,
.main:focus-visible {
  border-color: var(--teal);
}
.foot {
  display: flex;
  flex-wrap: wrap;
  gap: 3px 8px;
  align-items: baseline;
  padding: 4px 4px 0;
}
.variants {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.variants button {
  padding: 1px 7px;
  font: inherit;
  font-size: 12px;
  color: var(--teal);
  cursor: pointer;
  background: none;
  border: 1px solid var(--line);
  border-radius: 10px;
}
.variants button:hover {
  border-color: var(--teal);
}
.none {
  padding: 0 18px 18px;
  margin: 0;
}
</style>
