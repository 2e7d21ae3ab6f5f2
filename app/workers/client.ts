import * as Comlink from 'comlink'
import { toast } from 'sonner'
import type { CoreApi } from './core.worker.ts'
import { supervised, type Watched } from './supervised.ts'

export { WorkerStopped } from './supervised.ts'

type Remote = Comlink.Remote<CoreApi>

function start(): Watched<Remote> {
  const worker = new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' })
  const api = Comlink.wrap<CoreApi>(worker)
  return {
    api,
    ping: () => api.ping(),
    end: () => worker.terminate(),
    onDeath: (died) =>
      worker.addEventListener('error', (event) => died(`It broke (${event.message || 'no reason given'}).`), {
        once: true,
      }),
  }
}

let opened: Parameters<CoreApi['openSite']> | null = null
let remote: Remote | null = null

/** The worker, started when it is first needed, and again when it had to be ended; browser only. */
export function core(): Remote {
  remote ??= supervised(start, {
    // The site that was open is opened in the new one; its pages are judged when they are asked for.
    ready: async (api) => opened && (await api.openSite(opened[0], opened[1], true)),
    onStop: (why) =>
      toast.error(`The part that judges pages had to be started again. ${why} Your work is safe.`, {
        duration: 20_000,
      }),
  })
  return remote
}

/** Opens a site in the worker, and in every worker that takes its place. */
export function openInWorker(...args: Parameters<CoreApi['openSite']>): ReturnType<Remote['openSite']> {
  opened = args
  return core().openSite(...args)
}

/** A callback that the worker may call. */
export const callback = Comlink.proxy
