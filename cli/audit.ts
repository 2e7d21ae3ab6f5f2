/** `quill audit`: every page judged and reported as it comes, so that a large site is never in memory whole. */
import { spawn } from 'node:child_process'
import { availableParallelism } from 'node:os'
import { parseArgs } from 'node:util'
import about from '../package.json' with { type: 'json' }
import { pageReport, siteMarkReport, type PageReport, type Report } from '../core/exchange/audit-report.ts'
import { readKeywords } from '../core/exchange/keyword-sheet.ts'
import { measure } from '../core/measure/snippet.ts'
import { onePage } from '../core/page/read/boundary.ts'
import { descriptionOf, titleOf } from '../core/page/read/facts.ts'
import { styleFor, type HouseStyle } from '../core/rules/house-style.ts'
import { auditSite } from '../core/rules/runner.ts'
import { pathOf, type PageId } from '../core/site/page-identity.ts'
import { updateIndex, type SiteIndex } from '../core/site/site-index.ts'
import type { Evaluated } from '../core/work/evaluate.ts'
import { runOverPages } from '../core/work/run.ts'
import { addressesFor } from '../core/work/setting.ts'
import { indexFor, openParts, partFile, partWriter, type PartPage, type PartSource } from './audit-parts.ts'
import { reportWriter, type ReportWriter } from './audit-writer.ts'
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
      jobs: { type: 'string' },
      shard: { type: 'string' },
      out: { type: 'string' },
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
  if (values.out !== undefined && values.shard === undefined)
    throw new Problem('--out names the file of a part: it goes with --shard I/N.')
  const asked = values.jobs === undefined ? null : jobsFrom(values.jobs)
  // A number that was asked for needs no look at the site, which every part opens for itself.
  if (asked !== null && asked > 1 && address === undefined && values.shard === undefined)
    return auditInJobs(args, asked, format)
  const site =
    address === undefined
      ? siteFrom(positionals, options)
      : siteOf(await fetchedSite(address, limitFrom(values.limit), date), options)
  if (values.keywords) assign(site, values.keywords)
  const shard = values.shard === undefined ? null : shardFrom(values.shard)
  if (shard && address !== undefined)
    throw new Problem('One address is not audited in parts: fetching is what takes the time.')
  if (shard) return auditPart(site, shard, values.html, values.out)
  const jobs =
    asked ?? (site.inOrder.length < WORTH_DIVIDING ? 1 : Math.min(availableParallelism(), MOST_JOBS))
  if (jobs > 1 && address === undefined) return auditInJobs(args, jobs, format)

  const { setting } = site
  const writer = reportWriter(format, { version: about.version, base: setting.base, urlOf: urlsOf(site) })
  const totals: Report['totals'] = { pages: 0, blocker: 0, flaw: 0, nit: 0 }
  const unread: Report['unread'] = [...site.unread]
  await print(writer.begin())
  const done = await judgeAll(site, { html: values.html }, async ({ report, unread: left }) => {
    if (left) unread.push(left)
    if (!report) return
    count(totals, report)
    await print(writer.page(report))
  })
  if (!done) return 0
  return finish(writer, setting.index, setting, totals, unread)
}

/** Judges every page, or those of a part, and tells of each as it comes. False where nobody reads any more. */
async function judgeAll(
  site: CommandSite,
  how: { html: boolean; isMine?(at: number): boolean },
  onPage: (page: PartPage) => Promise<void> | void,
): Promise<boolean> {
  const conformance = how.html ? (await import('./conformance.ts')).conformanceOf : null
  const places = new Map(site.inOrder.map((page, at) => [page.id, at]))
  return runOverPages(
    { setting: site.setting, pages: site.inOrder, decisionsOf: site.decisionsOf, read: site.read },
    {
      stopped: nobodyReads,
      ...(how.isMine ? { isMine: how.isMine } : {}),
      async onPage(page, judged) {
        const at = places.get(page.id)!
        const entry = judged.ok ? judged.value.row : null
        const report = judged.ok ? onePage(() => ({ ok: true, value: reportOf(judged.value) })) : judged
        if (!report.ok)
          return onPage({ at, report: null, entry, unread: { path: pathOf(page), why: report.why } })
        if (judged.ok && conformance) report.value.html = await conformance(judged.value.proof.source.text)
        return onPage({ at, report: report.value, entry, unread: null })
      },
    },
  )
}

function count(totals: Report['totals'], report: PageReport): void {
  totals.pages++
  for (const mark of report.marks) totals[mark.severity]++
}

/** The marks on the site, and the end of the report; the exit status says whether a blocker was found. */
async function finish(
  writer: ReportWriter,
  index: SiteIndex,
  { style, date }: { style: HouseStyle; date: string },
  totals: Report['totals'],
  unread: Report['unread'],
): Promise<number> {
  const nameOf = (id: PageId) => index.entries.get(id)?.path ?? id
  const siteMarks = auditSite(index, style, date)
  for (const mark of siteMarks) totals[mark.severity]++
  await print(writer.end(siteMarkReport(siteMarks, nameOf), totals, unread))
  return totals.blocker > 0 ? 1 : 0
}

const urlsOf = ({ inOrder, setting }: CommandSite) => {
  const urls = new Map(inOrder.map((page) => [pathOf(page), addressesFor(page, setting).url]))
  return (path: string) => urls.get(path) ?? path
}

interface Shard {
  shard: number
  shards: number
}
function shardFrom(given: string): Shard {
  const [, i = '', n = ''] = /^(\d{1,4})\/(\d{1,4})$/.exec(given) ?? []
  const [shard, shards] = [Number(i), Number(n)]
  if (!(shard >= 1 && shard <= shards))
    throw new Problem(`--shard “${given}”: a part such as 1/4 is expected.`)
  return { shard, shards }
}

/** From so many pages on a run is divided among the processors unless it is said otherwise: below, starting them takes longer. */
const WORTH_DIVIDING = 400
const MOST_JOBS = 64

function jobsFrom(given: string): number {
  if (!/^[1-9]\d?$/.test(given) || Number(given) > MOST_JOBS)
    throw new Problem(`--jobs “${given}”: a number from 1 to ${MOST_JOBS} is expected.`)
  return Number(given)
}

/** One part of an audit, written for \`quill merge\`. */
async function auditPart(
  site: CommandSite,
  { shard, shards }: Shard,
  html: boolean,
  out: string | undefined,
): Promise<number> {
  const { setting, inOrder } = site
  const { index } = setting
  const write = partWriter(out ?? null, {
    shard,
    shards,
    pages: inOrder.length,
    base: setting.base,
    date: setting.date,
    style: setting.style,
    whole: index.whole,
    addresses: [...index.addresses],
    identities: inOrder.map(({ id, url, served }) => ({ id, url, served })),
    sitemap: index.sitemap && [...index.sitemap],
    otherAddresses: [...index.files],
    marksMentions: index.marksMentions,
    urls: inOrder.map((page) => [pathOf(page), addressesFor(page, setting).url]),
    unread: [...site.unread],
  })
  const isMine = (at: number) => at % shards === shard - 1
  if (!(await judgeAll(site, { html, isMine }, (page) => write.page(page)))) return 0
  await write.end()
  return 0
}

/** The parts at once, each in a process of its own, and merged as they come. */
async function auditInJobs(args: string[], jobs: number, format: 'text' | 'json' | 'csv'): Promise<number> {
  const children = Array.from({ length: jobs }, (_, i) =>
    spawn(
      process.execPath,
      [process.argv[1]!, 'audit', ...withoutJobs(args), '--shard', `${i + 1}/${jobs}`],
      // What is said of a sheet is said once.
      { stdio: ['ignore', 'pipe', i === 0 ? 'inherit' : 'ignore'] },
    ),
  )
  const ends = children.map(
    (child) =>
      new Promise<string | null>((resolve) => {
        child.on('error', (error) => resolve(error.message))
        child.on('close', (status, signal) => resolve(status === 0 ? null : String(signal ?? status)))
      }),
  )
  try {
    return await mergeParts(
      children.map((child, i) => ({ file: `Part ${i + 1}`, stream: child.stdout! })),
      format,
    )
  } catch (error) {
    // A part that ended too early is why the merging failed; one that goes on is not waited for.
    const ended = await Promise.all(
      children.map((child, i) =>
        (child.exitCode ?? child.signalCode) === null && !child.stdout!.readableEnded ? null : ends[i],
      ),
    )
    const failed = ended.findIndex((status) => status !== null)
    if (failed < 0) throw error
    // What the first one refused it has said itself.
    if (ended[0] === '2') return 2
    throw new Problem(`Part ${failed + 1} of the audit ended with ${ended[failed]}. Try again with --jobs 1.`)
  } finally {
    // Whoever nobody listens to any more need not go on.
    for (const child of children) child.kill()
  }
}

/** The same command without its number of jobs. */
function withoutJobs(args: readonly string[]): string[] {
  const at = args.findIndex((arg) => arg === '--jobs')
  const rest = at < 0 ? args : [...args.slice(0, at), ...args.slice(at + 2)]
  return rest.filter((arg) => !arg.startsWith('--jobs='))
}

/** \`quill merge\`: the parts of one audit as the report of one run, byte for byte. */
export async function merge(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { format: { type: 'string', default: 'text' } },
  })
  return mergeParts(positionals.map(partFile), formatFrom(values.format, ['text', 'json', 'csv']))
}

async function mergeParts(parts: readonly PartSource[], format: 'text' | 'json' | 'csv'): Promise<number> {
  const { head, pages } = await openParts(parts)
  const urls = new Map(head.urls)
  const urlOf = (path: string) => urls.get(path) ?? path
  const writer = reportWriter(format, { version: about.version, base: head.base, urlOf })
  const index = indexFor(head)
  const totals: Report['totals'] = { pages: 0, blocker: 0, flaw: 0, nit: 0 }
  const unread: Report['unread'] = [...head.unread]
  await print(writer.begin())
  for await (const { report, entry, unread: left } of pages) {
    if (nobodyReads()) return 0
    if (entry) updateIndex(index, entry.id, entry)
    if (left) unread.push(left)
    if (!report) continue
    count(totals, report)
    await print(writer.page(report))
  }
  return finish(writer, index, head, totals, unread)
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
