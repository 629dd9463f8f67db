import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { Roster } from '#core/rosters/roster'
import { api, SAVE_LIMIT } from '~/composables/api'
import { useHistory } from '~/composables/history'
import { useSavedDocument } from '~/composables/saved-document'
import { offerUnsaved } from '~/composables/unsaved-offer'
import type { WholeRoster } from './rosters'

/** What is saved of a roster. */
interface Desk {
  roster: Roster
  cardId: string | null
}

/** The roster that is open: its document, history and saving. */
export const useRoster = defineStore('roster', () => {
  const desk = shallowRef<Desk | null>(null)
  const history = useHistory<Roster>({
    now: () => desk.value?.roster ?? null,
    put: (roster) => put({ ...desk.value!, roster }),
  })
  const saved = useSavedDocument<Desk>({
    kind: 'roster',
    load: async (one) => {
      const { id, revision, document, cardId } = await api<WholeRoster>(`/rosters/${one}`)
      return { id, revision, document: { roster: document, cardId } }
    },
    send: (one, { document, ...rest }) =>
      api(`/rosters/${one}`, 'PUT', { document: document.roster, cardId: document.cardId, ...rest }, SAVE_LIMIT),
    show: (_, document) => {
      desk.value = document
      history.begin()
    },
    found: (kept) => offerUnsaved(history, saved, (kept.document as Desk).roster),
  })

  function put(next: Desk) {
    desk.value = next
    saved.change(next)
  }

  /** The card that the rows are filled into. */
  function fillInto(cardId: string | null) {
    if (desk.value && desk.value.cardId !== cardId) put({ ...desk.value, cardId })
  }

  /** What is not saved goes on its way. */
  function close() {
    void saved.save()
    saved.park()
    desk.value = null
  }

  return {
    ...{ id: saved.id, desk, past: history.past, future: history.future },
    ...{ saveState: saved.saveState, saveFault: saved.saveFault, revision: saved.revision },
    ...{ open: saved.open, edit: history.edit, undo: history.undo, redo: history.redo, fillInto },
    ...{ save: saved.save, takeOver: saved.takeOver, close, hasUnsaved: saved.hasUnsaved },
    isOpen: computed(() => desk.value !== null),
  }
})
