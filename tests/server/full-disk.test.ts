import { expect, test } from '@jest/globals'
import { isDiskFull } from '#server/rim/full-disk'
import { faultOf } from '#server/renders/render-fault'

test('a full disk is told as such, whoever met it', () => {
  // As Node says it, and as ffmpeg does.
  const node = Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' })
  const ffmpeg = new Error('ffmpeg stopped with code 1: av_interleaved_write_frame(): No space left on device')
  for (const error of [node, ffmpeg]) {
    expect(isDiskFull(error)).toBe(true)
    expect(faultOf(error)).toMatchObject({ code: 'disk-full', remedy: expect.stringContaining('Free some space') })
  }
  for (const other of [new Error('EACCES: permission denied'), 'words', null]) expect(isDiskFull(other)).toBe(false)
})
