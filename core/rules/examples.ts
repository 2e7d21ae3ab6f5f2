/** Runs a rule's example as the application would run a page; used by the runner's test and the rule reference. */
import { compileKeyword } from '../words/match.ts'
import { applyDraft } from '../page/proof.ts'
import type { PageFacts } from '../page/read/facts.ts'
import { readPage } from '../page/read/read-page.ts'
import type { Served } from '../page/source/served.ts'
import { readSource, type Source } from '../page/source/source.ts'
import { addressOf } from '../addresses/addresses.ts'
import { movesOf, type SlugEdit } from '../site/moves.ts'
import { emptyIndex, entryOf, updateIndex, type SiteIndex } from '../site/site-index.ts'
import { readHouseStyle, defaultStyle } from './house-style.ts'
import { resolveRepair } from './resolve.ts'
import type { Example, Mark, Rule, SiteMark } from './rule.ts'
import { auditPage, auditSite } from './runner.ts'

export interface ExampleRun {
  text: string
  page: PageFacts
  marks: Mark[]
  siteMarks: SiteMark[]
  /** The same page with the first mark's repair applied; null where none is offered. */
  repaired: (() => ExampleRun) | null
}

function sourceFrom(html: string, served: Served | null = null): Source {
  const result = readSource(new TextEncoder().encode(html === '' ? '<p>' : html), served)
  if (!result.ok) throw new Error(result.why)
  return result.source
}

/** `only` limits the rules that run; the whole catalogue when left out. */
export function runExample(given: string | Example, only?: Rule, edited?: Source): ExampleRun {
  const example: Example = typeof given === 'string' ? { html: given } : given
  const base = 'https://site.example/'
  const path = example.path ?? 'page.html'
  const pages = { [path]: example.html, ...example.pages }
  const url = example.url ?? addressOf(path, base)
  const served = example.served ? servedBy(example.served, url) : null
  const site: SiteIndex = emptyIndex(
    base,
    true,
    [...Object.keys(pages), ...Object.keys(example.files ?? {})].map((p) => [p, p] as const),
    {
      pages: [{ id: path, url, file: null, served, partial: null }],
      sitemap: example.sitemap ?? null,
      marksMentions: true,
      sizes: new Map(Object.entries(example.files ?? {})),
    },
  )
  const style = example.style === undefined ? defaultStyle : styleOf(example.style)
  const source = edited ?? sourceFrom(example.html, served)
  const main = style.main
  const page = readPage(source, { path, url, main })
  for (const [other, html] of Object.entries(pages)) {
    const isExample = other === path
    const read = isExample
      ? page
      : readPage(sourceFrom(html), { path: other, url: addressOf(other, base), main })
    const keyword = (isExample ? example.keywords : example.others?.[other])?.primary
    updateIndex(
      site,
      other,
      entryOf(other, read, site, keyword ? compileKeyword(keyword, read.lang ?? style.language) : null),
    )
  }
  const date = example.date ?? '2026-11-23'
  const rules = only ? new Set([only.id]) : undefined
  const marks = auditPage(page, site, style, { date, keywords: example.keywords ?? null, only: rules })
  const repair = marks.find((m) => m.repair)?.repair
  return {
    text: source.text,
    page,
    marks,
    siteMarks: auditSite(site, style, date, rules),
    repaired: repair
      ? () => {
          const { edits } = resolveRepair({ source, changes: [], refused: [] }, repair)!
          const proof = applyDraft(source, edits)
          if (proof.refused.length > 0)
            throw new Error(`Refused: ${proof.refused.map((r) => r.why).join(' ')}`)
          const { slug } = edits
          if (slug) return runExample(renamed(example, path, slug as SlugEdit, base), only, proof.source)
          return runExample(example, only, proof.source)
        }
      : null,
  }
}

/** The example with its page at the address that a repair gives it. */
function renamed(example: Example, path: string, slug: SlugEdit, base: string): Example {
  const moves = movesOf([path, ...Object.keys(example.pages ?? {})], new Map([[path, slug]]), base)
  const refused = moves.refused[0]
  if (refused) throw new Error(`Refused: ${refused.why}`)
  return { ...example, path: moves.paths.get(path) ?? path }
}

const servedBy = (said: Partial<Served>, address: string): Served => ({
  status: 200,
  address,
  redirects: [],
  contentType: 'text/html',
  charset: null,
  robots: [],
  canonical: null,
  date: '2026-11-23',
  ...said,
})

function styleOf(input: unknown) {
  const result = readHouseStyle(input)
  if (!result.ok) throw new Error(result.why)
  return result.style
}
