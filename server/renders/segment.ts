import type { FileHandle } from 'node:fs/promises'
import { open, rename, rm } from 'node:fs/promises'
import { digest } from './digest'
import { PACKING, packFrame, unpackFrame } from './packed-frame'
import { writeAll } from './write-all'

// Finished frames put down without loss: frame after frame, packed, and at the end a list of where each lies and the hash of its
// pixels. The last eight bytes tell how long the list is.

interface Entry {
  /** Of the card, not of the run: a hold that is played again is the same frames. */
  frame: number
  at: number
  length: number
  hash: string
}

interface List {
  /** How its frames are packed. */
  packing: string
  entries: Entry[]
}

const FOOT = 8

/** A segment as it grows. Until it is closed it has another name. */
export class SegmentWriter {
  private readonly entries = new Map<number, Entry>()
  private end = 0
  private last: Promise<unknown> = Promise.resolve()

  private constructor(
    private readonly path: string,
    private readonly file: FileHandle,
  ) {}

  static async create(path: string): Promise<SegmentWriter> {
    return new SegmentWriter(path, await open(half(path), 'w+'))
  }

  /** Frames that it has. */
  get count(): number {
    return this.entries.size
  }

  has(frame: number): boolean {
    return this.entries.has(frame)
  }

  hash(frame: number): string {
    return this.entries.get(frame)!.hash
  }

  /** Resolves when the pixels may be forgotten. */
  async add(frame: number, pixels: Uint8Array): Promise<void> {
    const packing = packFrame(pixels)
    const hash = digest(pixels)
    const packed = await packing
    // One after the other, whoever is packed first.
    const written = this.last.then(async () => {
      await writeAll(this.file, packed, this.end)
      this.entries.set(frame, { frame, at: this.end, length: packed.length, hash })
      this.end += packed.length
    })
    this.last = written.catch(() => {})
    await written
  }

  pixels(frame: number): Promise<Uint8Array<ArrayBuffer>> {
    return unpacked(this.file, this.entries.get(frame)!)
  }

  /** As they lie there, packed. */
  packed(frame: number): Promise<Uint8Array> {
    const { at, length } = this.entries.get(frame)!
    return bytesAt(this.file, at, length)
  }

  /** Writes its list and gives it its name. */
  async close(): Promise<void> {
    await this.last
    const list = Buffer.from(JSON.stringify({ packing: PACKING, entries: [...this.entries.values()] } satisfies List))
    const foot = Buffer.alloc(FOOT)
    foot.writeBigUInt64LE(BigInt(list.length))
    await writeAll(this.file, Buffer.concat([list, foot]), this.end)
    await this.file.sync()
    await this.file.close()
    await rename(half(this.path), this.path)
  }

  /** Gives it up and removes it. */
  async abort(): Promise<void> {
    await this.file.close().catch(() => {})
    await rm(half(this.path), { force: true })
  }
}

const half = (path: string) => `${path}.part`

/** A finished segment. */
export class Segment {
  private constructor(
    private readonly file: FileHandle,
    private readonly entries: Map<number, Entry>,
  ) {}

  /** Throws where the file is not whole, or of an application that packed in another way. */
  static async open(path: string): Promise<Segment> {
    const file = await open(path, 'r')
    try {
      const { size } = await file.stat()
      const foot = await bytesAt(file, size - FOOT, FOOT)
      const length = Number(foot.readBigUInt64LE())
      const list = JSON.parse((await bytesAt(file, size - FOOT - length, length)).toString()) as List
      if (list.packing !== PACKING) throw new Error('A segment of frames is packed in another way.')
      return new Segment(file, new Map(list.entries.map((entry) => [entry.frame, entry])))
    } catch (error) {
      await file.close()
      throw error
    }
  }

  has(frame: number): boolean {
    return this.entries.has(frame)
  }

  /** Of all its frames. */
  hashes(): [frame: number, hash: string][] {
    return [...this.entries.values()].map(({ frame, hash }) => [frame, hash])
  }

  hash(frame: number): string {
    return this.entries.get(frame)!.hash
  }

  pixels(frame: number): Promise<Uint8Array<ArrayBuffer>> {
    return unpacked(this.file, this.entries.get(frame)!)
  }

  /** As they lie there, packed. */
  packed(frame: number): Promise<Uint8Array> {
    const { at, length } = this.entries.get(frame)!
    return bytesAt(this.file, at, length)
  }

  close(): Promise<void> {
    return this.file.close()
  }
}

const unpacked = async (file: FileHandle, { at, length }: Entry) => unpackFrame(await bytesAt(file, at, length))

async function bytesAt(file: FileHandle, at: number, length: number): Promise<Buffer> {
  const bytes = Buffer.allocUnsafe(length)
  const { bytesRead } = await file.read(bytes, 0, length, at)
  if (at < 0 || bytesRead < length) throw new Error('A segment of frames is not whole.')
  return bytes
}
