import { useNotices } from '~/stores/notices'
import type { useHistory } from './history'

interface Saved {
  id: { value: string }
}

/** What was done before and never saved is offered back, as a step like any other: it can be undone. */
export function offerUnsaved<T>(history: ReturnType<typeof useHistory<T>>, saved: Saved, kept: T): void {
  const id = saved.id.value
  const begun = history.past.value.length
  const action = {
    label: 'Bring it back',
    run: () => history.edit('Brought back what was not saved', () => kept),
    stands: () => saved.id.value === id && history.past.value.length === begun,
  }
  useNotices().say('What you did here last was not saved. It was kept in this browser.', action, true)
}
