import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { SHIPPED_FONTS } from '#core/type/families'
import { api } from '~/composables/api'

interface OwnFont {
  id: string
  family: string
  style: string
  fileName: string
}

/** A font to choose from. */
export interface FontChoice {
  id: string
  title: string
  kind: string
  /** CSS family under which the browser shows its sample. */
  css: string
}

const KINDS = {
  display: 'Display',
  serif: 'Serif',
  condensed: 'Condensed',
  slab: 'Slab',
  script: 'Script',
  sans: 'Sans',
}

/** Shipped fonts and those that people brought. */
export const useFonts = defineStore('fonts', () => {
  const own = ref<OwnFont[]>([])

  const choices = computed<FontChoice[]>(() => [
    ...own.value.map(({ id, family, style }) => choice(id, family, style, 'Brought in')),
    ...SHIPPED_FONTS.map(({ id, family, style, kind }) => choice(id, family, style, KINDS[kind])),
  ])

  function choice(id: string, family: string, style: string, kind: string): FontChoice {
    return { id, title: style === 'Regular' ? family : `${family} ${style}`, kind, css: `sample-${id}` }
  }

  async function load() {
    own.value = await api<OwnFont[]>('/fonts')
  }

  async function bringIn(file: File): Promise<string> {
    const font = await api<OwnFont>(`/fonts?name=${encodeURIComponent(file.name)}`, 'POST', file)
    await load()
    return font.id
  }

  return { own, choices, load, bringIn }
})

/** Lets the browser show a font's own letters in lists; loaded when first asked for. */
export function showSample(id: string): void {
  const family = `sample-${id}`
  if ([...document.fonts].some((font) => font.family === family)) return
  const url = id.startsWith('own-') ? `/api/fonts/${id}/file` : `/fonts/${id}.ttf`
  document.fonts.add(new FontFace(family, `url(${url})`, { display: 'block' }))
}
