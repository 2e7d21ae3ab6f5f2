import * as Comlink from 'comlink'
import type { CoreApi } from './core.worker.ts'

let remote: Comlink.Remote<CoreApi> | null = null

/** The worker, started when it is first needed; browser only. */
export function core(): Comlink.Remote<CoreApi> {
  remote ??= Comlink.wrap<CoreApi>(
    new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' }),
  )
  return remote
}

/** A callback that the worker may call. */
export const callback = Comlink.proxy
