/** The core on real pages: reading, judging, editing, repeats. */
import { parse } from 'parse5'
import { descriptionOf, titleOf } from '../core/page/read/facts.ts'
import { applyDraft } from '../core/page/proof.ts'
import { readPage } from '../core/page/read/read-page.ts'
import { readSource, sourceOf, type Source } from '../core/page/source/source.ts'
import { defaultStyle } from '../core/rules/house-style.ts'
import { auditPage, auditSite } from '../core/rules/runner.ts'
import { addressOf } from '../core/addresses/addresses.ts'
import { emptyIndex, entryOf, updateIndex } from '../core/site/site-index.ts'
import { corpus, packages, pagesOf } from '../tests/real/corpora.ts'
import { interleave, median, percentile, say } from './ratio.ts'

const BASE = 'https://site.example/'

export function benchCore(): void {
  const pages: { path: string; url: string; source: Source }[] = []
  for (const name of packages) {
    const all = pagesOf(corpus(name))
    // Every nth page, so that each package weighs about the same.
    const step = Math.max(1, Math.floor(all.length / 150))
    for (let i = 0; i < all.length; i += step) {
      const read = readSource(all[i]!.read())
      if (read.ok) pages.push({ path: all[i]!.path, url: addressOf(all[i]!.path, BASE), source: read.source })
    }
  }
  const bytes = pages.reduce((n, p) => n + p.source.bytes.length, 0)
  console.log(`\n${pages.length} real pages, ${(bytes / 1e6).toFixed(1)} MB, from ${packages.join(', ')}\n`)

  const index = emptyIndex(
    BASE,
    true,
    pages.map((p) => [p.path, p.path] as const),
  )
  const facts = pages.map((p) => readPage(p.source, p))
  const keywords = { primary: 'configuration file', secondary: [] }
  const t = interleave(5, {
    bare: () => pages.forEach((p) => parse(p.source.text)),
    read: () => pages.forEach((p) => readPage(p.source, p)),
    audit: () =>
      pages.forEach((p) =>
        auditPage(readPage(p.source, p), index, defaultStyle, { date: '2026-11-23', keywords }),
      ),
    repeats: () => {
      const site = emptyIndex(
        BASE,
        true,
        pages.map((p) => [p.path, p.path] as const),
      )
      facts.forEach((f) => updateIndex(site, f.path, entryOf(f.path, f, site)))
      auditSite(site, defaultStyle, '2026-11-23')
    },
  })
  say('read ÷ bare parse5.parse without locations', t.read / t.bare, 'at most 0.8')
  say('read and all rules ÷ bare parse5.parse without locations', t.audit / t.bare, 'at most 1.1')
  say('index and repeated titles, descriptions, addresses ÷ read', t.repeats / t.read, 'at most 0.2')

  const middling = pages.filter(
    (p) => p.source.bytes.length > 24_000 && p.source.bytes.length < 36_000 && titleOf(readPage(p.source, p)),
  )
  const cycles: number[] = []
  const reads: number[] = []
  for (const p of middling.slice(0, 60))
    for (let i = 0; i < 5; i++) {
      // A fresh source, so that nothing is located before.
      const source = sourceOf(p.source.bytes, p.source.encoding, p.source.encodingBy, p.source.bom)
      let start = performance.now()
      const page = readPage(source, p)
      if (i > 0) reads.push(performance.now() - start)
      start = performance.now()
      const proof = applyDraft(source, {
        title: { value: `${titleOf(page)?.text} ${i}` },
        'meta:description': { value: descriptionOf(page)?.content ?? 'A page.' },
      })
      auditPage(readPage(proof.source, p), index, defaultStyle, { date: '2026-11-23' })
      if (i > 0) cycles.push(performance.now() - start)
    }
  say(
    `edit cycle ÷ read of the same page (${middling.length} pages of about 30 kB)`,
    median(cycles) / median(reads),
    'at most 4',
  )
  say('edit cycle, 95th percentile, ms', percentile(cycles, 0.95), 'under 16')
}
