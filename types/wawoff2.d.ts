declare module 'wawoff2' {
  /** WOFF2 → sfnt. */
  export function decompress(bytes: Uint8Array): Promise<Uint8Array>
  /** sfnt → WOFF2. */
  export function compress(bytes: Uint8Array): Promise<Uint8Array>
}
