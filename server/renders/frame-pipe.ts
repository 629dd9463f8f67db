import { execFileSync } from 'node:child_process'
import { closeSync, constants, mkdtempSync, openSync, rmSync } from 'node:fs'
import type { OnReadOpts, SocketConstructorOpts } from 'node:net'
import { Socket } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/**
 * A pipe from a program, for frames. What comes out of a child's own output is a new buffer for every 64 KB: at gigabytes a second
 * most of the time goes into clearing them away. Here it is read right into where it stays.
 */
export class FramePipe {
  /** What the program is to have as its output. */
  readonly writeEnd: number
  private readonly readEnd: number

  constructor() {
    const folder = mkdtempSync(join(tmpdir(), 'wax-pipe-'))
    try {
      const path = join(folder, 'frames')
      execFileSync('mkfifo', [path])
      // Opened for reading first: to open it for writing waits for somebody who reads.
      this.readEnd = openSync(path, constants.O_RDONLY | constants.O_NONBLOCK)
      this.writeEnd = openSync(path, constants.O_WRONLY)
    } finally {
      rmSync(folder, { recursive: true })
    }
  }

  /** To be called when the program has it: as long as somebody can write, there is no end. */
  closeWriteEnd(): void {
    closeSync(this.writeEnd)
  }

  /** What was written, cut into frames of so many bytes; what is left at the end is left out. A frame is good until the next one. */
  async *frames(bytes: number): AsyncGenerator<Buffer> {
    // While one is looked at, the other is filled.
    const buffers = [Buffer.from(new ArrayBuffer(bytes)), Buffer.from(new ArrayBuffer(bytes))] as const
    let filled = 0
    let into: 0 | 1 = 0
    let full: Buffer | null = null
    let isLooked = false
    let ended = false
    let wake = () => {}
    const onread: OnReadOpts = {
      buffer: () => buffers[into].subarray(filled),
      callback: (count) => {
        filled += count
        if (filled < bytes) return true
        full = buffers[into]
        filled = 0
        into = into === 0 ? 1 : 0
        wake()
        return !isLooked
      },
    }
    // Node takes `onread` with a descriptor too; its types know it of connections alone.
    const options: SocketConstructorOpts & { onread: OnReadOpts } = {
      ...{ fd: this.readEnd, readable: true, writable: false },
      onread,
    }
    const socket = new Socket(options)
    socket.on('error', () => {
      // The program’s own last words tell more.
    })
    socket.on('close', () => {
      ended = true
      wake()
    })
    // Else the end is not told where there is nothing before it.
    socket.resume()
    try {
      for (;;) {
        while (!full && !ended) await new Promise<void>((go) => (wake = go))
        if (!full) return
        const frame: Buffer = full
        full = null
        isLooked = true
        socket.resume()
        yield frame
        isLooked = false
      }
    } finally {
      socket.destroy()
    }
  }
}
