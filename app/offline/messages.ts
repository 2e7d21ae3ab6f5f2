/** What a tab and a service worker that is waiting say to each other. */

/** To take the place of the version that runs. */
export type ToWorker = 'replace'
/** How many tabs are open; it takes its place only where there is one. */
export interface WorkerAnswer {
  tabs: number
}
