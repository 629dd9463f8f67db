<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import { useTemplateRef } from 'vue'
import type { HelpTopic } from '#core/help/topics'
import HelpPicture from './HelpPicture.vue'

const props = defineProps<{ topic: HelpTopic; chapter?: boolean }>()

const entry = useTemplateRef<HTMLElement>('entry')
const near = useElementVisibility(entry, { rootMargin: '240px', once: true })
// Known at once, drawn when it comes near: nothing moves then that somebody was led to.
const sample = props.topic.sample()
const called = sample?.called ?? [
  'without',
  sample?.plays ? 'plays under the pointer' : sample?.before ? 'with it' : '',
]
</script>

<template>
  <article :id="topic.id" ref="entry" class="entry" :aria-label="topic.title">
    <h3>
      {{ topic.title }} <small v-if="chapter" class="quiet">{{ topic.chapter }}</small>
    </h3>
    <p>{{ topic.says }}</p>
    <p v-for="text in topic.more" :key="text" class="quiet">{{ text }}</p>
    <div v-if="sample" class="pictures">
      <HelpPicture
        v-if="sample.before"
        :name="`${topic.id}-before`"
        :card="sample.before"
        :plays="sample.plays"
        :near="near"
        :label="called[0]"
      />
      <HelpPicture
        :name="`${topic.id}-after`"
        :card="sample.after"
        :plays="sample.plays"
        :near="near"
        :label="called[1]"
      />
    </div>
    <details v-if="topic.values.length > 0">
      <summary>{{ topic.values.length }} {{ topic.called[topic.values.length === 1 ? 0 : 1] }}</summary>
      <table>
        <tbody>
          <tr v-for="{ label, takes, says } in topic.values" :key="label + says">
            <th scope="row">{{ label }}</th>
            <td>{{ says }}</td>
            <td class="quiet">{{ takes }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </article>
</template>

<style scoped>
.entry {
  padding: 14px 0 16px;
  border-top: 1px solid var(--line);
  scroll-margin-top: 60px;
}
h3 {
  margin: 0 0 4px;
  font-size: 14px;
}
h3 small {
  font-size: 12px;
  font-weight: 400;
}
p {
  max-width: 74ch;
  margin: 0 0 6px;
  line-height: 1.45;
}
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  margin: 8px 0;
}
summary {
  color: var(--teal);
  cursor: pointer;
}
table {
  width: 100%;
  margin-top: 6px;
  border-collapse: collapse;
}
th,
td {
  padding: 4px 12px 4px 0;
  text-align: left;
  vertical-align: top;
  border-top: 1px solid var(--line);
}
th {
  width: 130px;
  font-weight: 600;
}
td:last-child {
  width: 30%;
  overflow-wrap: anywhere;
}
</style>
