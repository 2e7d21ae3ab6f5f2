import { toast } from 'sonner'

/** Says what could not be done, and why. */
export const sayFailed = (what: string, error: unknown): void =>
  void toast.error(`${what}: ${error instanceof Error ? error.message : String(error)}`, { duration: 20_000 })

/** Does something that was asked for; where it fails, that is said and nothing else is lost. */
export async function tell(what: string, job: () => Promise<unknown>): Promise<void> {
  try {
    await job()
  } catch (error) {
    sayFailed(what, error)
  }
}
