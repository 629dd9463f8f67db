import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api } from '~/composables/api'

export interface KnownWorker {
  id: string
  /** Of its machine. */
  name: string
  place: 'here' | 'elsewhere'
  /** Engines that it runs at once. */
  lanes: number
}

export interface Token {
  id: string
  name: string
  createdAt: string
  usedAt: string | null
}

/** Who renders, and the tokens that let programs in. */
export const useWorkers = defineStore('workers', () => {
  const list = ref<KnownWorker[]>([])
  const tokens = ref<Token[]>([])

  const words = computed(() => {
    const count = (place: KnownWorker['place']) => list.value.filter((worker) => worker.place === place).length
    const [here, elsewhere] = [count('here'), count('elsewhere')]
    if (here + elsewhere === 0) return 'No worker'
    return [
      here > 0 ? `${here} ${here === 1 ? 'worker' : 'workers'} here` : '',
      elsewhere > 0 ? `${elsewhere} elsewhere` : '',
    ]
      .filter(Boolean)
      .join(' · ')
  })

  async function load() {
    list.value = await api<KnownWorker[]>('/workers')
  }

  async function loadTokens() {
    tokens.value = await api<Token[]>('/tokens')
  }

  /** Makes a token; it is told this once. */
  async function makeToken(name: string): Promise<string> {
    const { token, ...row } = await api<Token & { token: string }>('/tokens', 'POST', { name })
    tokens.value = [row, ...tokens.value]
    return token
  }

  async function withdraw(id: string) {
    await api(`/tokens/${id}`, 'DELETE')
    tokens.value = tokens.value.filter((token) => token.id !== id)
  }

  return { list, tokens, words, load, loadTokens, makeToken, withdraw }
})
