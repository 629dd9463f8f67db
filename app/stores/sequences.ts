import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Rate } from '#core/values/rate'
import { api } from '~/composables/api'
import { sendFile } from '~/composables/send-file'
import { packedPictures } from '~/composables/numbered-files'

/** What the server knows of a sequence. */
export interface OwnSequence {
  id: string
  fileName: string
  width: number
  height: number
  frames: number
  rate: Rate | null
  bits: 8 | 16
  alpha: 'straight' | 'black' | 'white' | null
  notes: string[]
  /** Pictures in its file, how many of them have been read, and whether no more will come. */
  stored?: number
  there?: number
  ended?: boolean
}

/** Milliseconds between two looks at how far a file has been read. */
const LOOK = 500

/** Sequences that people brought. */
export const useSequences = defineStore('sequences', () => {
  const list = ref<Pick<OwnSequence, 'id' | 'fileName' | 'width' | 'height' | 'frames'>[]>([])
  const known = ref<Record<string, OwnSequence>>({})
  /** The file that is on its way, and how much of it is there, 0–1; null for none. */
  const sending = ref<{ name: string; share: number } | null>(null)
  const followed = new Set<string>()

  async function load() {
    list.value = await api('/sequences')
  }

  /** What is known of a sequence; asked for again until all its pictures have been read. */
  async function follow(id: string): Promise<OwnSequence> {
    const found = await api<OwnSequence>(`/sequences/${id}`)
    known.value = { ...known.value, [id]: found }
    if (!found.ended && !followed.has(id)) {
      followed.add(id)
      void goOn(id).finally(() => followed.delete(id))
    }
    return found
  }

  async function goOn(id: string) {
    while (!known.value[id]?.ended) {
      await new Promise((go) => setTimeout(go, LOOK))
      const found = await api<OwnSequence>(`/sequences/${id}`).catch(() => null)
      if (!found) return
      known.value = { ...known.value, [id]: found }
    }
  }

  /** Brings in one file, or numbered pictures, which are packed as one. */
  async function bringIn(files: readonly File[]): Promise<OwnSequence> {
    const file = files.length === 1 ? files[0]! : await packedPictures(files)
    sending.value = { name: file.name, share: 0 }
    try {
      const found = await sendFile<OwnSequence>(`/sequences?name=${encodeURIComponent(file.name)}`, file, (share) => {
        sending.value = { name: file.name, share }
      })
      known.value = { ...known.value, [found.id]: found }
      void follow(found.id).catch(() => {})
      void load().catch(() => {})
      return found
    } finally {
      sending.value = null
    }
  }

  return { list, known, sending, load, follow, bringIn }
})
