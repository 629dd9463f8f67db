import type { RenderFormat } from './options'

/** What is known of each format without its encoder: for the interface and for handing files out. */
export const FILE_TYPES: Record<RenderFormat, { label: string; help: string; ending: string; mediaType: string }> = {
  png: {
    label: 'PNG sequence',
    help: 'One PNG a frame with straight alpha, in a ZIP; every editor reads it, nothing is lost',
    ending: '.zip',
    mediaType: 'application/zip',
  },
  prores4444: {
    label: 'ProRes 4444',
    help: 'MOV with 10-bit colour and alpha, as editors like it; BT.709',
    ending: '.mov',
    mediaType: 'video/quicktime',
  },
}
