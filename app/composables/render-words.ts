import type { RenderOptions } from '#core/formats/deliveries/render-options'
import { deliveryOf } from '#core/formats/deliveries/table'
import { rateLabel } from '#core/values/rate'
import type { RenderRow } from '~/stores/renders'
import type { Pace } from './pace'
import { inWords } from './pace'

/** A delivery with how deep it is, where that can be chosen. */
export function deliveryWords(options: RenderOptions): string {
  const { label, options: table } = deliveryOf(options.format)
  const bits = table.bits?.kind === 'choice' ? table.bits.choices.find(({ value }) => value === options.bits) : null
  return bits ? `${label}, ${bits.label}` : label
}

/** What a render is, in short. */
export function aboutRender({ options, frame, rate, framesTotal }: RenderRow): string {
  const size = `${Math.round(frame.width * options.scale)}×${Math.round(frame.height * options.scale)}`
  const frames = framesTotal === 1 ? 'one frame' : `${rateLabel(rate)} fps · ${framesTotal} frames`
  return `${deliveryWords(options)} · ${size} · ${frames}`
}

export const rateWords = (pace: Pace | undefined): string[] =>
  pace?.rate && pace.left !== null
    ? [
        `${pace.rate >= 10 ? Math.round(pace.rate) : pace.rate.toFixed(1)} frames a second`,
        `${inWords(pace.left)} left`,
      ]
    : []

export const sizeWords = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} KB` : `${(bytes / 1e6).toFixed(1)} MB`

/** What the badge of a checked render says: nothing of a single check. */
export function badgeWords({ report }: RenderRow): { title: string; more: string } {
  if (!report?.alpha) return { title: 'Checked, no transparency', more: 'read again and held against the frames' }
  const { largest, mean } = report.alpha
  const off =
    largest === 0
      ? 'alpha is the same everywhere'
      : `alpha off by ${largest.toFixed(2)} at most, ${mean.toFixed(3)} on average, of 255`
  return { title: 'Transparency verified', more: off }
}
