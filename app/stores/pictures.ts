import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Brought } from '#core/rosters/kinds/definition'
import { api } from '~/composables/api'

export interface OwnPicture {
  id: string
  fileName: string
  width: number
  height: number
}

/** The picture that a cell names: by its id or its file name, whatever its case; of one name the newest. */
export const knownPicture = (list: readonly OwnPicture[], name: string): OwnPicture | null =>
  list.find(({ id, fileName }) => id === name || fileName.toLowerCase() === name.toLowerCase()) ?? null

/** What cells may name, as the core asks for it. */
export const broughtIn = (list: readonly OwnPicture[]): Brought => ({ picture: (name) => knownPicture(list, name) })

/** Pictures that people brought, for textures. */
export const usePictures = defineStore('pictures', () => {
  const list = ref<OwnPicture[]>([])

  async function load() {
    list.value = await api<OwnPicture[]>('/pictures')
  }

  async function bringIn(file: File): Promise<string> {
    const picture = await api<OwnPicture>(`/pictures?name=${encodeURIComponent(file.name)}`, 'POST', file)
    await load()
    return picture.id
  }

  return { list, load, bringIn }
})
