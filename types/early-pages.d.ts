/** Made with the build from its manifest. */
declare module '#early-pages' {
  export const EARLY_PAGES: import('../server/rim/early-files').EarlyPage[]
}
