import { outlineOf, titleOf } from '../../page/read/facts.ts'
import { decodedPath } from '../../addresses/addresses.ts'
import { publishedYear } from '../../structured-data/things.ts'
import { rule } from '../rule.ts'

/** A year that is over, in a title that means to be current. */
export const titleStaleYear = rule({
  id: 'title-stale-year',
  family: 'title',
  severity: 'nit',
  sign: 'too-much',
  name: 'Past year in the title',
  basis: 'common practice, no source',
  why: 'A page with a past year in its title looks out of date.',
  mend: 'Write this year, or the token {year}, which stays current by itself.',
  needs: ['title'],
  message: ({ year, now }) => `The title says ${year}; it is now ${now}.`,
  check({ page, date }, mark) {
    const title = titleOf(page)
    const now = date.slice(0, 4)
    for (const [year] of title?.text.matchAll(/(?<!\d)20\d\d(?!\d)/g) ?? []) {
      if (year >= now) continue
      const meant =
        decodedPath(page.url).includes(year) ||
        outlineOf(page).some((h) => h.level === 1 && h.text.includes(year)) ||
        publishedYear(page) === year
      if (!meant) return mark(title, { year, now })
    }
  },
  examples: {
    clean: [
      '<title>Crossings in 2026</title>',
      '<title>The storm of 1861</title>',
      { html: '<title>The storm of 2019</title>', path: 'storm-2019.html' },
      '<title>The storm of 2019</title><h1>What 2019 took</h1>',
      '<title>The storm of 2019</title><script type=application/ld+json>{"@type":"Article","datePublished":"2019-12-01"}</script>',
    ],
    marked: [
      { html: '<title>Crossings in 2024</title>', at: '<title', says: /The title says 2024; it is now 2026/ },
    ],
  },
})
