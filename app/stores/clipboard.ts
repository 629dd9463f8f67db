import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { KeyClip } from '#core/edit/keys'
import type { Coat, Piece } from '#core/card/schema'
import type { Entry } from '#core/edit/entries'

/** What was copied on the bench; it goes along from card to card. */
export const useClipboard = defineStore('clipboard', () => {
  /** A core: its coats, finishes and outline steps. */
  const stack = shallowRef<Pick<Piece, 'coats' | 'finishes' | 'outlineSteps'> | null>(null)
  const coat = shallowRef<Coat | null>(null)
  /** A finish or an outline step. */
  const entry = shallowRef<Entry | null>(null)
  const pieces = shallowRef<Piece[]>([])
  const keys = shallowRef<KeyClip | null>(null)
  /** What was copied last: it is what the keys paste. */
  const last = shallowRef<'coat' | 'entry' | 'pieces' | 'keys' | null>(null)

  function keepCoat(copied: Coat) {
    coat.value = copied
    last.value = 'coat'
  }

  function keepEntry(copied: Entry) {
    entry.value = copied
    last.value = 'entry'
  }

  function keepPieces(copied: readonly Piece[]) {
    pieces.value = [...copied]
    last.value = 'pieces'
  }

  function keepKeys(copied: KeyClip) {
    keys.value = copied
    last.value = 'keys'
  }

  return { stack, coat, entry, pieces, keys, last, keepCoat, keepEntry, keepPieces, keepKeys }
})
