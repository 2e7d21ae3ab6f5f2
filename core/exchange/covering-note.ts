/** What changed in a hand-off, how much and why, in words for whoever receives it. */
import type { Redirect } from '../site/moves.ts'
import type { ChangedPage } from './hand-off.ts'

export interface CoveringNote {
  site: string
  /** YYYY-MM-DD */
  date: string
  pages: readonly ChangedPage[]
  followers: number
  redirects: readonly Redirect[]
  /** What was marked and is not any more: a rule's name, and on how many of these pages. */
  mended: readonly { name: string; pages: number }[]
}

const pagesIn = (n: number) => `${n.toLocaleString('en')} ${n === 1 ? 'page' : 'pages'}`

/** Plain text, its lines as long as they come. */
export function writeCoveringNote({ site, date, pages, followers, redirects, mended }: CoveringNote): string {
  const counts = new Map<string, number>()
  for (const page of pages)
    for (const field of new Set(page.changes.map((change) => groupOf(change.field))))
      counts.set(field, (counts.get(field) ?? 0) + 1)
  const changed = [...counts].sort((a, b) => b[1] - a[1]).map(([field, n]) => `${field} on ${pagesIn(n)}`)
  const refused = pages.filter((page) => page.refused.length > 0)
  const parts = [
    `${site}: changes of ${date}`,
    `${pagesIn(pages.length)} changed${changed.length > 0 ? `: ${changed.join(', ')}` : ''}.`,
    followers > 0 &&
      `On ${pagesIn(followers)} more only links and other addresses change, to follow the pages that moved.`,
    redirects.length > 0 &&
      `${redirects.length.toLocaleString('en')} old ${redirects.length === 1 ? 'address has' : 'addresses have'} to lead to the new ${redirects.length === 1 ? 'one' : 'ones'}; the redirects come with the files. Please put them in place together with the pages.`,
    mended.length > 0 &&
      `Why: what was wrong before and is mended now.\n${mended.map(({ name, pages: n }) => `– ${name}: ${pagesIn(n)}`).join('\n')}`,
    refused.length > 0 &&
      `Not carried out, and to be looked at: ${refused.map((page) => `${page.path} (${page.refused.join(' ')})`).join('; ')}`,
    pages.length > 0 &&
      `The pages:\n${pages.map((page) => `– ${page.url}: ${[...new Set(page.changes.map((c) => groupOf(c.field)))].join(', ') || 'nothing that shows'}`).join('\n')}`,
  ]
  return parts.filter(Boolean).join('\n\n') + '\n'
}

/** “Heading 3” and “Headings” are one kind of change. */
function groupOf(field: string): string {
  if (/^Headings?\b/.test(field)) return 'headings'
  if (/^Structured data\b/.test(field)) return 'structured data'
  return field.slice(0, 1).toLowerCase() + field.slice(1)
}
