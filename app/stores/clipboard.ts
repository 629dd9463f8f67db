import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { KeyClip } from '#core/edit/keys'
import type { Coat, Finish, Piece } from '#core/card/schema'

/** What was copied on the bench; it goes along from card to card. */
export const useClipboard = defineStore('clipboard', () => {
  /** A core: its coats and finishes. */
  const stack = shallowRef<Pick<Piece, 'coats' | 'finishes'> | null>(null)
  const coat = shallowRef<Coat | null>(null)
  const finish = shallowRef<Finish | null>(null)
  const pieces = shallowRef<Piece[]>([])
  const keys = shallowRef<KeyClip | null>(null)
  /** What was copied last: it is what the keys paste. */
  const last = shallowRef<'coat' | 'finish' | 'pieces' | 'keys' | null>(null)

  function keepCoat(copied: Coat) {
    coat.value = copied
    last.value = 'coat'
  }

  function keepFinish(copied: Finish) {
    finish.value = copied
    last.value = 'finish'
  }

  function keepPieces(copied: readonly Piece[]) {
    pieces.value = [...copied]
    last.value = 'pieces'
  }

  function keepKeys(copied: KeyClip) {
    keys.value = copied
    last.value = 'keys'
  }

  return { stack, coat, finish, pieces, keys, last, keepCoat, keepFinish, keepPieces, keepKeys }
})
