import { useRuntimeConfig } from '#imports'

/**
 * Small pictures of cards that the browser keeps from visit to visit, so that a shelf of hundreds is there at once. One a
 * card, with the stamp of what it shows: it counts only for that. Browsers offer this store to secure addresses and to this
 * machine; elsewhere nothing is kept and each visit makes its pictures anew.
 */
const NAME = 'wax-small-pictures'
const STAMP = 'x-stamp'

/** Another build may draw otherwise: it keeps its own. */
const storeName = () => `${NAME}-${useRuntimeConfig().app.buildId}`
const open = async () => (globalThis.caches ? await caches.open(storeName()) : null)
const addressOf = (id: string) => `/small-pictures/${encodeURIComponent(id)}`

/** Null where none is kept, or one of something else. */
export async function keptPicture(id: string, stamp: string): Promise<ImageBitmap | null> {
  const kept = await (await open())?.match(addressOf(id))
  if (kept?.headers.get(STAMP) !== stamp) return null
  return createImageBitmap(await kept.blob())
}

/** Rejects where the browser has no room for it. */
export async function keepPicture(id: string, stamp: string, bitmap: ImageBitmap): Promise<void> {
  const store = await open()
  if (!store) return
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height)
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0)
  await store.put(addressOf(id), new Response(await canvas.convertToBlob(), { headers: { [STAMP]: stamp } }))
}

/** Forgets the pictures of all other cards, and those of other builds. */
export async function keepOnly(ids: readonly string[]): Promise<void> {
  const store = await open()
  if (!store) return
  const addresses = new Set(ids.map(addressOf))
  const gone = (await store.keys()).filter(({ url }) => !addresses.has(new URL(url).pathname))
  const former = (await caches.keys()).filter((name) => name.startsWith(NAME) && name !== storeName())
  await Promise.all([...gone.map((request) => store.delete(request)), ...former.map((name) => caches.delete(name))])
}
