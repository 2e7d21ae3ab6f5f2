import * as Comlink from 'comlink'
import { toast } from 'sonner'
import type { ConformanceApi } from './conformance.worker.ts'
import type { CoreApi } from './core.worker.ts'
import { supervised, type Watched } from './supervised.ts'

export { WorkerStopped } from './supervised.ts'

function watched<Api extends { ping(): Promise<true> }>(worker: Worker): Watched<Comlink.Remote<Api>> {
  const api = Comlink.wrap<Api>(worker)
  return {
    api,
    ping: () => (api as unknown as { ping(): Promise<true> }).ping(),
    end: () => worker.terminate(),
    onDeath: (died) =>
      worker.addEventListener('error', (event) => died(`It broke (${event.message || 'no reason given'}).`), {
        once: true,
      }),
  }
}

let opened: Parameters<CoreApi['openSite']> | null = null
let remote: Comlink.Remote<CoreApi> | null = null

/** The worker, started when it is first needed, and again when it had to be ended; browser only. */
export function core(): Comlink.Remote<CoreApi> {
  remote ??= supervised(
    () => watched<CoreApi>(new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' })),
    {
      // The site that was open is opened in the new one; its pages are judged when they are asked for.
      ready: async (api) => opened && (await api.openSite(opened[0], opened[1], true)),
      onStop: (why) =>
        toast.error(`The page checker had to be restarted. ${why} Your work is safe.`, {
          duration: 20_000,
        }),
    },
  )
  return remote
}

/** Opens a site in the worker, and in every worker that takes its place. */
export function openInWorker(
  ...args: Parameters<CoreApi['openSite']>
): ReturnType<Comlink.Remote<CoreApi>['openSite']> {
  opened = args
  return core().openSite(...args)
}

let checker: Comlink.Remote<ConformanceApi> | null = null

/** The worker that looks through a whole page's HTML, started when it is first asked for. */
export function conformance(): Comlink.Remote<ConformanceApi> {
  checker ??= supervised(
    () =>
      watched<ConformanceApi>(
        new Worker(new URL('./conformance.worker.ts', import.meta.url), { type: 'module' }),
      ),
    { ready: async () => {}, onStop: () => {} },
  )
  return checker
}
