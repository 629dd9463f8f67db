import type { KeyPlace } from '#core/edit/keys'
import { copyKeys, easeKeys, moveKeys, pasteKeys, removeKeys, reverseKeys, spreadKeys } from '#core/edit/keys'
import type { Card } from '#core/card/schema'
import { useBench } from '~/stores/bench'
import { useClipboard } from '~/stores/clipboard'
import { useRibbonTime } from './ribbon-time'
import { useRibbon } from '~/stores/ribbon'

/** What hands do with the keys that are selected; used by the ribbon and by the keyboard. */
export function useKeyWork() {
  const bench = useBench()
  const ribbon = useRibbon()
  const clipboard = useClipboard()
  const time = useRibbonTime()

  const counted = () => (ribbon.keys.length === 1 ? 'a key' : `${ribbon.keys.length} keys`)

  /** An edit after which other frames hold the selected keys. */
  function change(label: string, work: (card: Card) => { card: Card; keys: KeyPlace[] }, mark = '') {
    let keys: readonly KeyPlace[] = ribbon.keys
    bench.edit(
      label,
      (card) => {
        const done = work(card)
        keys = done.keys
        return done.card
      },
      mark,
    )
    ribbon.keys = keys
  }

  const nudge = (by: number) => change(`Move ${counted()}`, (card) => moveKeys(card, ribbon.keys, by), 'keys/nudge')
  const reverse = () => change(`Reverse ${counted()}`, (card) => reverseKeys(card, ribbon.keys))
  /** About the playhead. */
  const spread = (factor: number) =>
    change(`${factor > 1 ? 'Spread' : 'Squeeze'} ${counted()}`, (card) =>
      spreadKeys(card, ribbon.keys, time.frame.value, factor),
    )

  function ease(easing: string, mark = '') {
    bench.edit(`Ease ${counted()}`, (card) => easeKeys(card, ribbon.keys, easing), mark)
  }

  function remove() {
    bench.edit(`Take ${counted()} away`, (card) => removeKeys(card, ribbon.keys))
    ribbon.keys = []
  }

  const copy = () => clipboard.keepKeys(copyKeys(bench.card!, ribbon.keys))

  /** At the playhead, on the selected pieces; without any on the lanes that the keys came from. */
  function paste() {
    const clip = clipboard.keys
    if (clip) change('Paste keys', (card) => pasteKeys(card, clip, bench.selection, time.frame.value))
  }

  return { nudge, reverse, spread, ease, remove, copy, paste }
}
