declare module 'fontkit' {
  /** A font from its bytes. */
  export function create(bytes: Buffer): unknown
}
