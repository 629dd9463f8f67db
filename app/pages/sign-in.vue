<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { ref } from 'vue'
import type { Fault } from '#core/errors'
import { api, faultOf } from '~/composables/api'

useTitle('Token · Wax Ribbon')
const token = ref('')
const fault = ref<Fault | null>(null)

async function send() {
  try {
    await api('/sign-in', 'POST', { token: token.value.trim() })
    window.location.assign('/')
  } catch (error) {
    fault.value = faultOf(error)
  }
}
</script>

<template>
  <main class="page">
    <form class="dialog-sheet" aria-label="Token" @submit.prevent="send">
      <h2>Wax Ribbon asks for a token here</h2>
      <p>This is not the server’s own machine. Tokens are made there, in the press room under Workers.</p>
      <label>Token<input v-model="token" class="plain-field" type="password" autocomplete="current-password" /></label>
      <p v-if="fault" class="bad" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
      <button class="wax-button" :disabled="token.trim() === ''">Let me in</button>
    </form>
  </main>
</template>

<style scoped>
.page {
  display: grid;
  place-items: center;
  height: 100vh;
  background: var(--paper-2);
}
form {
  display: grid;
  gap: 14px;
  width: 420px;
}
label {
  display: grid;
  gap: 3px;
  color: var(--ink-2);
}
input {
  height: 32px;
}
p {
  margin: 0;
}
.bad {
  color: var(--wax);
}
</style>
