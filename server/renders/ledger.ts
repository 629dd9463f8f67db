import { createHash } from 'node:crypto'
import type { FileHandle } from 'node:fs/promises'
import { open, rm } from 'node:fs/promises'
import { promisify } from 'node:util'
import { deflateRaw, inflateRaw } from 'node:zlib'
import type { FramePicture } from '../../core/frame/engine'
import { alphaOf } from './encoders/png-sequence'

const pack = promisify(deflateRaw)
const unpack = promisify(inflateRaw)

/**
 * What the engine made, kept until the file has been read again: a hash of every frame's pixels, and its alpha
 * in a scratch file beside the render.
 */
export class Ledger {
  readonly hashes: string[] = []
  private readonly entries: { at: number; length: number }[] = []
  private end = 0

  private constructor(
    private readonly path: string,
    private readonly file: FileHandle,
    private readonly bits: 8 | 16,
  ) {}

  static async create(path: string, bits: 8 | 16): Promise<Ledger> {
    return new Ledger(path, await open(path, 'w+'), bits)
  }

  get frames(): number {
    return this.hashes.length
  }

  async enter({ pixels }: FramePicture): Promise<void> {
    this.hashes.push(hashOf(pixels))
    const packed = await pack(alphaBytes(pixels, this.bits), { level: 1 })
    await this.file.write(packed, 0, packed.length, this.end)
    this.entries.push({ at: this.end, length: packed.length })
    this.end += packed.length
  }

  /** Alpha of a frame, 0–1. */
  async alpha(frame: number): Promise<Float32Array> {
    const { at, length } = this.entries[frame]!
    const packed = Buffer.allocUnsafe(length)
    await this.file.read(packed, 0, length, at)
    const bytes = await unpack(packed)
    const values = this.bits === 8 ? bytes : new Uint16Array(new Uint8Array(bytes).buffer)
    const top = this.bits === 8 ? 255 : 65535
    return Float32Array.from(values, (value) => value / top)
  }

  async close(): Promise<void> {
    await this.file.close()
    await rm(this.path, { force: true })
  }
}

export const hashOf = (pixels: Uint8Array): string => createHash('sha256').update(pixels).digest('hex')

/** The alpha channel alone, in the picture's own bits. */
function alphaBytes(pixels: Uint8Array, bits: 8 | 16): Uint8Array {
  if (bits === 8) return Uint8Array.from(alphaOf(pixels, 8), (a) => Math.round(a * 255))
  const values = new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.byteLength / 2)
  const alpha = new Uint16Array(values.length / 4)
  for (let i = 0; i < alpha.length; i++) alpha[i] = values[i * 4 + 3]!
  return new Uint8Array(alpha.buffer)
}
