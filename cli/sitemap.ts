/** `quill sitemap`: the sitemap of a site's indexable pages, as the protocol asks for it. */
import { existsSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { parseArgs } from 'node:util'
import { sitemapFiles } from '../core/exchange/site-sitemap.ts'
import { runOverPages } from '../core/work/run.ts'
import { pathOf } from '../core/site/page-identity.ts'
import { dateFrom } from './inputs.ts'
import { nobodyReads, print } from './output.ts'
import { Problem } from './problem.ts'
import { siteFrom } from './site.ts'
import { plural } from './words.ts'

export async function sitemap(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { 'base-url': { type: 'string' }, date: { type: 'string' }, out: { type: 'string' } },
  })
  const site = siteFrom(positionals, { baseUrl: values['base-url'], date: dateFrom(values.date) })
  const { setting } = site
  if (!setting.baseKnown)
    throw new Problem('A sitemap holds whole addresses: name the site’s with --base-url URL.')
  const done = await runOverPages(
    { setting, pages: site.inOrder, decisionsOf: site.decisionsOf, read: site.read },
    {
      stopped: nobodyReads,
      onPage(page, judged) {
        if (!judged.ok) process.stderr.write(`quill: left out: ${pathOf(page)}: ${judged.why}\n`)
      },
    },
  )
  if (!done) return 0
  const files = await sitemapFiles(site)
  const [first, ...parts] = files
  if (!first) throw new Problem('No page of this site is indexable, so there is nothing to list.')
  if (values.out === undefined) {
    if (parts.length > 0)
      throw new Problem(
        `The sitemap comes in ${files.length} files. Name where to write them: --out sitemap.xml.`,
      )
    await print(first.text)
    return 0
  }
  const folder = dirname(values.out)
  if (!existsSync(folder)) throw new Problem(`There is no folder ${folder}.`)
  writeFileSync(values.out, first.text)
  for (const { path, text } of parts) writeFileSync(join(folder, path), text)
  await print(`${plural(files.length, 'file')} written, ${values.out} first\n`)
  return 0
}
