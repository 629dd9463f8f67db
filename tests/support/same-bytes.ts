import { expect } from '@jest/globals'

/** Whole pictures are compared as bytes: one by one, as `expect` does it, millions of values take seconds. */
function sameBytes(a: unknown, b: unknown): boolean | undefined {
  if (!ArrayBuffer.isView(a) || !ArrayBuffer.isView(b) || a.constructor !== b.constructor) return undefined
  return bytesOf(a).equals(bytesOf(b))
}

const bytesOf = ({ buffer, byteOffset, byteLength }: ArrayBufferView) => Buffer.from(buffer, byteOffset, byteLength)

expect.addEqualityTesters([sameBytes])
