import { compileKeyword, findKeyword, hasKeyword, type Keyword } from '../../words/match.ts'
import { eachWord, languageOf } from '../../words/stem.ts'
import type { PageFacts } from '../../page/read/facts.ts'
import { idAt, type SiteIndex } from '../../site/site-index.ts'
import { rule } from '../rule.ts'

/** More of them say no more. */
const MOST = 20

/** The text speaks of what another page is for, and does not lead there. */
export const linkOpportunity = rule({
  id: 'link-opportunity',
  family: 'text',
  shownOn: { galley: 'text', links: 'mentions' },
  severity: 'nit',
  sign: 'missing',
  name: 'Mention without a link',
  basis: 'common practice, no source',
  why: 'Readers who want to know more would follow a link, and so would search engines.',
  mend: 'Link the words to the page that is about them.',
  needs: ['text', 'links'],
  message: ({ phrase, path }) =>
    `The text speaks of “${phrase}” and does not link to ${path}, which is about it.`,
  check({ page, site, style }, mark) {
    // Every page is compared with every keyword: only where somebody asks for it.
    if (!site.marksMentions || site.byKeyword.size === 0) return
    const lang = page.lang ?? style.language
    const stems = stemsOf(page.main.text, lang)
    const linked = linkedPages(page, site)
    const linkTexts = page.links.map((link) => link.text)
    let marked = 0
    for (const ids of site.byKeyword.values()) {
      if (marked === MOST) return
      const [first] = ids
      const target = site.entries.get(first!)
      if (!target?.phrase || ids.has(idOf(page, site)) || [...ids].some((id) => linked.has(id))) continue
      const keyword = compiled(target.phrase, lang)
      if (keyword.stems.length === 0 || !keyword.stems.every((stem) => stems.has(stem))) continue
      const matches = findKeyword(page.main.text, keyword).length
      const inLinks = matches === 0 ? 0 : linkTexts.filter((text) => hasKeyword(text, keyword)).length
      if (matches <= inLinks) continue
      marked++
      mark(null, { phrase: target.phrase, path: target.path })
    }
  },
  examples: {
    clean: [
      {
        html: '<html lang=en><main><p>Take a <a href="b.html">knot course</a> with us.</main>',
        pages: { 'b.html': '<html lang=en>' },
        others: { 'b.html': { primary: 'knot course', secondary: [] } },
      },
      {
        html: '<html lang=en><main><p>Take a knot course, or <a href="b.html">ask</a>.</main>',
        pages: { 'b.html': '<html lang=en>' },
        others: { 'b.html': { primary: 'knot course', secondary: [] } },
      },
      {
        html: '<html lang=en><main><p>Take a knot course.</main>',
        keywords: { primary: 'knot course', secondary: [] },
      },
    ],
    marked: [
      {
        html: '<html lang=en><main><p>Courses in knots begin in May.</main>',
        pages: { 'b.html': '<html lang=en>' },
        others: { 'b.html': { primary: 'knot course', secondary: [] } },
        at: null,
        says: /speaks of “knot course” and does not link to b\.html/,
      },
    ],
  },
})

const idOf = (page: PageFacts, site: SiteIndex) => idAt(site, page.url) ?? ''

function linkedPages(page: PageFacts, site: SiteIndex): Set<string> {
  const linked = new Set<string>()
  for (const { url } of page.links) {
    const id = url === null ? undefined : idAt(site, url)
    if (id !== undefined) linked.add(id)
  }
  return linked
}

function stemsOf(text: string, lang: string | null): Set<string> {
  const { stemAsWritten } = languageOf(lang)
  const stems = new Set<string>()
  eachWord(text, (start, end) => stems.add(stemAsWritten(text.slice(start, end))))
  return stems
}

const MOST_COMPILED = 20_000
const known = new Map<string, Keyword>()
/** A phrase made ready for a language, once for all pages. */
function compiled(phrase: string, lang: string | null): Keyword {
  const key = `${lang} ${phrase}`
  let keyword = known.get(key)
  if (!keyword) {
    if (known.size > MOST_COMPILED) known.clear()
    known.set(key, (keyword = compileKeyword(phrase, lang)))
  }
  return keyword
}
