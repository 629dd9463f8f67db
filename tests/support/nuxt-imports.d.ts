/** What the tested parts of the application take from Nuxt. */
export function useRuntimeConfig(): { app: { buildId: string } }
