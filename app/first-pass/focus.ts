/** Setting the focus in a view that is only just opening. */

/** So long a view may take; whoever waits longer has gone elsewhere. */
const MOST_MS = 15_000
let stop = () => {}

/** Focuses what a selector finds once it is there, unless something else was asked for or focused meanwhile. */
export function focusWhenThere(selector: string): void {
  stop()
  const from = document.activeElement
  const observer = new MutationObserver(() => look())
  const timer = setTimeout(() => stop(), MOST_MS)
  stop = () => {
    observer.disconnect()
    clearTimeout(timer)
  }
  const look = () => {
    const now = document.activeElement
    // A button that is gone leaves the focus to the page.
    if (now !== from && now !== document.body && now !== null) return stop()
    const target = document.querySelector<HTMLElement>(selector)
    if (!target) return
    stop()
    target.focus()
  }
  observer.observe(document.body, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ['data-ready'],
  })
  // The view before may have such a place as well: the new one is drawn first.
  requestAnimationFrame(() => requestAnimationFrame(look))
}
