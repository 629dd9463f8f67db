import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { Piece } from '#core/card/schema'

/** What was copied on the bench; it goes along from card to card. */
export const useClipboard = defineStore('clipboard', () => {
  const core = shallowRef<Piece['coats'] | null>(null)
  return { core }
})
