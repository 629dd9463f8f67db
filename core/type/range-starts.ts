import type { LetterRange, RangeValues } from './ranges'

// Ready-made beginnings of letter motion: common entrances, each a range or two whose values can all be changed.

type Values = Partial<Omit<LetterRange, 'id' | 'name' | 'on' | 'sweep'>>

export interface RangeStart {
  id: string
  label: string
  help: string
  ranges: readonly { name: string; values: Values & { form: RangeValues['form'] } }[]
}

const one = (id: string, label: string, help: string, values: Values & { form: RangeValues['form'] }): RangeStart => ({
  ...{ id, label, help },
  ranges: [{ name: label, values }],
})

export const RANGE_STARTS: readonly RangeStart[] = [
  one('rise', 'Rise', 'Letters rise into their places and fade in', { form: 'arrive', y: 90, opacity: 0 }),
  one('drop', 'Drop', 'Letters fall from above and swing to rest', {
    ...{ form: 'arrive', y: -260, opacity: 0, ease: 'swing', spread: 55 },
  }),
  one('grow', 'Grow', 'Letters grow from nothing, past their size and back', {
    ...{ form: 'arrive', scale: 0, ease: 'past', spread: 45 },
  }),
  one('focus', 'Focus', 'Words come out of a blur while they draw together', {
    ...{ form: 'arrive', units: 'words', blur: 18, opacity: 0, tracking: 160, ease: 'soft', spread: 70 },
  }),
  one('scatter', 'Scatter', 'Letters gather in a shuffled order, turning as they come', {
    ...{ form: 'arrive', order: 'shuffle', y: -160, rotation: 75, scale: 160, opacity: 0, spread: 45 },
  }),
  {
    id: 'sides',
    label: 'From both sides',
    help: 'The halves of a line fly in from left and right and meet',
    ranges: [
      { name: 'From the left', values: { form: 'arrive', order: 'backward', to: 50, x: -1400, rotation: 20 } },
      { name: 'From the right', values: { form: 'arrive', from: 50, x: 1400, rotation: -20 } },
    ],
  },
  one('wave', 'Wave', 'A wave of colour lifts one letter after another', {
    ...{ form: 'pass', y: -36, tint: 100, ease: 'soft', spread: 40 },
  }),
]
