import { useNotices } from '~/stores/notices'
import { faultOf } from './api'

/** Uses the file that was chosen in an input; the same one can be chosen again. What goes wrong is told. */
export async function withChosenFile(event: Event, use: (file: File) => unknown): Promise<void> {
  const input = event.target as HTMLInputElement
  const [chosen] = input.files ?? []
  input.value = ''
  if (!chosen) return
  try {
    await use(chosen)
  } catch (error) {
    useNotices().fault(faultOf(error))
  }
}
