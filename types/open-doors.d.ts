/** Made with the build from its pages and its public files. */
declare module '#open-doors' {
  export const OPEN_DOORS: import('../server/rim/doors').OpenDoors
}
