/** The change sheet: what the hand-off changed, one row a field, for whoever types it into a CMS. */
import { descriptionOf, titleOf, canonicalOf, robotsOf, type PageFacts } from '../page/read/facts.ts'
import { carriers } from '../site/page-tokens.ts'
import { writeTable } from './csv.ts'

export interface FieldChange {
  field: string
  before: string
  after: string
}

/** What a reader of two states of a page would call changed, field by field; headings by their order. */
export function fieldChanges(before: PageFacts, after: PageFacts): FieldChange[] {
  const changes: FieldChange[] = []
  const add = (field: string, a: string | null | undefined, b: string | null | undefined) => {
    if ((a ?? '') !== (b ?? '')) changes.push({ field, before: a ?? '', after: b ?? '' })
  }
  add('Address', before.url, after.url)
  add('Title', titleOf(before)?.text, titleOf(after)?.text)
  add('Meta description', descriptionOf(before)?.content, descriptionOf(after)?.content)
  add('Canonical', canonicalOf(before)?.href, canonicalOf(after)?.href)
  add('Robots', robotsOf(before).join(', '), robotsOf(after).join(', '))
  const meta = (p: PageFacts, name: string) => p.metas.find((m) => m.name === name && m.inHead)?.content
  for (const name of carriers) add(name, meta(before, name), meta(after, name))
  add('Language', before.lang, after.lang)
  add(
    'Encoding declared',
    before.charset.by === 'meta' ? 'yes' : '',
    after.charset.by === 'meta' ? 'yes' : '',
  )
  const line = (p: PageFacts) => Array.from(p.headings, (h) => `H${h.level} ${h.text}`)
  const [a, b] = [line(before), line(after)]
  if (a.length === b.length) a.forEach((h, i) => add(`Heading ${i + 1}`, h, b[i]))
  else add('Headings', a.join(' / '), b.join(' / '))
  const data = (p: PageFacts) => p.data.map((d) => d.json)
  const [c, d] = [data(before), data(after)]
  c.forEach((json, i) => add(`Structured data ${i + 1}`, json.trim(), d[i]?.trim()))
  const extra = (p: PageFacts, pick: 'titles' | 'metas') =>
    pick === 'titles'
      ? p.titles.filter((t) => t.inHead).length
      : p.metas.filter((m) => m.name === 'description' && m.inHead).length
  const links =
    before.links.length === after.links.length
      ? after.links.filter((l, i) => l.href !== before.links[i]!.href)
      : []
  if (links.length > 0)
    add(
      'Links that follow',
      before.links
        .filter((l, i) => l.href !== after.links[i]!.href)
        .map((l) => l.href)
        .join(', '),
      links.map((l) => l.href).join(', '),
    )
  if (extra(before, 'titles') > 1)
    add('Title elements', String(extra(before, 'titles')), String(extra(after, 'titles')))
  if (extra(before, 'metas') > 1)
    add('Meta descriptions', String(extra(before, 'metas')), String(extra(after, 'metas')))
  return changes
}

export const changeSheet = (
  pages: readonly { path: string; url: string; state: string; changes: FieldChange[] }[],
): string =>
  writeTable(
    ['path', 'url', 'state', 'field', 'before', 'after'],
    pages.flatMap((p) => p.changes.map((c) => [p.path, p.url, p.state, c.field, c.before, c.after])),
  )
