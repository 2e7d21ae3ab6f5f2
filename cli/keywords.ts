/** `quill keywords`: the keyword map: which page is for which phrase, where each has it, clashes, pages for further phrases. */
import { existsSync, readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { decodeSheet, readTable } from '../core/exchange/csv.ts'
import { cellOf, readKeywords } from '../core/exchange/keyword-sheet.ts'
import { placementInWords, placementOf } from '../core/keywords/placement.ts'
import { pageWords, suggestPages, type PageWords } from '../core/keywords/suggest-pages.ts'
import { styleFor } from '../core/rules/house-style.ts'
import { pathOf } from '../core/site/page-identity.ts'
import { repeated } from '../core/site/site-index.ts'
import { compileKeyword, type Keywords } from '../core/words/match.ts'
import { keywordsOf } from '../core/work/decisions.ts'
import { runOverPages } from '../core/work/run.ts'
import { dateFrom, formatFrom, sheetFrom } from './inputs.ts'
import { nobodyReads, print } from './output.ts'
import { Problem } from './problem.ts'
import { siteFrom } from './site.ts'

export async function keywords(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      keywords: { type: 'string' },
      phrases: { type: 'string' },
      'base-url': { type: 'string' },
      format: { type: 'string', default: 'text' },
    },
  })
  const format = formatFrom(values.format, ['text', 'json'])
  const site = siteFrom(positionals, { baseUrl: values['base-url'], date: dateFrom(undefined) })
  const { setting } = site
  if (values.keywords) {
    const pages = site.inOrder.map((page) => ({ id: page.id, path: pathOf(page), url: page.url }))
    const sheet = readKeywords(sheetFrom(values.keywords, 'the keywords'), pages)
    if (!sheet.ok) throw new Problem(`${values.keywords}: ${sheet.why}`)
    const given = new Map<string, Keywords>(sheet.read.matched.map(({ id, ...own }) => [id, own]))
    const before = site.decisionsOf
    site.decisionsOf = (id) => {
      const chosen = given.get(id)
      return chosen
        ? { ...before(id), 'keyword:primary': chosen.primary, 'keyword:secondary': chosen.secondary }
        : before(id)
    }
  }
  const phrases = values.phrases ? phrasesFrom(values.phrases) : []
  const known: PageWords[] = []
  const pages: object[] = []
  const lines: string[] = []
  const done = await runOverPages(
    { setting, pages: site.inOrder, decisionsOf: site.decisionsOf, read: site.read },
    {
      stopped: nobodyReads,
      onPage(identity, judged) {
        if (!judged.ok) return
        const { page } = judged.value
        const style = styleFor(setting.style, page.url)
        const path = pathOf(identity)
        if (phrases.length > 0) known.push(pageWords(path, page, setting.base, style.language))
        const pageKeywords = keywordsOf(site.decisionsOf(identity.id))
        const keyword = pageKeywords?.primary
          ? compileKeyword(pageKeywords.primary, page.lang ?? style.language)
          : null
        const { leadWords } = style.limits
        const placed = keyword ? placementOf(page, keyword, { base: setting.base, leadWords }) : null
        pages.push({
          path,
          primary: pageKeywords?.primary || null,
          secondary: pageKeywords?.secondary ?? [],
          placement: placed?.placement ?? null,
          matches: placed?.matches ?? 0,
          density: placed?.density ?? 0,
        })
        if (placed)
          lines.push(
            `${path}: “${pageKeywords!.primary}” in ${placementInWords(placed.placement, leadWords)}`,
          )
      },
    },
  )
  if (!done) return 0
  const nameOf = (id: string) => setting.index.entries.get(id)?.path ?? id
  const clashes = repeated(setting.index.byKeyword, setting.index).map((ids) => ({
    phrase: setting.index.entries.get(ids[0]!)!.phrase!,
    pages: ids.map(nameOf),
  }))
  const suggestions = phrases.flatMap((phrase) => {
    const [first] = suggestPages(phrase, known, 1)
    return first ? [{ phrase, path: first.id, score: Number(first.score.toFixed(3)) }] : []
  })
  await print(
    format === 'json'
      ? `${JSON.stringify({ pages, clashes, suggestions }, null, 2)}\n`
      : [
          ...lines,
          ...clashes.map((c) => `clash “${c.phrase}”: ${c.pages.join(', ')}`),
          ...suggestions.map((s) => `“${s.phrase}”: ${s.path} (${s.score})`),
          '',
        ].join('\n'),
  )
  return 0
}

function phrasesFrom(file: string): string[] {
  if (!existsSync(file)) throw new Problem(`${file}: there is no such file (the phrases).`)
  const sheet = decodeSheet(readFileSync(file))
  const table = sheet.ok ? readTable(sheet.text) : sheet
  if (!table.ok) throw new Problem(`${file}: ${table.why}`)
  if (!table.columns.includes('phrase')) throw new Problem(`${file}: a column phrase is expected.`)
  return table.rows.map(({ cells }) => cellOf(cells, 'phrase')).filter(Boolean)
}
