/**
 * The service worker: keeps every file of one build, and a shell of every view, so that the application opens without its
 * server. Bundled by scripts/setup.mjs, which says what there is to keep. A newer one waits until it is asked for, or until
 * the last tab is closed: no view is ever changed under somebody's hands.
 */
import { clientsClaim } from 'workbox-core'
import { createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import type { ToWorker, WorkerAnswer } from './messages.ts'
import { shellAddresses, shellOf, type BuiltRoute } from './shells.ts'

interface OurWorker {
  clients: { matchAll(of: { type: 'window'; includeUncontrolled: boolean }): Promise<unknown[]> }
  skipWaiting(): Promise<void>
  addEventListener(
    type: 'message',
    listener: (event: MessageEvent & { waitUntil(until: Promise<void>): void }) => void,
  ): void
}
const worker = self as unknown as OurWorker

/** Put in when it is bundled: the files with their revisions, null for a name that holds one; the routes; the build. */
declare const __FILES__: { url: string; revision: string | null }[]
declare const __ROUTES__: BuiltRoute[]
declare const __BUILT__: string

const shells = new Set(shellAddresses(__ROUTES__))
precacheAndRoute([...__FILES__, ...Array.from(shells, (url) => ({ url, revision: __BUILT__ }))], {
  directoryIndex: '',
  cleanURLs: false,
  ignoreURLParametersMatching: [],
})
clientsClaim()

const open = new Map(Array.from(shells, (shell) => [shell, createHandlerBoundToURL(shell)]))
registerRoute(
  new NavigationRoute((about) => {
    const shell = shellOf(about.url.pathname, shells)
    return shell === null ? fetch(about.request) : open.get(shell)!(about)
  }),
)

worker.addEventListener('message', (event) => {
  if ((event.data as ToWorker) !== 'replace') return
  event.waitUntil(
    (async () => {
      const tabs = await worker.clients.matchAll({ type: 'window', includeUncontrolled: true })
      event.ports[0]?.postMessage({ tabs: tabs.length } satisfies WorkerAnswer)
      if (tabs.length <= 1) await worker.skipWaiting()
    })(),
  )
})
