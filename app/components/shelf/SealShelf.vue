<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js'
import { computed, nextTick, ref } from 'vue'
import { fileStem } from '#core/formats/file-stem'
import { download } from '~/composables/download'
import { useNotices } from '~/stores/notices'
import type { ShelfSeal } from '~/stores/seals'
import { useSeals } from '~/stores/seals'
import SealSwatch from '../seals/SealSwatch.vue'
import { attempt } from '~/composables/attempt'

/** All seals as swatches: search, rename, tags, variants, delete, and sets as files. */
const seals = useSeals()
const notices = useNotices()
const words = ref('')
const light = ref(false)
const word = ref('Aa')
const naming = ref('')
const found = computed(() => seals.search(words.value))
/** Which variant of a seal its swatch shows. */
const shown = ref<Record<string, string>>({})

const variantOf = ({ id, document }: ShelfSeal) =>
  document.variants.find(({ name }) => name === shown.value[id]) ?? document.variants[0]!

const remove = (seal: ShelfSeal) =>
  attempt(async () => {
    await seals.remove(seal)
    notices.say(`“${seal.name}” was deleted.`, { label: 'Undo', run: () => attempt(() => seals.restore(seal)) })
  })

async function startNaming(seal: ShelfSeal) {
  naming.value = seal.id
  await nextTick()
  document.querySelector<HTMLInputElement>('.seals .naming input')?.select()
}

/** A name, and tags after it: `Ember; title, warm`. */
function rename(seal: ShelfSeal, name: string, tags: string) {
  naming.value = ''
  const list = [...new Set(tags.split(',').map((tag) => tag.trim().toLowerCase()))].filter(Boolean).slice(0, 20)
  if (!name.trim()) return
  void attempt(() => seals.change(seal, { ...seal.document, name: name.trim(), tags: list }))
}

function submit(seal: ShelfSeal, event: Event) {
  const form = new FormData(event.target as HTMLFormElement)
  rename(seal, String(form.get('name')), String(form.get('tags')))
}

function removeVariant(seal: ShelfSeal) {
  const gone = variantOf(seal).name
  const variants = seal.document.variants.filter(({ name }) => name !== gone)
  void attempt(() => seals.change(seal, { ...seal.document, variants }))
}

const save = (list: readonly ShelfSeal[], name: string) =>
  attempt(async () => download(await seals.asFile(name, list), `${fileStem(name)}.seals.json`))
</script>

<template>
  <section class="seals" aria-label="Seals">
    <div class="head">
      <h2>Seals</h2>
      <input v-model="words" type="search" placeholder="Find a seal by name or tag" aria-label="Find a seal" />
      <label class="quiet">Sample <input v-model="word" class="word" maxlength="12" aria-label="Sample word" /></label>
      <label class="quiet"><input v-model="light" type="checkbox" /> on light</label>
      <button class="plain-button" :disabled="found.length === 0" @click="save(found, words || 'All seals')">
        Save {{ found.length }} as a file
      </button>
    </div>
    <div class="swatches">
      <article v-for="seal in found" :key="seal.id" :aria-label="seal.name">
        <SealSwatch
          :id="`shelf-${seal.id}-${seal.revision}`"
          class="swatch"
          :variant="variantOf(seal)"
          :word="word || 'Aa'"
          :light="light || seal.document.tags.includes('light')"
        />
        <form v-if="naming === seal.id" class="naming" @submit.prevent="submit(seal, $event)">
          <input name="name" :value="seal.name" required maxlength="120" aria-label="Name of the seal" />
          <input name="tags" :value="seal.document.tags.join(', ')" maxlength="400" aria-label="Tags" />
          <button class="plain-button">Keep</button>
        </form>
        <div v-else class="foot">
          <b :title="seal.document.tags.join(', ')">{{ seal.name }}</b>
          <button class="icon-button" :aria-label="`${seal.name}, more`">
            <VIcon :icon="mdiDotsHorizontal" size="17" />
            <VMenu activator="parent" location="bottom end">
              <VList density="compact">
                <VListItem title="Name and tags" @click="startNaming(seal)" />
                <VListItem title="Save as a file" subtitle=".seals.json" @click="save([seal], seal.name)" />
                <VListItem
                  v-if="seal.document.variants.length > 1"
                  title="Take this variant away"
                  @click="removeVariant(seal)"
                />
                <VListItem title="Delete" @click="remove(seal)" />
              </VList>
            </VMenu>
          </button>
        </div>
        <div v-if="seal.document.variants.length > 1" class="variants">
          <button
            v-for="variant in seal.document.variants"
            :key="variant.name"
            :aria-pressed="variantOf(seal).name === variant.name"
            @click="shown[seal.id] = variant.name"
          >
            {{ variant.name }}
          </button>
        </div>
      </article>
    </div>
    <p v-if="seals.loaded && found.length === 0" class="quiet">
      {{
        words
          ? `No seal is called or tagged “${words}”.`
          : 'No seals yet: on the bench, save the core of a piece as one.'
      }}
    </p>
  </section>
</template>

<style scoped>
.seals {
  padding-top: 18px;
  margin-top: 14px;
  border-top: 1px solid var(--line);
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  padding-bottom: 12px;
}
h2 {
  margin: 0;
  font-size: 17px;
  font-weight: 650;
}
.head .plain-button {
  margin-left: auto;
}
input[type='search'],
.word,
.naming input {
  height: 28px;
  padding: 0 9px;
  font: inherit;
  color: var(--ink);
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 6px;
}
input[type='search'] {
  width: 210px;
}
.word {
  width: 84px;
}
.head label {
  display: flex;
  gap: 6px;
  align-items: center;
}
input[type='checkbox'] {
  accent-color: var(--teal);
}
.swatches {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(178px, 1fr));
  gap: 16px 14px;
}
.swatch {
  border-radius: 8px;
}
.foot {
  display: flex;
  align-items: center;
  padding: 2px 0 0 2px;
}
.foot b {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.naming {
  display: grid;
  gap: 4px;
  padding-top: 4px;
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
  color: var(--ink-2);
  cursor: pointer;
  background: none;
  border: 1px solid var(--line);
  border-radius: 10px;
}
.variants button[aria-pressed='true'] {
  color: var(--paper);
  background: var(--teal);
  border-color: var(--teal);
}
</style>
