/**
 * Invented input of every kind that comes from outside, broken in every way we know: what is done with it never throws,
 * never hangs, and changes no byte that nobody asked to change. The same seed gives the same input.
 */
import { pageMovesFor } from '../../core/work/page-proof.ts'
import { decodeSheet, guardCell, readTable, writeTable } from '../../core/exchange/csv.ts'
import { readProject, writeProject } from '../../core/exchange/project.ts'
import { openZip, safePath, writeZip } from '../../core/exchange/zip.ts'
import type { Draft } from '../../core/page/edits/draft.ts'
import { encode } from '../../core/page/source/encoding.ts'
import { titleOf } from '../../core/page/read/facts.ts'
import { applyDraft } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read/read-page.ts'
import { readSource } from '../../core/page/source/source.ts'
import { defaultStyle } from '../../core/rules/house-style.ts'
import { auditPage, auditSite } from '../../core/rules/runner.ts'
import { movesOf } from '../../core/site/moves.ts'
import { emptyIndex, entryOf, updateIndex } from '../../core/site/site-index.ts'
import { fold } from '../../core/strings.ts'
import { offersOf } from '../../core/structured-data/build.ts'
import { siteSideOf } from '../../core/site/site-side.ts'
import { pieces } from '../fixtures/soup.ts'
import { differenceOfParses } from '../fixtures/two-parses.ts'

/** Numbers that look drawn by chance and are the same for the same seed (mulberry32, public domain). */
export class Chance {
  private state: number
  constructor(seed: number) {
    this.state = seed >>> 0
  }
  /** 0 up to 1, 1 not reached. */
  next(): number {
    let t = (this.state += 0x6d2b79f5)
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  /** A whole number below n. */
  below(n: number): number {
    return Math.floor(this.next() * n)
  }
  one<T>(of: readonly T[]): T {
    return of[this.below(of.length)]!
  }
  some<T>(most: number, make: () => T): T[] {
    return Array.from({ length: this.below(most + 1) }, make)
  }
}

/** Every encoding that pages come in: WHATWG Encoding Standard, 4.2, without those that Node does not read (iso-8859-16). */
export const encodings = [
  ...[
    'utf-8',
    'utf-16le',
    'utf-16be',
    'shift_jis',
    'euc-jp',
    'iso-2022-jp',
    'gbk',
    'gb18030',
    'big5',
    'euc-kr',
  ],
  ...['windows-1250', 'windows-1251', 'windows-1252', 'windows-1253', 'windows-1254', 'windows-1255'],
  ...[
    'windows-1256',
    'windows-1257',
    'windows-1258',
    'windows-874',
    'iso-8859-2',
    'iso-8859-3',
    'iso-8859-4',
  ],
  ...['iso-8859-5', 'iso-8859-6', 'iso-8859-7', 'iso-8859-8', 'iso-8859-10', 'iso-8859-13', 'iso-8859-14'],
  ...['iso-8859-15', 'koi8-r', 'koi8-u', 'macintosh', 'x-mac-cyrillic', 'ibm866'],
] as const

const words = [
  ...[
    'The',
    'lamp',
    'of',
    'Küche',
    'ソ能表',
    '灯塔',
    'маяк',
    'φάρος',
    'مـنارة',
    'מגדל',
    'ſun',
    'Mon',
    '9:00',
    '',
    ' ',
  ],
  ...[
    'constructor',
    '__proto__',
    'toString',
    '[x',
    'C++',
    '(',
    '$&',
    '\\',
    '{page}',
    '&amp;',
    '<b>',
    '"',
    "'",
    ']]>',
  ],
  ...[
    '\u0000',
    '\u200b',
    '\u2028',
    '\ud83d\ude00',
    'a'.repeat(300),
    '5000000000',
    '100%',
    '-1',
    '%zz',
    'caf%c3%a9',
  ],
] as const
const names = [
  'role',
  'class',
  'id',
  'style',
  'href',
  'src',
  'srcset',
  'itemprop',
  'itemtype',
  'aria-level',
  'lang',
  'on',
]
const tags = [
  'div',
  'p',
  'h1',
  'h2',
  'h6',
  'a',
  'img',
  'nav',
  'main',
  'section',
  'meta',
  'link',
  'base',
  'font',
  'table',
]
const addresses = [
  'b.html',
  './b.html',
  '/b.html',
  'https://s.example/b.html',
  'b%2Ehtml',
  'B.html',
  'img/x.png',
  '#a',
  '//',
  ':',
]

function markup(c: Chance): string {
  const word = () => c.one(words)
  switch (c.below(10)) {
    case 0:
      return `<${c.one(tags)} ${c.one(names)}="${word()}" ${c.one(names)}=${c.one(addresses)}>`
    case 1:
      return `</${c.one(tags)}>`
    case 2:
      return `<a href="${c.one(addresses)}">${word()}</a>`
    case 3:
      return `<style>p{background:url(${c.one(addresses)})} /* ${word()} */</style>`
    case 4:
      return `<img srcset="${c.one(addresses)} 2x, ${c.one(addresses)}" alt="${word()}" style="x:url('${c.one(addresses)}')">`
    case 5:
      return `<script type="application/ld+json">${json(c)}</script>`
    case 6:
      return `<div itemscope itemtype="https://schema.org/${c.one(['Person', 'Event', 'constructor'])}"><span itemprop="${c.one(['name', 'constructor', 'url'])}">${word()}</span></div>`
    case 7:
      return `${word()} ${word()}`
    default:
      return c.one(pieces)
  }
}

const types = ['Person', 'Event', 'Product', 'Article', 'FAQPage', 'Thing', 'Persn', 'constructor', '']
const properties = [
  'name',
  'url',
  'image',
  'offers',
  'price',
  'startDate',
  'author',
  '@id',
  '@type',
  '@context',
  '@graph',
  '__proto__',
  'openingHours',
]

/** A JSON-LD document, right or not. */
export function json(c: Chance, depth = 0): string {
  const value = (): string => {
    switch (c.below(depth > 3 ? 4 : 7)) {
      case 0:
        return JSON.stringify(c.one(words))
      case 1:
        return c.one([
          '1',
          '-0',
          '1e999',
          'true',
          'null',
          '""',
          '"2026-02-30"',
          '"Mo-Fr 09:00-25:00"',
          'NaN',
          "'x'",
        ])
      case 2:
        return JSON.stringify(`https://s.example/${c.one(addresses)}`)
      case 3:
        return JSON.stringify(c.one(types))
      case 4:
        return `[${c.some(4, value).join(',')}]`
      default:
        return json(c, depth + 1)
    }
  }
  const members = c.some(6, () => `${JSON.stringify(c.one(properties))}:${value()}`)
  const text = `{"@context":"https://schema.org","@type":${JSON.stringify(c.one(types))}${members.map((m) => `,${m}`).join('')}}`
  return depth === 0 && c.below(5) === 0 ? broken(c, text) : text
}

/** A text with a piece cut out, doubled or put in. */
function broken(c: Chance, text: string): string {
  const at = c.below(text.length + 1)
  const to = Math.min(text.length, at + c.below(12))
  return c.one([
    text.slice(0, at),
    text.slice(0, at) + text.slice(to),
    text.slice(0, to) + text.slice(at),
    text.slice(0, at) + c.one(['"', '}', '<!--', '\u0000', '\\u12', ',']) + text.slice(at),
  ])
}
function brokenBytes(c: Chance, bytes: Uint8Array): Uint8Array {
  const out = Uint8Array.from(bytes)
  for (let i = c.below(6); i > 0 && out.length > 0; i--) out[c.below(out.length)] = c.below(256)
  return c.below(6) === 0 ? out.subarray(0, c.below(out.length + 1)) : out
}

/** A page in some encoding, declared or not. */
export function page(c: Chance): Uint8Array {
  const encoding = c.one(encodings)
  const declared = c.one([
    `<meta charset="${encoding}">`,
    `<meta charset="${encoding}">`,
    `<meta http-equiv=content-type content="text/html; charset=${encoding}">`,
    '',
  ])
  const head = `<!doctype html><html lang=${c.one(['en', 'ja', 'de', ''])}><head>${declared}<title>${c.one(words)} ${c.one(words)}</title>`
  const html = `${c.below(4) === 0 ? '' : head}${c.some(30, () => markup(c)).join('')}`
  const bytes = encode(html, encoding, (missing) => `&#${missing.codePointAt(0)};`)
  return c.below(3) === 0 ? brokenBytes(c, bytes) : bytes
}

const BASE = 'https://s.example/'
const PATHS = ['a.html', 'b.html', 'img/x.png']
const pageMoves = pageMovesFor('a.html', movesOf(PATHS, new Map([['b.html', { value: 'c' }]]), BASE), BASE)

function draft(c: Chance): Draft {
  const out: Record<string, { value: string }> = {}
  const value = () => ({ value: [c.one(words), c.one(words), c.one(words)].join(' ') })
  if (c.below(2)) out.title = value()
  if (c.below(2)) out['meta:description'] = value()
  if (c.below(4) === 0) out.canonical = { value: `${BASE}x` }
  if (c.below(4) === 0) out['meta:robots'] = { value: 'noindex' }
  if (c.below(4) === 0) out.lang = { value: 'en-GB' }
  return out
}

/** What is wrong with one page, or null. */
export function tryPage(c: Chance): string | null {
  const bytes = page(c)
  const edits = draft(c)
  const read = readSource(bytes)
  if (!read.ok) return read.why.length > 10 ? null : 'refused without a reason'
  const { source } = read
  const difference = differenceOfParses(source.text)
  if (difference !== null && difference !== 'not scanned') return `read in two ways: ${difference}`
  const where = { path: 'a.html', url: `${BASE}a.html` }
  const facts = readPage(source, where)
  const index = emptyIndex(
    BASE,
    true,
    PATHS.map((p) => [p, p] as const),
  )
  updateIndex(index, 'a.html', entryOf('a.html', facts, index))
  auditPage(facts, index, defaultStyle, { date: '2026-11-25', keywords: { primary: 'lamp', secondary: [] } })
  auditSite(index, defaultStyle, '2026-11-25')
  offersOf(facts, source.text, siteSideOf(facts, index, 'Light'), 'en')
  if (applyDraft(source, {}).source.bytes !== source.bytes) return 'changed by nothing'
  const { source: after, changes, refused } = applyDraft(source, edits, pageMoves)
  // With each change put back, every byte is as it was.
  const back: Uint8Array[] = []
  let at = 0
  for (const change of changes) {
    back.push(after.bytes.subarray(at, change.at), source.bytes.subarray(change.from, change.to))
    at = change.until
  }
  back.push(after.bytes.subarray(at))
  if (Buffer.compare(Buffer.concat(back), source.bytes) !== 0) return 'a byte outside the changes differs'
  const again = readSource(Uint8Array.from(after.bytes))
  if (!again.ok) return `what was written is refused: ${again.why}`
  // Of what declares no encoding ours is a guess, which an edit may better.
  const declared = ['bom', 'meta', 'xml'].includes(source.encodingBy)
  if (declared && again.source.encoding !== source.encoding)
    return `read as ${again.source.encoding}, was ${source.encoding}`
  const wanted = edits.title?.value
  const plain =
    wanted !== undefined && !/[\0\ud800-\udfff]/.test(wanted.replace(/[\ud800-\udbff][\udc00-\udfff]/g, ''))
  if (plain && fold(wanted) !== '' && !refused.some((r) => r.key === 'title')) {
    const now = titleOf(readPage(again.source, where))?.text
    if (now !== fold(wanted))
      return `the title reads ${JSON.stringify(now)}, ${JSON.stringify(fold(wanted))} was meant`
  }
  return null
}

/** What is wrong with one JSON-LD document, or null. */
export function tryJson(c: Chance): string | null {
  const text = json(c)
  const html = `<!doctype html><html lang=en><title>x</title><script type="application/ld+json">${text.replaceAll('</', '<\\/')}</script><p>The lamp, 12 May 2026, £5.`
  const read = readSource(new TextEncoder().encode(html))
  if (!read.ok) return read.why.length > 10 ? null : 'refused without a reason'
  const facts = readPage(read.source, { path: 'a.html', url: `${BASE}a.html` })
  const index = emptyIndex(BASE, true, [['a.html', 'a.html']])
  updateIndex(index, 'a.html', entryOf('a.html', facts, index))
  for (const mark of auditPage(facts, index, defaultStyle, { date: '2026-11-25', keywords: null })) {
    if (mark.start !== null && (mark.start < 0 || mark.start > html.length))
      return `${mark.rule} stands nowhere`
    if (mark.message === '' || /undefined|\[object/.test(mark.message)) return `${mark.rule}: ${mark.message}`
  }
  auditSite(index, defaultStyle, '2026-11-25')
  return null
}

/** What is wrong with one sheet, or null. */
export function tryCsv(c: Chance): string | null {
  const cell = () => c.one([...words, '=1+1', '@x', '"', 'a;b', 'a,b', 'a\r\nb', "'=", '-', '\t'])
  const columns = ['path', 'title', 'note'].slice(0, 1 + c.below(3))
  const rows = c.some(8, () => columns.map(cell))
  const sheet = readTable(writeTable(columns, rows))
  if (!sheet.ok) return `what we wrote is refused: ${sheet.why}`
  const written = rows.filter((r) => r.some((t) => guardCell(t).trim() !== ''))
  const back = sheet.rows.map((r) => columns.map((name) => r.cells[name]!))
  if (JSON.stringify(back) !== JSON.stringify(written))
    return `${JSON.stringify(written)} came back as ${JSON.stringify(back)}`
  const decoded = decodeSheet(brokenBytes(c, new TextEncoder().encode(broken(c, writeTable(columns, rows)))))
  if (!decoded.ok) return decoded.why.length > 10 ? null : 'refused without a reason'
  const read = readTable(decoded.text)
  return read.ok || read.why.length > 10 ? null : 'refused without a reason'
}

/** What is wrong with one archive, or null. */
export function tryZip(c: Chance): string | null {
  const files = new Map(
    c.some(
      6,
      () =>
        [
          c.one([...addresses, '__proto__', 'constructor', '灯.html', 'ü.html', '../x', '/etc/x']),
          page(c),
        ] as const,
    ),
  )
  const packed = writeZip(files)
  const whole = openZip(packed)
  if (!whole.ok) return files.size === 0 ? null : `what we wrote is refused: ${whole.why}`
  const all = whole.zip.read(whole.zip.paths)
  const twice = (path: string) => [...files.keys()].filter((p) => safePath(p) === path).length > 1
  for (const [path, bytes] of all.files)
    if (files.has(path) && !twice(path) && Buffer.compare(bytes, files.get(path)!) !== 0)
      return `${path} came back otherwise`
  const damaged = openZip(brokenBytes(c, packed))
  if (!damaged.ok) return damaged.why.length > 10 ? null : 'refused without a reason'
  const { files: got, failed } = damaged.zip.read(damaged.zip.paths)
  if (got.size + failed.length < damaged.zip.paths.length) return 'a file is neither read nor named'
  return null
}

/** What is wrong with one project file, or null. */
export function tryProject(c: Chance): string | null {
  const version = c.one([1, 2])
  const project = {
    format: 'keen-quill-project',
    version,
    site: {
      name: c.one(words) || 'x',
      base: BASE,
      whole: true,
      root: c.one(['', 'site/', '../', '__proto__/']),
      takenIn: '2026-11-25',
    },
    work: Object.fromEntries(
      c.some(4, () => [
        c.one(addresses),
        {
          [c.one(['edit:title', 'state', 'note', '__proto__', 'x'])]: c.one([
            { value: 'y' },
            'drafted',
            1,
            null,
          ]),
        },
      ]),
    ),
    log: c.some(3, () => ({
      at: c.one(['2026-11-25T10:00:00.000Z', 'x']),
      label: 'Title',
      changes: c.some(2, () => ({
        [version === 1 ? 'path' : 'page']: c.one(['a.html', '', '__proto__']),
        key: c.one(['edit:title', 'constructor']),
        before: undefined,
        after: { value: 'z' },
      })),
      undone: false,
    })),
    ...(version === 2 && {
      pages: c.some(3, () => ({
        id: c.one(['a.html', 'f-1', '../x', '__proto__']),
        url: c.one(addresses),
        file: c.one(['a.html', null, '../a.html']),
        served: c.one([null, { status: 200 }]),
        partial: c.one([null, 'head', 'x']),
      })),
    }),
  }
  const packed = writeZip([
    ['project.json', new TextEncoder().encode(JSON.stringify(project))],
    ['source/a.html', page(c)],
    ['fetched/f-1.html', page(c)],
  ])
  for (const bytes of [packed, brokenBytes(c, packed)]) {
    const read = readProject(bytes)
    if (!read.ok && read.why.length <= 10) return 'refused without a reason'
    if (read.ok && /(^|\/)\.\.(\/|$)/.test(read.project.site.root))
      return 'a root outside of the archive was taken'
    if (read.ok && !readProject(writeProject(read.project)).ok) return 'written again, it cannot be read'
    if (read.ok && ({} as Record<string, unknown>).value !== undefined) return 'the prototype was written to'
  }
  return null
}

export const kinds = { pages: tryPage, json: tryJson, csv: tryCsv, zip: tryZip, project: tryProject }
export type Kind = keyof typeof kinds

/** Seconds after which one input counts as a hang; what is tried takes milliseconds. */
const HANG = 20

/** Tries one input of a kind; what is wrong with it, or null. Each has a seed of its own, so that one can be tried again. */
export function tryOne(kind: Kind, seed: number): string | null {
  const before = Date.now()
  try {
    const wrong = kinds[kind](new Chance(seed))
    return (
      wrong ??
      (Date.now() - before > HANG * 1000 ? `took ${Math.round((Date.now() - before) / 1000)} s` : null)
    )
  } catch (error) {
    return `threw ${(error as Error).stack?.split('\n').slice(0, 3).join(' ')}`
  }
}
