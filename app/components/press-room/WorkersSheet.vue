<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { Fault } from '#core/errors'
import { faultOf } from '~/composables/api'
import { useWorkers } from '~/stores/workers'

// Who renders; how another machine joins; and the tokens that let it in.

const open = defineModel<boolean>({ required: true })
const workers = useWorkers()
const name = ref('')
const made = ref<string | null>(null)
const fault = ref<Fault | null>(null)
const address = computed(() => window.location.origin)
const command = computed(() => `npm run worker -- --server ${address.value} --token ${made.value ?? 'TOKEN'}`)

async function attempt(work: () => Promise<unknown>) {
  fault.value = null
  try {
    await work()
  } catch (error) {
    fault.value = faultOf(error)
  }
}

watch(open, (now) => {
  made.value = null
  if (now) void attempt(() => Promise.all([workers.load(), workers.loadTokens()]))
})
useIntervalFn(() => {
  if (open.value) void workers.load().catch(() => {})
}, 1500)

const make = () =>
  attempt(async () => {
    made.value = await workers.makeToken(name.value.trim())
    name.value = ''
  })

const day = (time: string) => new Date(time).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <VDialog v-model="open" max-width="720">
    <section class="sheet dialog-sheet" aria-label="Workers">
      <h2>Workers</h2>
      <p v-if="fault" class="fault-text" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
      <ul class="workers">
        <li v-for="worker in workers.list" :key="worker.id" :data-place="worker.place">
          <b>{{ worker.name }}</b>
          <span class="quiet">
            {{ worker.place === 'here' ? 'on the server’s machine' : 'on another machine' }} · {{ worker.lanes }}
            {{ worker.lanes === 1 ? 'engine' : 'engines' }}
          </span>
        </li>
        <li v-if="workers.list.length === 0" class="quiet">
          Nobody renders now. The server’s own worker starts with the application.
        </li>
      </ul>
      <div>
        <h3>Another machine helps</h3>
        <p class="quiet">
          It needs this project, the address of this server and a token; no folder is shared. Give the token a name, and
          run the line below there.
        </p>
      </div>
      <form class="line" @submit.prevent="make">
        <label
          >Name of the token<input v-model="name" class="plain-field" placeholder="Edit suite 2" maxlength="80"
        /></label>
        <button class="wax-button" :disabled="name.trim() === ''">Make a token</button>
      </form>
      <p v-if="made" class="made" role="status">
        <b>This token is shown only now:</b> <code data-test="token">{{ made }}</code>
      </p>
      <pre><code>{{ command }}</code></pre>
      <table v-if="workers.tokens.length > 0" class="plain-table">
        <thead>
          <tr>
            <th>Token</th>
            <th>Made</th>
            <th>Last used</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="token in workers.tokens" :key="token.id">
            <th>{{ token.name }}</th>
            <td>{{ day(token.createdAt) }}</td>
            <td>{{ token.usedAt ? day(token.usedAt) : 'never' }}</td>
            <td>
              <button
                type="button"
                class="plain-button"
                :aria-label="`Withdraw ${token.name}`"
                @click="attempt(() => workers.withdraw(token.id))"
              >
                Withdraw
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <div class="foot">
        <NuxtLink class="plain-button" to="/api-guide">The API, for other programs</NuxtLink>
        <button type="button" class="plain-button" @click="open = false">Close</button>
      </div>
    </section>
  </VDialog>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 14px;
}
h3 {
  margin: 0 0 4px;
  font-size: 14px;
  font-weight: 650;
}
p {
  margin: 0;
}
ul {
  display: grid;
  gap: 6px;
  padding: 0;
  margin: 0;
  list-style: none;
}
.workers li b {
  margin-right: 8px;
  font-weight: 650;
}
.line {
  display: flex;
  gap: 12px;
  align-items: end;
}
label {
  display: grid;
  flex: 1;
  gap: 3px;
  color: var(--ink-2);
}
input {
  height: 30px;
}
pre {
  padding: 10px 12px;
  margin: 0;
  overflow-wrap: anywhere;
  white-space: pre-wrap;
  background: var(--paper-2);
  border-radius: 6px;
}
code {
  font-size: 12px;
  user-select: all;
}
.made code {
  padding: 2px 6px;
  background: var(--teal-soft);
  border-radius: 4px;
}
td:last-child {
  text-align: right;
}
</style>
