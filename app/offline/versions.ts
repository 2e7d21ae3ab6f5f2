/** The kept application: installed at the first visit, replaced by a newer version when the editor says so. */
import { toast } from 'sonner'
import { plural } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import type { ToWorker, WorkerAnswer } from './messages.ts'

const EVERY_HOUR = 3_600_000
const TOAST = 'new-version'
const READY = 'A new version of Keen Quill is ready. Your work is saved; the page opens again where you are.'

/** Registers the service worker and says when a newer version waits. Once a page load, in a production build. */
export async function keepApplication(): Promise<void> {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return
  // The first worker takes over a page that came from the server; that is no new version.
  let isReplacing = false
  navigator.serviceWorker.addEventListener('controllerchange', () => {
    if (isReplacing) location.reload()
  })
  let registration: ServiceWorkerRegistration | undefined
  try {
    registration = await navigator.serviceWorker.register('/service-worker.js')
  } catch {
    // The server is gone, or the browser keeps no workers: what runs goes on.
  }
  // A browser that is told to keep none may answer with nothing.
  if (registration) watchFor(registration, () => (isReplacing = true))
}

function watchFor(registration: ServiceWorkerRegistration, onReplace: () => void): void {
  const offer = () => {
    const { waiting } = registration
    if (waiting && navigator.serviceWorker.controller)
      offerVersion(() => {
        onReplace()
        return waiting
      })
  }
  const watch = (installing: ServiceWorker | null) =>
    installing?.addEventListener('statechange', () => installing.state === 'installed' && offer())
  offer()
  watch(registration.installing)
  registration.addEventListener('updatefound', () => watch(registration.installing))
  setInterval(() => void registration.update().catch(() => {}), EVERY_HOUR)
}

function offerVersion(begin: () => ServiceWorker, text = READY): void {
  toast(text, {
    id: TOAST,
    duration: Infinity,
    action: {
      label: 'Use it now',
      onClick: (event) => {
        // The offer stays until it is answered: it may have to say that other tabs come first.
        event.preventDefault()
        void tell('The new version could not be used yet', () => replace(begin))
      },
    },
    cancel: { label: 'Later', onClick: () => {} },
  })
}

async function replace(begin: () => ServiceWorker): Promise<void> {
  // What is still being typed goes to the store first. Loaded here: views without a site do without it.
  const { settled } = await import('../session/session.ts')
  await settled()
  const { tabs } = await askWorker(begin(), 'replace')
  if (tabs > 1)
    offerVersion(
      begin,
      `Keen Quill is open in ${plural(tabs - 1, 'more tab')}. Close ${tabs === 2 ? 'it' : 'them'} first, so that nothing changes there while you type.`,
    )
}

function askWorker(worker: ServiceWorker, message: ToWorker): Promise<WorkerAnswer> {
  const { port1, port2 } = new MessageChannel()
  return new Promise((resolve) => {
    port1.onmessage = ({ data }: MessageEvent<WorkerAnswer>) => resolve(data)
    worker.postMessage(message, [port2])
  })
}
