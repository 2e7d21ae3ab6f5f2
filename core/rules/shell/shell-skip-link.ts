import type { Landmark, PageFacts } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

const shown = (page: PageFacts, landmark: Landmark) =>
  page.landmarks.find((l) => l.landmark === landmark && !l.hidden)

/** Whether one of the first things that the Tab key reaches leads past the menu, to the main content. */
export function leadsPastMenu(page: PageFacts): boolean {
  const main = shown(page, 'main')
  const nav = shown(page, 'nav')
  if (!main) return false
  const ids = new Map(page.ids.map((i) => [i.id, i.start]))
  return page.focusables.some(({ href, start }) => {
    if (!href?.startsWith('#') || href.length < 2) return false
    let fragment = href.slice(1)
    try {
      fragment = decodeURIComponent(fragment)
    } catch {
      // Taken as it is written.
    }
    const target = ids.get(fragment)
    return (
      target !== undefined && target > start && target > (nav?.start ?? -1) && target <= (main.end ?? target)
    )
  })
}

/** A menu before the content, and no link past it. */
export const shellSkipLink = rule({
  id: 'shell-skip-link',
  family: 'shell',
  shownOn: { head: 'landmarks' },
  severity: 'nit',
  sign: 'missing',
  name: 'No skip link',
  basis: 'WCAG 2.2, 2.4.1; technique G1',
  why: 'Readers who use the keyboard must go through the whole menu on every page.',
  mend: 'Make the first link of the page lead to the main content.',
  needs: ['text'],
  message: () => 'A menu comes before the main content, and none of the first links skips it.',
  check({ page }, mark) {
    const main = shown(page, 'main')
    const nav = shown(page, 'nav')
    if (!main || !nav || nav.start > main.start) return
    if (!leadsPastMenu(page))
      mark(
        nav,
        {},
        {
          label: 'Add a skip link',
          edits: [{ target: 'skip', edit: { value: 'To the content' } }],
          judgement: true,
        },
      )
  },
  examples: {
    clean: [
      '<body><a href="#main">To the content</a><nav>x</nav><main id=main>y</main>',
      '<main>y</main><nav>x</nav>',
      '<body><a href="/">Home</a><a href="#c">Skip</a><nav>x</nav><main><h1 id=c>y</h1></main>',
    ],
    marked: [
      { html: '<body><nav><a href=a>A</a></nav><main>y</main>', at: '<nav', says: /A menu comes before/ },
      {
        html: '<body><a href="#gone">Skip</a><nav>x</nav><main id=main>y</main>',
        says: /none of the first links/,
      },
    ],
  },
})
