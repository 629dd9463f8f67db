import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Fault } from '#core/errors'

export interface NoticeAction {
  label: string
  run: () => unknown
  /** Where it is about the page that is open: whether it may still be done. */
  stands?: () => boolean
}

interface Notice {
  text: string
  remedy?: string
  bad: boolean
  /** Whether it stays until something is done: what it offers is offered once. */
  lasts?: boolean
  action?: NoticeAction
}

/** Short messages at the foot of the window: what was done and can be undone, or what went wrong. */
export const useNotices = defineStore('notices', () => {
  const current = ref<Notice | null>(null)

  function say(text: string, action?: NoticeAction, lasts = false) {
    current.value = { text, bad: false, ...(lasts ? { lasts } : {}), ...(action ? { action } : {}) }
  }

  function fault({ message, remedy }: Pick<Fault, 'message' | 'remedy'>) {
    current.value = { text: message, remedy, bad: true }
  }

  return { current, say, fault }
})
