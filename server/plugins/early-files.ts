import { EARLY_PAGES } from '#early-pages'
import { defineNitroPlugin } from 'nitropack/runtime'
import { earlyLinks } from '../rim/early-files'

/** Every page tells in its head what it will need: a first visit waits once and not four times. */
export default defineNitroPlugin((nitro) => {
  const { baseURL, buildAssetsDir } = useRuntimeConfig().app
  const folder = `${baseURL.replace(/\/$/, '')}/${buildAssetsDir.replace(/^\//, '')}`
  nitro.hooks.hook('render:html', (html, { event }) => {
    html.head.push(earlyLinks(EARLY_PAGES, folder, event.path.split('?')[0]!))
  })
})
