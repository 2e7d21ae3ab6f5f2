/** `quill audit`: every page judged and reported as it comes, so that a large site is never in memory whole. */
import { parseArgs } from 'node:util'
import about from '../package.json' with { type: 'json' }
import { pageReport, siteMarkReport, type PageReport, type Report } from '../core/exchange/audit-report.ts'
import { compileKeyword, type Keywords } from '../core/words/match.ts'
import { measure } from '../core/measure/snippet.ts'
import { onePage, pageFrom, type Outcome } from '../core/page/read/boundary.ts'
import { descriptionOf, titleOf } from '../core/page/read/facts.ts'
import { defaultStyle } from '../core/rules/house-style.ts'
import { auditPage, auditSite } from '../core/rules/runner.ts'
import { addressOf, isPagePath } from '../core/addresses/addresses.ts'
import { addressOnly, emptyIndex, entryOf, keywordKey, updateIndex } from '../core/site/site-index.ts'
import { baseFrom, dateFrom, formatFrom, keywordsFrom, styleFrom } from './inputs.ts'
import { nobodyReads, print } from './output.ts'
import { reportWriter } from './audit-writer.ts'
import { openSite } from './site-files.ts'

export async function audit(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      'base-url': { type: 'string' },
      keywords: { type: 'string' },
      style: { type: 'string' },
      date: { type: 'string' },
      html: { type: 'boolean', default: false },
      format: { type: 'string', default: 'text' },
    },
  })
  const format = formatFrom(values.format, ['text', 'json', 'csv'])
  const date = dateFrom(values.date)
  const base = baseFrom(values['base-url'])
  const baseKnown = values['base-url'] !== undefined
  const style = values.style ? styleFrom(values.style) : defaultStyle
  const keywords = values.keywords ? keywordsFrom(values.keywords) : new Map<string, Keywords>()

  const files = openSite(positionals)
  const index = emptyIndex(
    base,
    files.whole,
    files.paths.map((p) => [p, files.addressPath(p)] as const),
  )
  const urlOf = (path: string) => addressOf(files.addressPath(path), base)
  const keywordsFor = (path: string) => keywords.get(path) ?? keywords.get(urlOf(path)) ?? null
  const keywordFor = (path: string, lang: string | null) => {
    const primary = keywordsFor(path)?.primary
    return primary ? compileKeyword(primary, lang) : null
  }
  const pages = files.whole ? files.paths.filter(isPagePath) : files.paths
  const known = new Set(pages.flatMap((path) => [path, urlOf(path)]))
  const strays = [...keywords.keys()].filter((key) => !known.has(key))
  if (strays.length > 0)
    process.stderr.write(
      `quill: ${values.keywords} names ${strays.length === 1 ? 'a page that is' : `${strays.length} pages that are`} not there: ${strays.slice(0, 5).join(', ')}${strays.length > 5 ? ' …' : ''}\n`,
    )

  // Every page's address is known to the first rule that runs; and what the home page links to.
  for (const path of pages) {
    const keyword = keywordFor(path, style.language)
    updateIndex(index, path, {
      ...addressOnly(path, urlOf(path)),
      keyword: keywordKey(keyword),
      phrase: keyword?.text ?? null,
    })
  }
  const read = (path: string) =>
    onePage(() => pageFrom(files.read(path), { path, url: urlOf(path), main: style.main }))
  const home = index.addresses.get(base)
  if (home !== undefined && pages.includes(home)) {
    const page = read(home)
    if (page.ok)
      updateIndex(
        index,
        home,
        entryOf(home, page.value.page, index, keywordFor(home, page.value.page.lang ?? style.language)),
      )
  }

  const conformance = values.html ? (await import('./conformance.ts')).conformanceOf : null
  async function judged(path: string): Promise<Outcome<PageReport>> {
    const page = read(path)
    if (!page.ok) return page
    const outcome = onePage(() => {
      const { source, page: facts } = page.value
      updateIndex(index, path, entryOf(path, facts, index, keywordFor(path, facts.lang ?? style.language)))
      const marks = auditPage(facts, index, style, { date, keywords: keywordsFor(path), baseKnown })
      const measured = (role: 'title' | 'description') => {
        const text = role === 'title' ? titleOf(facts)?.text : descriptionOf(facts)?.content
        return text ? measure(text, role, style.slots) : null
      }
      return { ok: true, value: pageReport(facts, source.text, marks, measured) }
    })
    if (outcome.ok && conformance) outcome.value.html = await conformance(page.value.source.text)
    return outcome
  }

  const unread: Report['unread'] = [...files.unread]
  const totals: Report['totals'] = { pages: 0, blocker: 0, flaw: 0, nit: 0 }
  const writer = reportWriter(format, { version: about.version, base, urlOf })
  await print(writer.begin())
  for (const path of pages) {
    if (nobodyReads()) return 0
    const report = await judged(path)
    if (!report.ok) {
      updateIndex(index, path, null)
      unread.push({ path, why: report.why })
      continue
    }
    totals.pages++
    for (const mark of report.value.marks) totals[mark.severity]++
    await print(writer.page(report.value))
  }
  const siteMarks = auditSite(index, style, date)
  for (const mark of siteMarks) totals[mark.severity]++
  await print(writer.end(siteMarkReport(siteMarks), totals, unread))
  return totals.blocker > 0 ? 1 : 0
}
