import { createHash } from 'node:crypto'
import type { FileHandle } from 'node:fs/promises'
import { open, rm } from 'node:fs/promises'
import { promisify } from 'node:util'
import { deflateRaw, inflateRaw } from 'node:zlib'
import type { FramePicture } from '../../core/frame/engine'
import type { AlphaPlane } from './encoders/encoder'
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
    const { values } = alphaOf(pixels, this.bits)
    const packed = await pack(new Uint8Array(values.buffer), { level: 1 })
    await this.file.write(packed, 0, packed.length, this.end)
    this.entries.push({ at: this.end, length: packed.length })
    this.end += packed.length
  }

  /** Alpha of a frame as it was entered. */
  async alpha(frame: number): Promise<AlphaPlane> {
    const { at, length } = this.entries[frame]!
    const packed = Buffer.allocUnsafe(length)
    await this.file.read(packed, 0, length, at)
    const bytes = new Uint8Array(await unpack(packed))
    return this.bits === 8 ? { values: bytes, top: 255 } : { values: new Uint16Array(bytes.buffer), top: 65535 }
  }

  async close(): Promise<void> {
    await this.file.close()
    await rm(this.path, { force: true })
  }
}

export const hashOf = (pixels: Uint8Array): string => createHash('sha256').update(pixels).digest('hex')
