/** `quill audit`: every page judged and reported as it comes, so that a large site is never in memory whole. */
import { parseArgs } from 'node:util'
import about from '../package.json' with { type: 'json' }
import { pageReport, siteMarkReport, type PageReport, type Report } from '../core/exchange/audit-report.ts'
import { readKeywords } from '../core/exchange/keyword-sheet.ts'
import { measure } from '../core/measure/snippet.ts'
import { onePage } from '../core/page/read/boundary.ts'
import { descriptionOf, titleOf } from '../core/page/read/facts.ts'
import { styleFor } from '../core/rules/house-style.ts'
import { auditSite } from '../core/rules/runner.ts'
import { pathOf, type PageId } from '../core/site/page-identity.ts'
import type { Evaluated } from '../core/work/evaluate.ts'
import { runOverPages } from '../core/work/run.ts'
import { addressesFor } from '../core/work/setting.ts'
import { reportWriter } from './audit-writer.ts'
import { dateFrom, formatFrom, sheetFrom, styleFrom } from './inputs.ts'
import { nobodyReads, print } from './output.ts'
import { Problem } from './problem.ts'
import { fetchedSite, isAddress } from './fetched-site.ts'
import { siteFrom, siteOf, type CommandSite } from './site.ts'

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
      limit: { type: 'string', default: '200' },
      format: { type: 'string', default: 'text' },
    },
  })
  const format = formatFrom(values.format, ['text', 'json', 'csv'])
  const date = dateFrom(values.date)
  const options = {
    baseUrl: values['base-url'],
    date,
    style: values.style ? styleFrom(values.style) : undefined,
  }
  const [address, ...more] = positionals.filter(isAddress)
  if (address !== undefined && positionals.length > 1)
    throw new Problem(
      `${more[0] ?? positionals.find((p) => p !== address)}: one address is audited at a time.`,
    )
  const site =
    address === undefined
      ? siteFrom(positionals, options)
      : siteOf(await fetchedSite(address, limitFrom(values.limit), date), options)
  if (values.keywords) assign(site, values.keywords)
  const { setting } = site
  const { style, base, index } = setting
  const conformance = values.html ? (await import('./conformance.ts')).conformanceOf : null

  const urls = new Map(site.inOrder.map((page) => [pathOf(page), addressesFor(page, setting).url]))
  const unread: Report['unread'] = [...site.unread]
  const totals: Report['totals'] = { pages: 0, blocker: 0, flaw: 0, nit: 0 }
  const writer = reportWriter(format, {
    version: about.version,
    base,
    urlOf: (path) => urls.get(path) ?? path,
  })
  await print(writer.begin())
  const done = await runOverPages(
    { setting, pages: site.inOrder, decisionsOf: site.decisionsOf, read: site.read },
    {
      stopped: nobodyReads,
      async onPage(page, judged) {
        const report = judged.ok ? onePage(() => ({ ok: true, value: reportOf(judged.value) })) : judged
        if (!report.ok) {
          unread.push({ path: pathOf(page), why: report.why })
          return
        }
        if (judged.ok && conformance) report.value.html = await conformance(judged.value.proof.source.text)
        totals.pages++
        for (const mark of report.value.marks) totals[mark.severity]++
        await print(writer.page(report.value))
      },
    },
  )
  if (!done) return 0
  const nameOf = (id: PageId) => index.entries.get(id)?.path ?? id
  const siteMarks = auditSite(index, style, date)
  for (const mark of siteMarks) totals[mark.severity]++
  await print(writer.end(siteMarkReport(siteMarks, nameOf), totals, unread))
  return totals.blocker > 0 ? 1 : 0
}

function limitFrom(given: string): number {
  const limit = Number(given)
  if (!/^\d{1,6}$/.test(given) || limit < 1)
    throw new Problem(`--limit “${given}”: a number of pages from 1 is expected.`)
  return limit
}

/** Takes keywords from a sheet over those that the pages have; what names no page is said. */
function assign(site: CommandSite, file: string): void {
  const pages = site.inOrder.map((page) => ({ id: page.id, path: pathOf(page), url: page.url }))
  const sheet = readKeywords(sheetFrom(file, 'the keywords'), pages)
  if (!sheet.ok) throw new Problem(`${file}: ${sheet.why}`)
  const { matched, unmatched } = sheet.read
  if (unmatched.length > 0)
    process.stderr.write(
      `quill: ${file} names ${unmatched.length === 1 ? 'a page that is' : `${unmatched.length} pages that are`} not there: ${unmatched.slice(0, 5).join(', ')}${unmatched.length > 5 ? ' …' : ''}\n`,
    )
  const keywords = new Map(matched.map(({ id, primary, secondary }) => [id, { primary, secondary }]))
  const before = site.decisionsOf
  site.decisionsOf = (id) => {
    const given = keywords.get(id)
    return given
      ? { ...before(id), 'keyword:primary': given.primary, 'keyword:secondary': given.secondary }
      : before(id)
  }
}

function reportOf({ page, proof, openMarks, setting }: Evaluated): PageReport {
  const { slots } = styleFor(setting.style, page.url)
  const measured = (role: 'title' | 'description') => {
    const text = role === 'title' ? titleOf(page)?.text : descriptionOf(page)?.content
    return text ? measure(text, role, slots) : null
  }
  return pageReport(page, proof.source.text, openMarks, measured)
}
