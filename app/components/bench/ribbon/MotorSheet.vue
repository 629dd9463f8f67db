<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed } from 'vue'
import { numbersOf } from '#core/card/addresses'
import { addMotor, changeMotor } from '#core/edit/motors'
import type { Moving } from '#core/values/moving'
import { isMoving } from '#core/values/moving'
import { turnOf } from '#core/values/parameter-kinds'
import { motionFaults } from '#core/judge/motion-faults'
import { motorGaps } from '#core/judge/seam'
import type { Motor } from '#core/values/motors/schema'
import { motorOf, MOTORS } from '#core/values/motors/table'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import NumberRow from '../../fields/NumberRow.vue'
import MotorField from './MotorField.vue'

const props = defineProps<{ address: string }>()

const bench = useBench()
const ribbon = useRibbon()
const place = computed(() => numbersOf(bench.card!).find(({ address }) => address === props.address))
const moving = computed(() => (isMoving(place.value?.value) ? (place.value.value as Moving<number>) : null))
const motors = computed<Motor[]>(() => moving.value?.motors ?? [])
const unit = computed(() => {
  const parameter = place.value?.parameter
  if (parameter?.type === 'number') return parameter.unit
  return (moving.value as { unit?: '%' } | null)?.unit ?? 'px'
})
const faults = computed(() => motionFaults(bench.card!).filter(({ address }) => address === props.address))
const gaps = computed(() =>
  moving.value && place.value ? motorGaps(bench.card!, moving.value, turnOf(place.value.parameter)) : [],
)
const faultOf = (index: number) => faults.value.find(({ motor }) => motor === index)

/** What of a motor can have keys is a value of the card like any other. */
const ownPlace = (motor: number, name: string) =>
  numbersOf(bench.card!).find(({ address }) => address === `${props.address}/motors/${motor}/${name}`)

const add = (kind: string) =>
  bench.edit(`${motorOf(kind).label}: ${place.value!.label}`, (card) =>
    addMotor(card, props.address, kind, ribbon.frame),
  )

function change(index: number, values: Partial<Motor> | null, mark = '') {
  const { kind } = motors.value[index]!
  bench.edit(
    `${motorOf(kind).label}: ${place.value!.label}`,
    (card) => changeMotor(card, props.address, index, values),
    mark && `motor/${props.address}/${index}/${mark}`,
  )
}
</script>

<template>
  <aside v-if="place" class="sheet" role="dialog" :aria-label="`Motors of ${place.label}`">
    <header>
      <h2>{{ place.label }}</h2>
      <button class="icon-button" aria-label="Close motors" @click="ribbon.motorsOf = null">
        <VIcon :icon="mdiClose" size="16" />
      </button>
    </header>
    <div class="list">
      <p v-if="motors.length === 0" class="quiet">
        A motor moves the value beside its keys, the same at every turn of the loop. Choose one:
      </p>
      <article v-for="(motor, i) in motors" :key="i" :class="{ off: !motor.on }">
        <div class="head">
          <input
            type="checkbox"
            :checked="motor.on"
            :aria-label="`${motorOf(motor.kind).label} runs`"
            @change="change(i, { on: ($event.target as HTMLInputElement).checked })"
          />
          <b>{{ motorOf(motor.kind).label }}</b>
          <button class="icon-button" :aria-label="`Take ${motorOf(motor.kind).label} away`" @click="change(i, null)">
            <VIcon :icon="mdiClose" size="14" />
          </button>
        </div>
        <p class="quiet">{{ motorOf(motor.kind).help }}.</p>
        <template v-for="(parameter, name) in motorOf(motor.kind).parameters" :key="name">
          <NumberRow v-if="ownPlace(i, String(name))" :place="ownPlace(i, String(name))!" />
          <MotorField
            v-else
            :parameter="parameter"
            :value="motor[name]"
            :unit="unit"
            :own="address"
            @change="(value: unknown, mark?: string) => change(i, { [name]: value }, mark ? String(name) : '')"
          />
        </template>
        <p v-if="faultOf(i)" class="fault" role="alert">{{ faultOf(i)!.message }} {{ faultOf(i)!.remedy }}</p>
        <p v-else-if="gaps[i]?.gap" class="gap">
          At the seam it {{ gaps[i]!.gap }}.
          <button v-if="gaps[i]!.mend" class="plain-button" @click="change(i, gaps[i]!.mend!.values)">
            Let it meet
          </button>
        </p>
      </article>
    </div>
    <footer role="group" aria-label="Add a motor">
      <button v-for="{ kind, label, help } in MOTORS" :key="kind" class="plain-button" :title="help" @click="add(kind)">
        {{ label }}
      </button>
    </footer>
  </aside>
</template>

<style scoped>
.sheet {
  position: absolute;
  bottom: calc(100% + 10px);
  left: 112px;
  z-index: 20;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  width: 330px;
  max-height: min(470px, calc(100vh - 280px));
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 8px;
  box-shadow: 0 6px 24px #0004;
}
header,
.head {
  display: flex;
  gap: 8px;
  align-items: center;
}
header {
  padding: 8px 8px 4px 14px;
}
h2 {
  flex: 1;
  margin: 0;
  font-size: 14px;
}
.list {
  padding: 0 14px 8px;
  overflow: hidden auto;
}
.list p {
  margin: 2px 0 6px;
  font-size: 12px;
}
article {
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.head b {
  flex: 1;
}
.off {
  opacity: 0.6;
}
.list .fault {
  color: var(--wax);
}
.gap .plain-button {
  height: 22px;
  margin-left: 4px;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  padding: 8px 12px 10px;
  border-top: 1px solid var(--line);
}
footer .plain-button {
  height: 24px;
  padding: 0 9px;
}
</style>
