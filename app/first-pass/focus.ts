/** Setting the focus in a view that is only just opening. */

/** So long a view may take; whoever waits longer has gone elsewhere. */
const MOST_MS = 15_000
let stop = () => {}

/**
 * Focuses what a selector finds once it is there, unless something else was asked for or focused meanwhile. A view that is
 * opening may be drawn anew: what had the focus and is gone is focused again, until a key or a button is pressed.
 */
export function focusWhenThere(selector: string): void {
  stop()
  const from = document.activeElement
  const ended = new AbortController()
  let isFocused = false
  const observer = new MutationObserver(() => look())
  const timer = setTimeout(() => stop(), MOST_MS)
  stop = () => {
    observer.disconnect()
    clearTimeout(timer)
    ended.abort()
  }
  const look = () => {
    const now = document.activeElement
    if (now?.matches(selector)) return untilPressed()
    // A button that is gone leaves the focus to the page.
    if (now !== from && now !== document.body && now !== null) return stop()
    document.querySelector<HTMLElement>(selector)?.focus()
    if (document.activeElement?.matches(selector)) untilPressed()
  }
  const untilPressed = () => {
    if (isFocused) return
    isFocused = true
    const { signal } = ended
    for (const press of ['keydown', 'pointerdown'])
      addEventListener(press, () => stop(), { capture: true, signal })
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
