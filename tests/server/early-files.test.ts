import { describe, expect, test } from '@jest/globals'
import type { BuiltFile } from '#server/rim/early-files'
import { earlyLinks, earlyPages } from '#server/rim/early-files'

const MANIFEST: Record<string, BuiltFile> = {
  entry: { file: 'entry.js', isEntry: true, imports: ['_vue'], css: ['entry.css'] },
  _vue: { file: 'vue.js' },
  'pages/index.vue': { file: 'index.js', imports: ['entry', '_tiles', '_menu'], css: ['index.css'] },
  'pages/card/[id].vue': { file: 'card.js', imports: ['_menu', '_gone'] },
  _tiles: { file: 'tiles.js', imports: ['_menu', '_vue'], css: ['tiles.css'] },
  // As bundlers make them: each waits for the other.
  _menu: { file: 'menu.js', imports: ['_tiles'], css: ['tiles.css'] },
}
const PAGES = earlyPages(MANIFEST, [
  { path: '/', source: 'pages/index.vue' },
  { path: '/card/:id()', source: 'pages/card/[id].vue' },
  { path: '/elsewhere', source: 'pages/elsewhere.vue' },
])
const hrefs = (links: string) => [...links.matchAll(/href="([^"]*)"/g)].map(([, href]) => href)

describe('what a page will ask for is told in its head', () => {
  test('each file that it cannot begin without, once; none that every page has', () => {
    expect(PAGES).toEqual([
      { path: '/', modules: ['index.js', 'tiles.js', 'menu.js'], styles: ['index.css', 'tiles.css'] },
      { path: '/card/:id()', modules: ['card.js', 'menu.js', 'tiles.js'], styles: ['tiles.css'] },
    ])
  })

  test('and what it asks the server for, first', () => {
    const links = earlyLinks(PAGES, '/_nuxt/', '/')
    expect(hrefs(links)).toEqual([
      ...['/api/cards', '/api/rosters', '/api/seals'],
      ...['/_nuxt/index.css', '/_nuxt/tiles.css'],
      ...['/_nuxt/index.js', '/_nuxt/tiles.js', '/_nuxt/menu.js'],
    ])
    // Without it what was fetched early is not what the page's own request takes.
    expect(links.match(/<link /g)).toHaveLength(links.match(/ crossorigin /g)!.length)
  })

  test('an id is that of the path', () => {
    expect(hrefs(earlyLinks(PAGES, '/_nuxt/', '/card/lower-third_2')).slice(0, 2)).toEqual([
      ...['/api/cards/lower-third_2', '/api/fonts'],
    ])
  })

  test.each(['/nowhere', '/card', '/card/a/b', '/elsewhere', '/card/"><script>', '/card/%22', ''])(
    'nothing at %s',
    (path) => {
      expect(earlyLinks(PAGES, '/_nuxt/', path)).toBe('')
    },
  )
})
