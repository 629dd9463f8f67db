import { readdirSync } from 'node:fs'
import { relative } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { BuiltFile } from './server/rim/early-files'
import { earlyPages } from './server/rim/early-files'
import type { OpenDoors } from './server/rim/doors'
import { HEADERS } from './server/rim/policy'
import vuetify, { transformAssetUrls } from 'vite-plugin-vuetify'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** Paths of pages with their files; and what each needs, known when the interface is built, before the server is. */
let paths: { path: string; source: string }[] = []
let early: ReturnType<typeof earlyPages> = []

/** What answers without a token: pages, and what is served as files. */
const openDoors = (): OpenDoors => ({
  pages: paths.map(({ path }) => path),
  files: ['_nuxt', ...readdirSync(here('public'))],
})

export default defineNuxtConfig({
  compatibilityDate: '2026-05-01',
  telemetry: false,
  devtools: { enabled: false },
  // An editor gains nothing from being rendered on the server.
  ssr: false,
  modules: ['@pinia/nuxt'],
  css: ['vuetify/styles', '@fontsource-variable/atkinson-hyperlegible-next/index.css', '~/styles/main.css'],
  alias: { '#core': here('./core'), '#server': here('./server') },
  imports: { autoImport: true, scan: false },
  components: { dirs: [] },
  build: { transpile: ['vuetify'] },
  postcss: { plugins: { cssnano: false } },
  app: {
    head: {
      title: 'Wax Ribbon',
      htmlAttrs: { lang: 'en' },
      // Read by Zod before its first schema is made: with the policy of our pages it could not make code anyway, and its
      // asking would be told as a breach of it.
      script: [{ innerHTML: 'globalThis.__zod_globalConfig={jitless:true}' }],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  vite: {
    plugins: [vuetify({ autoImport: true })],
    vue: { template: { transformAssetUrls } },
    worker: { format: 'es' },
    // A first visit fetches six files at a time: many small ones cost it more than their bytes.
    build: { target: 'es2022', rollupOptions: { output: { experimentalMinChunkSize: 20_000 } } },
    optimizeDeps: { exclude: ['harfbuzzjs'] },
  },
  hooks: {
    'pages:extend'(pages) {
      paths = pages.map(({ path, file }) => ({ path, source: relative(here('app'), file!) }))
    },
    'build:manifest'(manifest) {
      early = earlyPages(manifest as Record<string, BuiltFile>, paths)
    },
  },
  nitro: {
    virtual: {
      '#early-pages': () => `export const EARLY_PAGES = ${JSON.stringify(early)}`,
      '#open-doors': () => `export const OPEN_DOORS = ${JSON.stringify(openDoors())}`,
    },
    // Everything that is served as a file is packed once, when it is built.
    compressPublicAssets: { gzip: true, brotli: true },
    esbuild: { options: { target: 'es2022' } },
    typescript: { tsConfig: { include: ['../types/**/*.d.ts'] } },
  },
  routeRules: {
    '/**': { headers: HEADERS },
    // Their names stay while the application does; a newer one asks again after a day.
    '/fonts/**': { headers: { 'cache-control': 'public, max-age=86400' } },
  },
  // A shelf of hundreds of links would fetch the bench beside it: pages come when a hand goes to them.
  experimental: { defaults: { nuxtLink: { prefetchOn: { interaction: true, visibility: false } } } },
  runtimeConfig: {
    databaseUrl: '',
    /** Names beside those of this machine under which the server answers: NUXT_ALLOWED_HOSTS. */
    allowedHosts: '',
    storage: '.wax/storage',
  },
  typescript: { strict: true, tsConfig: { include: ['../types/**/*.d.ts'] } },
})
