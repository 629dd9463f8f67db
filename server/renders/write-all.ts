import type { FileHandle } from 'node:fs/promises'

/**
 * Writes all of some bytes, at a place or after those written before. The system may take a part only, as where the disk is nearly
 * full; then the rest says that it is.
 */
export async function writeAll(file: FileHandle, bytes: Uint8Array, at: number | null): Promise<void> {
  for (let done = 0; done < bytes.length;) {
    const place = at === null ? null : at + done
    const { bytesWritten } = await file.write(bytes, done, bytes.length - done, place)
    done += bytesWritten
  }
}
