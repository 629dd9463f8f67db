<script setup lang="ts">
import { mdiClose, mdiPlus } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { listPieceParameters } from '#core/card/addresses'
import type { ParameterPlace } from '#core/card/addresses'
import type { TypePiece } from '#core/card/schema'
import { addAxis, addRun, changeRun, kernPair, removeAxis, setFallbacks } from '#core/edit/type-parts'
import { AXIS_NAMES } from '#core/type/axes'
import { featureName, hasFeature, toggleFeature } from '#core/type/features'
import type { FontAxis } from '#core/type/font'
import { counts } from '#core/values/parameter-kinds'
import { valuesOf } from '#core/card/parts'
import { writeValue } from '#core/edit/values'
import { TYPE_PARAMETERS } from '#core/pieces/type'
import { valueAt } from '#core/values/evaluated'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { useFonts } from '~/stores/fonts'
import { useStage } from '~/stores/stage'
import { onEngine } from '~/workers/engine-pool'
import NumberRow from '../fields/NumberRow.vue'
import ParameterRow from '../fields/ParameterRow.vue'

/** What type has beside its values: axes of a variable font, runs, kerned pairs, fonts for missing glyphs. */
const props = defineProps<{ piece: TypePiece; missing: readonly string[]; overflows: boolean; engineName: string }>()
const bench = useBench()
const fonts = useFonts()
const ribbon = useRibbon()
const { base } = useMoment(() => props.piece.id)
const stage = useStage()

const font = ref<{ axes: readonly FontAxis[]; features: readonly string[] }>({ axes: [], features: [] })
watch(
  () => props.piece.font,
  async (id) => {
    const found = await onEngine(
      (face) => face.fontOf(props.engineName, id),
      () => null,
    )
    if (id === props.piece.font) font.value = found ?? { axes: [], features: [] }
  },
  { immediate: true },
)

const places = computed(() => listPieceParameters(props.piece))
const placeOf = (part: string, name: string) =>
  places.value.find(({ address }) => address === `${props.piece.id}/${part}/${name}`)

/** The axes that are set, each with the range that the font has. */
const axes = computed(() =>
  props.piece.axes.flatMap((axis) => {
    const place = placeOf(axis.id, 'value')
    const own = font.value.axes.find(({ tag }) => tag === axis.tag)
    if (!place || place.parameter.type !== 'number') return []
    const label = AXIS_NAMES[axis.tag] ?? axis.tag
    const span = own ? { slider: [own.min, own.max] as const, step: own.max - own.min <= 2 ? 0.01 : 1 } : {}
    const parameter = { ...place.parameter, label, ...span }
    return [{ axis, known: own !== undefined, place: { ...place, parameter } satisfies ParameterPlace }]
  }),
)
const free = computed(() => font.value.axes.filter(({ tag }) => !props.piece.axes.some((axis) => axis.tag === tag)))
const marked = computed(() =>
  stage.marked?.piece === props.piece.id && stage.marked.to > stage.marked.from ? stage.marked : null,
)

/** Lists of fonts are made only where they are looked at. */
const open = ref(props.piece.runs.length + props.piece.pairs.length + props.piece.fallbacks.length > 0)
watch(marked, (now) => (open.value ||= now !== null))

const runRows = (id: string) => {
  const run = props.piece.runs.find((one) => one.id === id)!
  return places.value.filter(
    ({ address, parameter }) => address.startsWith(`${props.piece.id}/${id}/`) && counts(parameter, valuesOf(run)),
  )
}

function addMarked() {
  const { from, to } = marked.value ?? { from: 0, to: 2000 }
  bench.edit('Run', (card) => addRun(card, props.piece.id, from, to).card)
}
const features = computed(() => {
  const words = valueAt(TYPE_PARAMETERS.features, props.piece.features, base.value) as string
  return font.value.features.flatMap((tag) => {
    const name = featureName(tag)
    return name ? [{ tag, name, on: hasFeature(words, tag), next: toggleFeature(words, tag) }] : []
  })
})

const setFeatures = (name: string, next: string) =>
  bench.edit(name, (card) => writeValue(card, `${props.piece.id}/features`, ribbon.frame, next))

const nameOf = (id: string) => fonts.choices.find((choice) => choice.id === id)?.title ?? id
</script>

<template>
  <p v-if="overflows" class="fault" role="status">
    {{
      piece.along
        ? 'The words are longer than their path: make them smaller, or set them closer.'
        : 'The words have no room: make the box wider, or the limit lower.'
    }}
  </p>
  <p v-if="missing.length > 0" class="fault" role="status">
    No font here has
    {{
      missing
        .slice(0, 8)
        .map((one) => `“${one}”`)
        .join(', ')
    }}{{ missing.length > 8 ? ' and more' : '' }}. Choose a font for missing letters below.
  </p>
  <section v-if="axes.length + free.length > 0" aria-label="Axes of the font">
    <header>
      <h3>Axes</h3>
      <button
        v-for="axis in free"
        :key="axis.tag"
        class="plain-button"
        @click="bench.edit('Axis', (card) => addAxis(card, piece.id, axis))"
      >
        <VIcon :icon="mdiPlus" size="12" />{{ AXIS_NAMES[axis.tag] ?? axis.tag }}
      </button>
    </header>
    <div v-for="{ axis, known, place } in axes" :key="axis.id" class="axis">
      <NumberRow :place="place" />
      <button
        class="icon-button"
        :aria-label="`Take ${place.parameter.label} away`"
        @click="bench.edit('Axis away', (card) => removeAxis(card, piece.id, axis.id))"
      >
        <VIcon :icon="mdiClose" size="13" />
      </button>
      <p v-if="!known" class="fault">This font has no such axis: the value waits for one that has.</p>
    </div>
  </section>
  <details v-if="features.length > 0" class="more">
    <summary>OpenType features</summary>
    <div class="features" role="group" aria-label="OpenType features">
      <button
        v-for="{ tag, name, on, next } in features"
        :key="tag"
        class="plain-button"
        :aria-pressed="on"
        :title="tag"
        @click="setFeatures(name, next)"
      >
        {{ name }}
      </button>
    </div>
  </details>
  <details class="more" :open="open" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary>Runs, pairs, missing letters</summary>
    <template v-if="open">
      <button class="plain-button" @click="addMarked">
        {{ marked ? 'Set the marked letters otherwise' : 'Add a run' }}
      </button>
      <article v-for="run in piece.runs" :key="run.id">
        <div class="line">
          <select
            class="plain-field"
            aria-label="Font of the run"
            :value="run.font ?? ''"
            @change="
              bench.edit('Font of a run', (card) =>
                changeRun(card, piece.id, run.id, { font: ($event.target as HTMLSelectElement).value || null }),
              )
            "
          >
            <option value="">Same font</option>
            <option v-for="choice in fonts.choices" :key="choice.id" :value="choice.id">{{ choice.title }}</option>
          </select>
          <button
            class="icon-button"
            aria-label="Take the run away"
            @click="bench.edit('Run away', (card) => changeRun(card, piece.id, run.id, null))"
          >
            <VIcon :icon="mdiClose" size="13" />
          </button>
        </div>
        <ParameterRow v-for="place in runRows(run.id)" :key="place.address" :place="place" />
      </article>
      <p v-if="piece.pairs.length > 0" class="pairs">
        <span v-for="{ pair, by } in piece.pairs" :key="pair">
          {{ pair }} {{ by > 0 ? '+' : '' }}{{ by }} ‰
          <button
            class="icon-button"
            :aria-label="`${pair} as the font has it`"
            @click="bench.edit(`Kern ${pair}`, (card) => kernPair(card, piece.id, pair, -by))"
          >
            <VIcon :icon="mdiClose" size="12" />
          </button>
        </span>
      </p>
      <p v-else class="quiet">
        To kern two letters, double-click the words, put the caret between them, and press Alt with an arrow.
      </p>
      <div class="line">
        <label class="fallback">
          Missing letters from
          <select
            class="plain-field"
            aria-label="Font for missing letters"
            @change="
              bench.edit('Font for missing letters', (card) =>
                setFallbacks(card, piece.id, [...piece.fallbacks, ($event.target as HTMLSelectElement).value]),
              )
            "
          >
            <option value="">Choose a font</option>
            <option v-for="choice in fonts.choices" :key="choice.id" :value="choice.id">{{ choice.title }}</option>
          </select>
        </label>
      </div>
      <p v-if="piece.fallbacks.length > 0" class="pairs">
        <span v-for="id in piece.fallbacks" :key="id">
          {{ nameOf(id) }}
          <button
            class="icon-button"
            :aria-label="`${nameOf(id)} no more`"
            @click="
              bench.edit('Font for missing letters', (card) =>
                setFallbacks(
                  card,
                  piece.id,
                  piece.fallbacks.filter((one) => one !== id),
                ),
              )
            "
          >
            <VIcon :icon="mdiClose" size="12" />
          </button>
        </span>
      </p>
    </template>
  </details>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  align-items: center;
}
h3 {
  flex: 1;
  margin: 4px 0;
  font-size: 13px;
  font-weight: 650;
}
header .plain-button,
.more > .plain-button {
  height: 24px;
  padding: 0 7px;
}
.axis {
  display: grid;
  grid-template-columns: 1fr 22px;
  align-items: center;
}
.axis p {
  grid-column: 1 / -1;
}
.more {
  border-top: 1px solid var(--line);
}
summary {
  padding: 6px 0;
  font-weight: 650;
  color: var(--ink-2);
  cursor: pointer;
}
article {
  padding: 4px 0 4px 8px;
  margin: 6px 0;
  border-left: 2px solid var(--teal);
}
.line {
  display: grid;
  grid-template-columns: 1fr 24px;
  gap: 6px;
  align-items: center;
}
.fallback {
  display: grid;
  grid-template-columns: 130px 1fr;
  grid-column: 1 / -1;
  gap: 6px;
  align-items: center;
  color: var(--ink-2);
}
.features {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  padding-bottom: 6px;
}
.features .plain-button {
  height: 24px;
  padding: 0 7px;
}
.features [aria-pressed='true'] {
  font-weight: 650;
  background: var(--teal-soft);
  border-color: var(--teal);
}
.pairs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 6px 0;
}
.pairs span {
  display: flex;
  align-items: center;
  padding: 0 2px 0 7px;
  background: var(--teal-soft);
  border-radius: 5px;
}
.fault {
  margin: 2px 0 6px;
  font-size: 12px;
  color: var(--wax);
}
.quiet {
  margin: 4px 0;
  font-size: 12px;
}
</style>
