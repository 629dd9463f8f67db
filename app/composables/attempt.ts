import type { Fault } from '#core/errors'
import { useNotices } from '~/stores/notices'
import { faultOf } from './api'

/** Does work whose failure is told as a notice; or, where a place of its own shows it, there. */
export async function attempt(
  work: () => Promise<unknown>,
  failed: (fault: Fault) => void = (fault) => useNotices().fault(fault),
): Promise<void> {
  try {
    await work()
  } catch (error) {
    failed(faultOf(error))
  }
}
