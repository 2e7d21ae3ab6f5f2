import { rule } from '../rule.ts'

/** No main landmark, or several that are seen. */
export const shellMain = rule({
  id: 'shell-main',
  family: 'shell',
  shownOn: { head: 'landmarks' },
  severity: 'nit',
  sign: 'missing',
  name: 'The page needs exactly one main landmark',
  basis: 'WHATWG HTML 4.4.14, the main element',
  why: 'A screen reader’s shortcut to the main content leads nowhere, or to the wrong place.',
  mend: 'Put what belongs to this page alone in one main element.',
  needs: ['text'],
  message: ({ count, by }) =>
    count === 0
      ? `No main element or role="main"; the content was found ${by}.`
      : `${count} main landmarks are visible; one is expected.`,
  check({ page }, mark) {
    const mains = page.landmarks.filter((l) => l.landmark === 'main' && !l.hidden)
    if (mains.length === 1) return
    const by = {
      article: 'in the only article',
      density: 'where most of the text is',
      chosen: 'where the house style says',
    }[page.main.by as string]
    mark(mains[1] ?? null, { count: mains.length, by: by ?? 'by leaving out headers, menus and footers' })
  },
  examples: {
    clean: ['<main>x</main>', '<div role=main>x</div>', '<main>x</main><main hidden>y</main>'],
    marked: [
      { html: '<p>x</p>', at: null, says: /No main element/ },
      { html: '<article>x</article>', says: /in the only article/ },
      { html: '<main>x</main><main>y</main>', at: '<main>y', says: /2 main landmarks/ },
    ],
  },
})
