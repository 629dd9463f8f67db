// The part of the WebAssembly interface that the core uses. It exists in every place where the core runs,
// but TypeScript declares it only together with the DOM or Node, which the core must not see.
declare namespace WebAssembly {
  class Memory {
    constructor(descriptor: { initial: number; maximum?: number })
    readonly buffer: ArrayBuffer
    grow(pages: number): number
  }
  class Module {
    constructor(bytes: Uint8Array<ArrayBuffer>)
  }
  class Instance {
    constructor(module: Module, imports: Record<string, Record<string, unknown>>)
    readonly exports: Record<string, unknown>
  }
}
