/**
 * Writes stand-ins/site/, its keywords and its house style from stand-ins/copy/pages.txt: invented copy in a made-up place.
 *
 * A page begins with `@ path | primary keyword | secondary; keywords`. Then, a line each: T title, T2 a second one,
 * D description, D2, H extra head line, L language, C none: no charset, K none: no canonical, E encoding,
 * N crlf or bom, B none: no doctype, V a viewport or none, S none: no skip link, W another tag than main, M into the
 * menu, F into the footer, X behind main, J JSON-LD; lines with a tag are main content.
 */
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { writeTable } from '../core/exchange/csv.ts'
import { encode } from '../core/page/source/encoding.ts'
import { dusk } from './dusk.ts'
import { defaultStyle, writeHouseStyle } from '../core/rules/house-style.ts'
import { addressOf } from '../core/addresses/addresses.ts'

const root = join(import.meta.dirname, '../stand-ins')
const BASE = 'https://farrowskerry.example/'

interface Page {
  path: string
  primary: string
  secondary: string[]
  fields: Map<string, string>
  main: string[]
}

function readCopy(text: string): Page[] {
  const pages: Page[] = []
  for (const line of text.split('\n')) {
    if (line.startsWith('@ ')) {
      const [path, primary, secondary] = line
        .slice(2)
        .split('|')
        .map((s) => s.trim())
      const list = (secondary ?? '').split(';').map((s) => s.trim())
      pages.push({
        path: path!,
        primary: primary!,
        secondary: list.filter(Boolean),
        fields: new Map(),
        main: [],
      })
    } else if (line.startsWith('<')) pages.at(-1)!.main.push(line)
    else if (line !== '') {
      const space = line.indexOf(' ')
      pages.at(-1)!.fields.set(line.slice(0, space), line.slice(space + 1))
    }
  }
  return pages
}

const escape = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')
const quote = (text: string) => escape(text).replace(/"/g, '&quot;')

const sections = [
  ['crossings/', 'Crossings'],
  ['tours/', 'Tours'],
  ['stay/', 'Stay'],
  ['courses/', 'Courses'],
  ['evenings/', 'Evenings'],
  ['stories/', 'Stories'],
  ['kitchen/', 'Kitchen'],
  ['shop/', 'Shop'],
  ['visit/', 'Visit'],
]
const footer = [
  ['jobs/', 'Work with us'],
  ['videos/', 'Films'],
  ['contact.html', 'Contact'],
  ['Press/Old%20Notice.html', 'Press'],
  ['da/', 'Dansk'],
]

function render({ path, fields, main: content }: Page): string {
  const up = '../'.repeat(path.split('/').length - 1)
  const links = (list: string[][]) => list.map(([to, name]) => `<a href="${up}${to}">${name}</a>`).join(' ')
  const lang = fields.get('L') ?? 'en'
  const has = (f: string) => fields.get(f)
  const viewport = has('V') ?? 'width=device-width, initial-scale=1'
  const main = has('W') ?? 'main'
  const head = [
    has('C') === 'none' ? null : `<meta charset="${has('E') ? 'iso-8859-1' : 'utf-8'}">`,
    has('T') === undefined ? null : `<title>${escape(has('T')!)}</title>`,
    has('T2') === undefined ? null : `<title>${escape(has('T2')!)}</title>`,
    viewport === 'none' ? null : `<meta name="viewport" content="${viewport}">`,
    has('D') === undefined ? null : `<meta name="description" content="${quote(has('D')!)}">`,
    has('D2') === undefined ? null : `<meta name="description" content="${quote(has('D2')!)}">`,
    has('K') === 'none' ? null : `<link rel="canonical" href="${addressOf(path, BASE)}">`,
    has('H') ?? null,
    `<link rel="stylesheet" href="${up}style.css">`,
  ].filter((l) => l !== null)
  const json = has('J')
  return [
    ...(has('B') ? [] : ['<!doctype html>']),
    lang === 'none' ? '<html>' : `<html lang="${lang}">`,
    '<head>',
    ...head.map((l) => '  ' + l),
    '</head>',
    '<body>',
    ...(has('S') ? [] : ['<a class="skip" href="#main">To the content</a>']),
    `<header><a class="home" href="${up || './'}">Farrowskerry Light</a>${has('M') ?? ''}<nav aria-label="Main">${links(sections)}</nav></header>`,
    `<${main} id="main">`,
    ...content,
    `</${main}>`,
    ...(has('X') ? [has('X')!] : []),
    `<footer>${has('F') ?? ''}<p>${links(footer)}</p><p>A made-up place for trying things out. Nobody lives here but the gulls.</p></footer>`,
    ...(json ? ['<script type="application/ld+json">', json, '</script>'] : []),
    '</body>',
    '</html>',
    '',
  ].join('\n')
}

function bytesOf(page: Page): Uint8Array {
  let html = render(page)
  if (page.fields.get('N') === 'crlf') html = html.replaceAll('\n', '\r\n')
  if (page.fields.get('N') === 'bom') html = '\ufeff' + html
  return encode(html, page.fields.get('E') ?? 'utf-8', (c) => `&#${c.codePointAt(0)};`)
}

const drawing = (body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 320 200"><rect width="320" height="200" fill="#e6dfd1"/>${body}</svg>\n`

/** Every file of the demo by its path under stand-ins/. */
export function demoFiles(): Map<string, Uint8Array> {
  const pages = readCopy(readFileSync(join(root, 'copy/pages.txt'), 'utf8'))
  const text = (s: string) => new TextEncoder().encode(s)
  return new Map([
    ...pages.map((p): [string, Uint8Array] => [`site/${p.path}`, bytesOf(p)]),
    [
      'site/style.css',
      text(
        'body { margin: 0 auto; max-width: 42rem; padding: 1rem; font: 18px/1.5 Georgia, serif }\nnav a { margin-right: .6rem }\n.display { font-size: 2.4rem; margin: 0 }\n.small { font-size: 1.4rem }\n',
      ),
    ],
    [
      'site/img/tower.svg',
      text(
        drawing(
          '<path d="M140 180 150 60h20l10 120zM146 40h28v20h-28zM100 180h120v20H100z" fill="#fff" stroke="#1b2733"/>',
        ),
      ),
    ],
    [
      'site/img/stairs.svg',
      text(
        drawing(
          '<path d="M60 180h40v-30h40v-30h40V90h40V60h40" fill="none" stroke="#1b2733" stroke-width="6"/>',
        ),
      ),
    ],
    [
      'site/img/record.svg',
      text(
        drawing(
          '<circle cx="160" cy="100" r="80" fill="#1b2733"/><circle cx="160" cy="100" r="24" fill="#a3243b"/>',
        ),
      ),
    ],
    [
      'site/img/lens.svg',
      text(
        drawing(
          [70, 50, 32, 14]
            .map(
              (r) =>
                `<ellipse cx="160" cy="100" rx="${r}" ry="${r + 16}" fill="none" stroke="#1b2733" stroke-width="4"/>`,
            )
            .join(''),
        ),
      ),
    ],
    [
      'site/img/stew.svg',
      text(
        drawing(
          '<path d="M90 90h140v20a70 50 0 0 1-140 0zM70 90h180" fill="#fff" stroke="#1b2733" stroke-width="5"/><path d="M130 70q8-14 0-28M160 70q8-14 0-28M190 70q8-14 0-28" fill="none" stroke="#1b2733" stroke-width="3"/>',
        ),
      ),
    ],
    [
      'site/img/cake.svg',
      text(
        drawing(
          '<path d="M90 150V90a70 24 0 0 1 140 0v60z" fill="#d9a066" stroke="#1b2733" stroke-width="4"/>',
        ),
      ),
    ],
    ['site/img/dusk.png', dusk()],
    [
      'house-style.json',
      text(
        writeHouseStyle({
          ...defaultStyle,
          limits: { ...defaultStyle.limits, textShortest: 40, headingGap: 100, pageHeaviest: 500 },
          rules: { 'heading-keyword-h2': 'off', 'data-none': 'off' },
          addresses: [
            { match: '/courses/*', rules: { 'data-none': 'nit' } },
            { match: '/jobs/', type: 'landing' },
            {
              match: '/stories/*.html',
              type: 'article',
              limits: { headingFewest: 3 },
              rules: { 'heading-keyword-h2': 'nit' },
            },
          ],
        }),
      ),
    ],
    [
      'keywords.csv',
      text(
        writeTable(
          ['path', 'primary', 'secondary'],
          pages.map((p) => [p.path, p.primary, p.secondary.join('; ')]),
        ),
      ),
    ],
  ])
}

if (process.argv[1] === import.meta.filename) {
  rmSync(join(root, 'site'), { recursive: true, force: true })
  for (const [path, bytes] of demoFiles()) {
    mkdirSync(dirname(join(root, path)), { recursive: true })
    writeFileSync(join(root, path), bytes)
  }
}
