/** Pages that only a sheet knows: each row becomes a page of which little is known, with a source of its own. */
import { escapeMarkup } from '../strings.ts'
import { queryKey } from '../addresses/addresses.ts'
import { pageAddress } from '../site/intake-plan.ts'
import type { PageIdentity } from '../site/page-identity.ts'
import type { Decisions } from '../work/decisions.ts'
import type { Columns } from './columns.ts'
import type { Sheet } from './sheet.ts'

export interface PagesOfSheet {
  pages: { identity: PageIdentity; bytes: Uint8Array; decisions: Decisions }[]
  unread: { path: string; why: string }[]
  /** The address of the site that most rows are of; null where no row has an address. */
  base: string | null
}

/** `site` is the address that paths without a host belong to; `date` is YYYY-MM-DD. */
export function pagesOfSheet(
  sheet: Sheet,
  columns: Columns,
  { site, date, newId }: { site: string | null; date: string; newId(): string },
): PagesOfSheet {
  const read: PagesOfSheet = { pages: [], unread: [], base: null }
  const seen = new Set<string>()
  const origins = new Map<string, number>()
  for (const [i, cells] of sheet.rows.entries()) {
    const cell = (role: keyof Columns) => (columns[role] === undefined ? null : (cells[columns[role]] ?? ''))
    const written = cell('address') ?? ''
    const url = addressIn(written, site)
    const name = `row ${sheet.lines[i]!}`
    if (url === null) {
      read.unread.push({
        path: name,
        why: written === '' ? 'It has no address.' : `“${written.slice(0, 100)}” is not an address.`,
      })
      continue
    }
    if (seen.has(queryKey(url))) {
      read.unread.push({ path: name, why: `A row before it has the same address, ${url}.` })
      continue
    }
    seen.add(queryKey(url))
    const { origin } = new URL(url)
    origins.set(origin, (origins.get(origin) ?? 0) + 1)
    const status = wholeNumber(cell('status'))
    const words = wholeNumber(cell('words'))
    read.pages.push({
      identity: {
        id: newId(),
        url,
        file: null,
        served:
          status === null || status < 100 || status > 599
            ? null
            : {
                status,
                address: url,
                redirects: [],
                contentType: null,
                charset: null,
                robots: [],
                canonical: null,
                date,
              },
        partial: 'row',
        ...(words === null ? {} : { words }),
      },
      bytes: new TextEncoder().encode(rowSource(cell('title'), cell('description'), cell('h1'))),
      decisions: keywordsIn(cell('keyword'), cell('secondary')),
    })
  }
  const [most] = [...origins].sort((a, b) => b[1] - a[1])
  read.base = most ? `${most[0]}/` : null
  return read
}

function addressIn(written: string, site: string | null): string | null {
  if (written === '') return null
  if (/^[a-z][a-z0-9+.-]*:\/\//i.test(written)) return pageAddress(written)
  if (written.startsWith('/')) return site === null ? null : pageAddress(written, site)
  return /^[\w-]+(?:\.[\w-]+)+(?:[/?]|$)/.test(written) ? pageAddress(`https://${written}`) : null
}

const wholeNumber = (cell: string | null): number | null => {
  const digits = (cell ?? '').replace(/[\s.,'’]/g, '')
  return /^\d{1,9}$/.test(digits) ? Number(digits) : null
}

function keywordsIn(primary: string | null, secondary: string | null): Decisions {
  const [first = '', ...more] = (primary ?? '')
    .split(/[;|\n]/)
    .map((p) => p.trim().slice(0, 200))
    .filter(Boolean)
  const others = [
    ...more,
    ...(secondary ?? '')
      .split(/[;|\n]/)
      .map((p) => p.trim().slice(0, 200))
      .filter(Boolean),
  ].slice(0, 50)
  return {
    ...(first === '' ? {} : { 'keyword:primary': first }),
    ...(others.length === 0 ? {} : { 'keyword:secondary': others }),
  }
}

/** A page that says what the row says and no more: what the sheet has no column for is not in it. */
const rowSource = (title: string | null, description: string | null, h1: string | null): string =>
  [
    '<!doctype html>',
    '<html>',
    '<head>',
    '<meta charset="utf-8">',
    ...(title === null ? [] : [`<title>${escapeMarkup(title)}</title>`]),
    ...(description === null ? [] : [`<meta name="description" content="${escapeMarkup(description)}">`]),
    '</head>',
    `<body>${h1 ? `<h1>${escapeMarkup(h1)}</h1>` : ''}</body>`,
    '</html>',
    '',
  ].join('\n')
