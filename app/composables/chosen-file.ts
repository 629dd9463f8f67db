import { useNotices } from '~/stores/notices'
import { faultOf } from './api'

/** The files that were chosen in an input, which can be chosen again. */
export function chosenFiles(event: Event): File[] {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  return files
}

/** Uses the file that was chosen; what goes wrong is told. */
export async function withChosenFile(event: Event, use: (file: File) => unknown): Promise<void> {
  const [chosen] = chosenFiles(event)
  if (!chosen) return
  try {
    await use(chosen)
  } catch (error) {
    useNotices().fault(faultOf(error))
  }
}
