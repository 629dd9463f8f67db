<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { changePiece } from '#core/edit/stack'
import { allPieces } from '#core/card/tree'
import type { PieceOutlook } from '#core/frame/outlook'
import { sealedCore, sealedFinishes } from '#core/seals/press'
import { updateSeal } from '#core/rosters/field-edit'
import type { SealVariant } from '#core/seals/schema'
import { faultOf } from '~/composables/api'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { useSeals } from '~/stores/seals'
import SealSwatch from './SealSwatch.vue'

/** Saves the core of a piece as a new seal, as a variant of one, or in place of one. */
const props = defineProps<{ outlook: PieceOutlook[] }>()
const bench = useBench()
const seals = useSeals()
const notices = useNotices()

const open = computed({
  get: () => seals.saving !== null,
  set: (on) => {
    if (!on) seals.saving = null
  },
})
const piece = computed(() => allPieces(bench.card?.pieces ?? []).find(({ id }) => id === seals.saving) ?? null)
const name = ref('')
const tags = ref('')
/** Id of the seal that it goes into; empty for a new one. */
const into = ref('')
const variantName = ref('standard')
/** Whether its finishes belong to the seal; without them it leaves a piece those that it has. */
const withFinishes = ref(true)
const target = computed(() => seals.list.find(({ id }) => id === into.value) ?? null)
const variant = computed<SealVariant | null>(() => {
  if (!piece.value) return null
  const reference = props.outlook.find(({ id }) => id === piece.value!.id)?.reference ?? 0
  const { coats, finishes } = piece.value
  return {
    name: variantName.value.trim() || 'standard',
    coats: sealedCore(coats, reference),
    finishes: withFinishes.value ? sealedFinishes(finishes, reference) : null,
  }
})
const replaces = computed(() => target.value?.document.variants.some((v) => v.name === variant.value?.name) ?? false)

watch(open, (now) => {
  if (!now) return
  if (!seals.loaded) void seals.load().catch(() => {})
  name.value = piece.value?.name ?? ''
  tags.value = ''
  withFinishes.value = (piece.value?.finishes.length ?? 0) > 0
  into.value = piece.value?.seal && seals.list.some(({ id }) => id === piece.value!.seal!.id) ? piece.value.seal.id : ''
  variantName.value = piece.value?.seal?.variant ?? 'standard'
})

async function save() {
  const made = variant.value
  const { value: old } = target
  if (!made || !piece.value) return
  try {
    const saved = old
      ? await seals.change(old, {
          ...old.document,
          variants: replaces.value
            ? old.document.variants.map((v) => (v.name === made.name ? made : v))
            : [...old.document.variants, made],
        })
      : await seals.add({ name: name.value.trim(), tags: tagsOf(tags.value), variants: [made] })
    const { id } = piece.value
    bench.edit(`Save the seal ${saved.name}`, (card) =>
      changePiece(card, id, { seal: { id: saved.id, variant: made.name } }),
    )
    seals.saving = null
    const others = allPieces(bench.card!.pieces).filter((p) => p.seal?.id === saved.id && p.id !== id)
    notices.say(
      `“${saved.name}” is among the seals.`,
      others.length > 0
        ? {
            label: `Update ${others.length} more`,
            run: () =>
              bench.edit(`Update ${saved.name}`, (card) => updateSeal(card, { ...saved.document, id: saved.id })),
          }
        : undefined,
    )
  } catch (error) {
    notices.fault(faultOf(error))
  }
}

const tagsOf = (text: string) =>
  [...new Set(text.split(',').map((tag) => tag.trim().toLowerCase().slice(0, 40)))].filter(Boolean).slice(0, 20)
</script>

<template>
  <VDialog v-model="open" max-width="460">
    <form v-if="piece && variant" class="sheet" aria-label="Save as a seal" @submit.prevent="save">
      <h2>Save the core of {{ piece.name }} as a seal</h2>
      <div class="pair">
        <SealSwatch :id="`new-${piece.id}-dark`" :variant="variant" />
        <SealSwatch :id="`new-${piece.id}-light`" :variant="variant" light />
      </div>
      <label>
        Into
        <select v-model="into" class="plain-field" aria-label="Into">
          <option value="">A new seal</option>
          <option v-for="seal in seals.list" :key="seal.id" :value="seal.id">{{ seal.name }}</option>
        </select>
      </label>
      <template v-if="!target">
        <label
          >Name<input v-model="name" class="plain-field" required maxlength="120" aria-label="Name of the seal"
        /></label>
        <label
          >Tags, with commas<input v-model="tags" class="plain-field" maxlength="400" placeholder="dark, title, warm"
        /></label>
      </template>
      <label>
        Variant
        <input
          v-model="variantName"
          class="plain-field"
          required
          maxlength="120"
          aria-label="Variant"
          placeholder="standard, on light…"
        />
      </label>
      <label v-if="piece.finishes.length > 0" class="check">
        <input v-model="withFinishes" type="checkbox" /> With its
        {{ piece.finishes.length === 1 ? 'finish' : 'finishes' }}
      </label>
      <p class="quiet">
        {{
          replaces
            ? `Takes the place of “${variant.name}” in ${target!.name}.`
            : 'Lengths are kept in % of the piece, so that it fits wherever it is pressed.'
        }}
      </p>
      <div class="actions">
        <button type="button" class="plain-button" @click="open = false">Leave</button>
        <button class="wax-button">Save seal</button>
      </div>
    </form>
  </VDialog>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 10px;
  padding: 16px 18px;
  color: var(--ink);
  background: var(--paper);
  border-radius: 10px;
}
h2 {
  margin: 0;
  font-size: 15px;
  font-weight: 650;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  overflow: hidden;
  border-radius: 8px;
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
input,
select {
  height: 30px;
  padding: 0 9px;
}
label.check {
  display: flex;
  gap: 8px;
  align-items: center;
}
.check input {
  height: auto;
}
p {
  margin: 0;
  font-size: 12px;
}
.actions {
  display: flex;
  gap: 8px;
  justify-content: end;
}
</style>
