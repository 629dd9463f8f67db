<script setup lang="ts">
import { useIntervalFn, useTitle } from '@vueuse/core'
import { onMounted, ref } from 'vue'
import type { Fault } from '#core/errors'
import RenderItem from '~/components/press-room/RenderItem.vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import { faultOf } from '~/composables/api'
import { useNotices } from '~/stores/notices'
import { useRenders } from '~/stores/renders'

useTitle('Press room · Wax Ribbon')
const renders = useRenders()
const notices = useNotices()
const failed = ref<Fault | null>(null)
let quiet = 0

async function refresh() {
  try {
    await renders.load()
    failed.value = null
  } catch (error) {
    failed.value = faultOf(error)
  }
}

onMounted(refresh)
// While nothing is in work it looks only now and then.
useIntervalFn(() => {
  if (renders.busy || failed.value || ++quiet % 8 === 0) void refresh()
}, 600)

async function attempt(work: () => Promise<unknown>) {
  try {
    await work()
  } catch (error) {
    notices.fault(faultOf(error))
  }
}
</script>

<template>
  <div class="press">
    <PlaceBar />
    <div class="room">
      <h1>Renders</h1>
      <p v-if="failed" class="failed" role="alert">{{ failed.message }} {{ failed.remedy }}</p>
      <div class="list">
        <RenderItem
          v-for="row in renders.list"
          :key="row.id"
          :row="row"
          @cancel="attempt(() => renders.cancel(row.id))"
          @remove="attempt(() => renders.remove(row.id))"
        />
      </div>
      <p v-if="renders.loaded && renders.list.length === 0" class="quiet">
        Nothing was rendered yet. Open a card on the bench and press <b>Render with transparency</b>: the file is read
        again when it is written, and offered here once its alpha is verified.
      </p>
    </div>
  </div>
</template>

<style scoped>
.press {
  display: flex;
  flex-direction: column;
  height: 100vh;
  background: var(--paper);
}
.room {
  flex: 1;
  padding: 18px 26px 40px;
  overflow: auto;
}
h1 {
  margin: 0 0 12px;
  font-size: 17px;
  font-weight: 650;
}
.list {
  display: grid;
  gap: 12px;
  max-width: 980px;
}
.failed {
  color: var(--wax);
}
</style>
