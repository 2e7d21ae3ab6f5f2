/** Calls to a worker that may die, or never answer: every call gets an answer or an error, and the next one a new worker. */

/** Said to whoever waits for a worker that was ended. */
export class WorkerStopped extends Error {
  override readonly name = 'WorkerStopped'
}

/** A worker as it is watched. */
export interface Watched<Api> {
  api: Api
  /** Answers as soon as the worker has time. */
  ping(): Promise<unknown>
  end(): void
  /** Calls back once if the worker dies by itself. */
  onDeath(died: (why: string) => void): void
}

export interface Watch {
  /** Milliseconds between two looks, and so many looks in a row without an answer end the worker. */
  every: number
  most: number
}
/**
 * Ten seconds, six times: a worker that does not answer for a minute is stuck. Looks are counted, not clocks read:
 * a machine that slept has not looked. Common practice, no source.
 */
export const patience: Watch = { every: 10_000, most: 6 }

type Calls = Record<string, (...args: never[]) => Promise<unknown>>

/**
 * An interface to whatever worker is running now. Where one had to be ended, everything asked of it is rejected with
 * `WorkerStopped`, `onStop` is told why, and the next call starts another, which is first made `ready` again.
 */
export function supervised<Api extends object>(
  start: () => Watched<Api>,
  {
    ready,
    onStop,
    watch = patience,
  }: {
    ready(api: Api): Promise<unknown>
    onStop(why: string): void
    watch?: Watch
  },
): Api {
  let running: {
    worker: Watched<Api>
    ready: Promise<unknown>
    waiting: Set<(error: Error) => void>
  } | null = null
  let stops = 0
  let timer: ReturnType<typeof setInterval> | null = null

  function stop(which: typeof running, why: string): void {
    if (!which || which !== running) return
    running = null
    stops++
    if (timer) clearInterval(timer)
    timer = null
    which.worker.end()
    for (const reject of which.waiting) reject(new WorkerStopped(why))
    onStop(why)
  }

  function look(at: NonNullable<typeof running>): void {
    let unanswered = 0
    let asked = false
    timer ??= setInterval(() => {
      if (at.waiting.size === 0) {
        clearInterval(timer!)
        timer = null
        return
      }
      if (asked && ++unanswered >= watch.most)
        return stop(at, `It did not answer for ${(watch.every * watch.most) / 1000} seconds.`)
      if (asked) return
      asked = true
      unanswered = 0
      const answered = () => void (asked = false)
      at.worker.ping().then(answered, answered)
    }, watch.every)
  }

  function current(): NonNullable<typeof running> {
    if (running) return running
    const worker = start()
    const now = {
      worker,
      ready: Promise.resolve() as Promise<unknown>,
      waiting: new Set<(e: Error) => void>(),
    }
    running = now
    worker.onDeath((why) => stop(now, why))
    if (stops > 0) now.ready = within(now, () => ready(worker.api))
    return now
  }

  /** What is asked of a worker, or the error that it was stopped. */
  function within<T>(at: NonNullable<typeof running>, ask: () => Promise<T>): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      at.waiting.add(reject)
      look(at)
      ask()
        .then(resolve, reject)
        .finally(() => at.waiting.delete(reject))
    })
  }

  return new Proxy({} as Api, {
    get: (_, name) =>
      // Nobody waits for the interface itself.
      name === 'then'
        ? undefined
        : (...args: never[]) => {
            const at = current()
            return within(at, () => at.ready.then(() => (at.worker.api as Calls)[name as string]!(...args)))
          },
  })
}
