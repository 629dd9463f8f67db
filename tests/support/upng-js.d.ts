declare module 'upng-js' {
  interface Decoded {
    width: number
    height: number
    depth: number
    frames: { delay: number }[]
  }
  const UPNG: { decode(file: ArrayBufferLike): Decoded; toRGBA8(image: Decoded): ArrayBuffer[] }
  export default UPNG
}
