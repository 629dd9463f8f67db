import { nanoid } from 'nanoid'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Fault } from '#core/errors'
import type { Roster } from '#core/rosters/roster'
import { api } from '~/composables/api'
import type { SaveState } from '~/composables/document-saver'
import { DocumentSaver } from '~/composables/document-saver'
import type { WholeRoster } from './rosters'

/** What is saved of a roster. */
interface Desk {
  roster: Roster
  cardId: string | null
}

interface Step {
  label: string
  roster: Roster
}

/** The roster that is open: its document, history and saving. */
export const useRoster = defineStore('roster', () => {
  const id = ref('')
  const desk = shallowRef<Desk | null>(null)
  const past = shallowRef<Step[]>([])
  const future = shallowRef<Step[]>([])
  const saveState = ref<SaveState>('saved')
  const saveFault = ref<Fault | null>(null)
  const revision = ref(0)
  let saver: DocumentSaver<Desk> | null = null

  async function open(rosterId: string) {
    close()
    const row = await api<WholeRoster>(`/rosters/${rosterId}`)
    id.value = row.id
    desk.value = { roster: row.document, cardId: row.cardId }
    past.value = []
    future.value = []
    const road = {
      send: (
        to: string,
        { document, ...rest }: { save: string; document: Desk; revision: number; takeOver?: true },
      ): Promise<{ revision: number }> =>
        api(`/rosters/${to}`, 'PUT', { document: document.roster, cardId: document.cardId, ...rest }),
      newId: () => nanoid(16),
      later: (ms: number, work: () => void) => {
        const timer = setTimeout(work, ms)
        return () => clearTimeout(timer)
      },
    }
    saver = new DocumentSaver(row.id, row.revision, desk.value, road, follow)
    follow(saver)
  }

  function follow(one: DocumentSaver<Desk>) {
    if (saver && one !== saver) return
    revision.value = one.revision
    saveState.value = one.state
    saveFault.value = one.fault
  }

  function put(next: Desk) {
    desk.value = next
    saver?.change(next)
  }

  /** Changes the roster as one named step. */
  function edit(label: string, change: (roster: Roster) => Roster) {
    const before = desk.value
    if (!before) return
    const roster = change(before.roster)
    if (roster === before.roster) return
    past.value = [...past.value, { label, roster: before.roster }]
    future.value = []
    put({ ...before, roster })
  }

  function travel(from: typeof past, to: typeof past) {
    const step = from.value.at(-1)
    if (!step || !desk.value) return
    from.value = from.value.slice(0, -1)
    to.value = [...to.value, { label: step.label, roster: desk.value.roster }]
    put({ ...desk.value, roster: step.roster })
  }
  const undo = () => travel(past, future)
  const redo = () => travel(future, past)

  /** The card that the rows are filled into. */
  function fillInto(cardId: string | null) {
    if (desk.value && desk.value.cardId !== cardId) put({ ...desk.value, cardId })
  }

  const save = async () => (await saver?.flush()) ?? true
  const takeOver = () => saver?.takeOver()

  /** What is not saved goes on its way. */
  function close() {
    void saver?.flush()
    saver = null
    desk.value = null
  }

  const hasUnsaved = () => saver?.hasUnsaved ?? false

  return {
    ...{ id, desk, past, future, saveState, saveFault, revision },
    ...{ open, edit, undo, redo, fillInto, save, takeOver, close, hasUnsaved },
  }
})
