import { beforeEach, expect, jest, test } from '@jest/globals'

// What a browser keeps of small pictures, over a stand-in of its own store (W3C Service Workers, Cache).

const app = { buildId: 'one' }
jest.unstable_mockModule('#imports', () => ({ useRuntimeConfig: () => ({ app }) }), { virtual: true })
const { keepOnly, keepPicture, keptPicture } = await import('~/composables/kept-pictures')

const HOST = 'http://localhost'
let stores: Map<string, Map<string, Response>>

const store = (name: string) => {
  const kept = stores.get(name) ?? new Map<string, Response>()
  stores.set(name, kept)
  const urlOf = (asked: string | { url: string }) => (typeof asked === 'string' ? HOST + asked : asked.url)
  return {
    match: (asked: string) => Promise.resolve(kept.get(urlOf(asked))?.clone()),
    put: (asked: string, response: Response) => Promise.resolve(void kept.set(urlOf(asked), response)),
    keys: () => Promise.resolve([...kept.keys()].map((url) => ({ url }))),
    delete: (asked: string | { url: string }) => Promise.resolve(kept.delete(urlOf(asked))),
  }
}
const browserCaches = {
  open: (name: string) => Promise.resolve(store(name)),
  keys: () => Promise.resolve([...stores.keys()]),
  delete: (name: string) => Promise.resolve(stores.delete(name)),
}

/** A picture that is its bytes. */
const drawn = (text: string) => ({ width: 4, height: 2, text }) as unknown as ImageBitmap

beforeEach(() => {
  stores = new Map()
  app.buildId = 'one'
  let inside = ''
  Object.assign(globalThis, {
    caches: browserCaches,
    OffscreenCanvas: class {
      getContext = () => ({ drawImage: ({ text }: { text: string }) => (inside = text) })
      convertToBlob = () => Promise.resolve(new Blob([inside]))
    },
    createImageBitmap: (blob: Blob) => blob.text(),
  })
})

test('a picture is there again for what it shows, and for nothing else', async () => {
  await keepPicture('lower third/1', '3 noon 1', drawn('third'))
  expect(await keptPicture('lower third/1', '3 noon 1')).toBe('third')
  expect(await keptPicture('lower third/1', '4 noon 1')).toBeNull()
  expect(await keptPicture('lower third', '3 noon 1')).toBeNull()
  await keepPicture('lower third/1', '4 noon 1', drawn('newer'))
  expect(await keptPicture('lower third/1', '3 noon 1')).toBeNull()
  expect(await keptPicture('lower third/1', '4 noon 1')).toBe('newer')
})

test('of cards that are gone, and of other builds, nothing stays; what others keep is theirs', async () => {
  stores.set('of-somebody-else', new Map())
  await keepPicture('a', '1', drawn('old'))
  app.buildId = 'two'
  expect(await keptPicture('a', '1')).toBeNull()
  for (const id of ['a', 'b', 'c']) await keepPicture(id, '1', drawn(id))
  await keepOnly(['a', 'c', 'd'])
  expect([...stores.keys()]).toEqual(['of-somebody-else', 'wax-small-pictures-two'])
  expect(await Promise.all(['a', 'b', 'c'].map((id) => keptPicture(id, '1')))).toEqual(['a', null, 'c'])
})

test('where the browser offers no store nothing is kept, and nothing fails', async () => {
  Object.assign(globalThis, { caches: undefined })
  await keepPicture('a', '1', drawn('a'))
  await keepOnly(['a'])
  expect(await keptPicture('a', '1')).toBeNull()
})
