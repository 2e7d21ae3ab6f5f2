/** Long work that says how far it is. */
import { proxy } from 'comlink'

/**
 * Asks a worker with a callback for its reports. They come by another port than the answer, so that one can arrive
 * after it, and would say that the work still goes on: a report is heard until the answer is there, and not after.
 */
export async function reported<Report, Asked extends Promise<unknown>>(
  onReport: (report: Report) => void,
  ask: (report: (report: Report) => void) => Asked,
): Promise<Awaited<Asked>> {
  let isAnswered = false
  try {
    return await ask(
      proxy((report: Report) => {
        if (!isAnswered) onReport(report)
      }),
    )
  } finally {
    isAnswered = true
  }
}
