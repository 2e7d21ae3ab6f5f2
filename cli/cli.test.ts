/** The command line's contract: shapes, exit status, and nothing half-written. */
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { writeProject } from '../core/exchange/project.ts'
import { writeZip } from '../core/exchange/zip.ts'
import { filePage } from '../core/site/page-identity.ts'
import type { Decisions } from '../core/work/decisions.ts'

const root = join(import.meta.dirname, '..')
const quill = (args: string[], input = '') => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(root, 'scripts/quill.mjs'), ...args], {
    cwd: root,
    encoding: 'utf8',
    input,
  })
  return { status, stdout, stderr }
}
function folder(files: Record<string, string | Uint8Array>): string {
  const dir = mkdtempSync(join(tmpdir(), 'kq-cli-'))
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(dirname(join(dir, path)), { recursive: true })
    writeFileSync(join(dir, path), content)
  }
  return dir
}
const GOOD =
  '<!doctype html>\r\n<html lang="en"><head><meta charset="utf-8"><title>A visit to the lighthouse by boat</title><meta name="description" content="Everything to know before you take the boat: steps, ramps, dogs, toilets and tides."><link rel="canonical" href="https://site.example/visit/"></head><body><main><h1>Visit</h1></main></body></html>'

describe('quill audit', () => {
  it('prints the shapes of the contract', () => {
    const dir = folder({
      'visit/index.html': GOOD,
      'b.html': '<title>Shop</title><h1>a</h1>\n  <h3>b</h3>',
      'empty.html': '',
      'x.txt': '',
    })
    const { status, stdout, stderr } = quill(['audit', dir, '--format', 'json'])
    expect(stderr).toBe('')
    expect(status).toBe(0)
    const report = JSON.parse(stdout)
    expect(report).toMatchObject({
      tool: 'keen-quill',
      base: 'https://site.example/',
      unread: [{ path: 'empty.html', why: expect.stringMatching(/empty/) }],
    })
    const [b, visit] = report.pages
    expect(visit).toMatchObject({
      path: 'visit/index.html',
      url: 'https://site.example/visit/',
      title: 'A visit to the lighthouse by boat',
      canonical: 'https://site.example/visit/',
      robots: [],
      lang: 'en',
      words: 1,
      images: 0,
    })
    expect(visit.marks.map((m: { rule: string; repair: boolean }) => [m.rule, m.repair])).toEqual([
      ['text-thin', false],
      ['shell-viewport', true],
      ['data-none', false],
    ])
    expect(visit.headings).toEqual([
      { level: 1, text: 'Visit', landmark: 'main', line: 2, column: 288, start: 304, end: 318 },
    ])
    expect(b.marks).toContainEqual({
      rule: 'heading-skip',
      severity: 'flaw',
      message: 'H3 follows H1: a level is missing.',
      line: 2,
      column: 3,
      start: 32,
      end: 42,
      repair: true,
    })
    expect(report.totals).toEqual({ pages: 2, blocker: 0, flaw: 7, nit: 8 })
  })
  it('exits 1 when blockers remain at their effective severity, 0 when the house lowers them', () => {
    const dir = folder({ 'a.html': GOOD.replace(/<h1>.*<\/h1>/, '') })
    expect(quill(['audit', dir]).status).toBe(1)
    writeFileSync(join(dir, 'style.json'), '{"rules":{"h1-missing":"nit"}}')
    expect(quill(['audit', join(dir, 'a.html'), '--style', join(dir, 'style.json')]).status).toBe(0)
  })
  it('reads a ZIP as a whole site and a file as one page, keywords by path, and prints CSV', () => {
    const zip = join(folder({}), 'site.zip')
    writeFileSync(
      zip,
      writeZip([['a.html', new TextEncoder().encode(GOOD.replace('<h1>', '<a href=gone.html>x</a><h1>'))]]),
    )
    expect(quill(['audit', zip, '--format', 'csv']).stdout).toMatch(
      /^path,url,rule,severity,message,line,column\r\n(?:a\.html,.*\r\n)*a\.html,.*link-broken/,
    )
    const dir = folder({
      'a.html': GOOD.replace('<h1>', '<a href=gone.html>x</a><h1>'),
      'k.csv': 'path,primary,secondary\na.html,fog horn,x;y\n',
    })
    const single = quill(['audit', join(dir, 'a.html')]).stdout
    expect(single).not.toContain('link-broken')
    expect(quill(['audit', dir, '--keywords', join(dir, 'k.csv')]).stdout).toContain(
      'title-keyword: “fog horn” is not in the title',
    )
  })
  it('exits 2 with one line that says what to do', () => {
    for (const [args, why] of [
      [['audit', '/nowhere'], /there is no such file or folder/],
      [['audit'], /Name a page/],
      [['audit', '.', '--date', '23 November'], /YYYY-MM-DD/],
      [['audit', '.', '--base-url', 'nonsense address'], /not an http or https/],
      [['audit', '.', '--no-such-flag'], /Unknown option/],
      [['conjure'], /no command “conjure”/],
    ] as const) {
      const { status, stderr, stdout } = quill([...args])
      expect([status, stdout, stderr.trim().split('\n').length]).toEqual([2, '', 1])
      expect(stderr).toMatch(why)
    }
  })
})

describe('quill apply', () => {
  it('writes the whole site with only those bytes changed', () => {
    const dir = folder({
      'visit/index.html': GOOD,
      'img/x.png': Uint8Array.from([137, 80, 78, 71]),
      'changes.csv': '',
    })
    const sheet = join(
      folder({
        'c.csv': 'path,title,description,robots\nvisit/index.html,Tides & "ramps",,"noindex, follow"\n',
      }),
      'c.csv',
    )
    const out = join(folder({}), 'out')
    expect(quill(['apply', dir, '--changes', sheet, '--out', out])).toMatchObject({ status: 0 })
    expect(readdirSync(out, { recursive: true }).sort()).toEqual(readdirSync(dir, { recursive: true }).sort())
    expect(readFileSync(join(out, 'visit/index.html'), 'utf8')).toBe(
      GOOD.replace('A visit to the lighthouse by boat', 'Tides &amp; "ramps"').replace(
        '></head>',
        '><meta name="robots" content="noindex, follow"></head>',
      ),
    )
  })
  it('exits 2, names everything, and writes nothing', () => {
    const dir = folder({ 'a.html': '<title>open' })
    const run = (csv: string, ...more: string[]) => {
      const out = join(folder({}), 'out')
      const sheet = join(folder({ 'c.csv': csv }), 'c.csv')
      const result = quill(['apply', dir, '--changes', sheet, '--out', out, ...more])
      expect(result.status).toBe(2)
      expect(existsSync(out)).toBe(false)
      return result.stderr
    }
    const all = run('path,title\nb.html,x\na.html,y\na.html,z\n')
    expect(all).toMatch(/row 2: no page b\.html/)
    expect(all).toMatch(/row 4: a second row for a\.html/)
    expect(all).toMatch(/a\.html, title: The title is never closed/)
    expect(run('path,slug\na.html,b\n')).toMatch(/--base-url/)
    expect(run('url,title\nhttps://x.example/a.html,t\n')).toMatch(/--base-url/)
    expect(run('path,titel\na.html,t\n')).toMatch(/unknown column titel/)
    expect(run('path,title\na.html,"t\n')).toMatch(/double quote/)
  })
})

describe('quill apply with slugs', () => {
  const link = (to: string) =>
    `<!doctype html><html lang="en"><head><title>A page of the site with links</title></head><body><a href="${to}">on</a></body></html>`
  const site = {
    'index.html': link('a/'),
    'a/index.html': link('b.html'),
    'a/b.html': link('../c.html'),
    'a/pic.png': Uint8Array.from([137, 80]),
    'c.html': link('https://s.example/a/b.html#x'),
    'sitemap.xml': '<urlset><url><loc>https://s.example/a/b.html</loc></url></urlset>',
    'redirects.csv': 'from,to,status\r\nhttps://s.example/first.html,https://s.example/c.html,301\r\n',
  }
  const run = (csv: string, files: Record<string, string | Uint8Array> = site) => {
    const out = join(folder({}), 'out')
    const sheet = join(folder({ 'c.csv': csv }), 'c.csv')
    return {
      out,
      ...quill([
        'apply',
        folder(files),
        '--changes',
        sheet,
        '--out',
        out,
        '--base-url',
        'https://s.example/',
      ]),
    }
  }
  const read = (out: string, path: string) => readFileSync(join(out, path), 'utf8')

  it('moves a folder with the pages under it, and everything that points there follows', () => {
    const { out, status, stdout } = run(
      'path,slug,title\na/index.html,z,\nc.html,sea,"The sea, seen from the rock by night"\n',
    )
    expect(status).toBe(0)
    expect(stdout).toContain('4 at new addresses')
    expect((readdirSync(out, { recursive: true }) as string[]).filter((p) => p.includes('.')).sort()).toEqual(
      ['index.html', 'redirects.csv', 'sea.html', 'sitemap.xml', 'z/b.html', 'z/index.html', 'z/pic.png'],
    )
    expect(read(out, 'index.html')).toBe(link('z/'))
    expect(read(out, 'z/index.html')).toBe(link('b.html'))
    expect(read(out, 'z/b.html')).toBe(link('../sea.html'))
    expect(read(out, 'sea.html')).toContain('<title>The sea, seen from the rock by night</title>')
    expect(read(out, 'sea.html')).toContain('href="https://s.example/z/b.html#x"')
    expect(read(out, 'sitemap.xml')).toContain('<loc>https://s.example/z/b.html</loc>')
    expect(read(out, 'redirects.csv').trim().split('\r\n')).toEqual([
      'from,to,status',
      'https://s.example/first.html,https://s.example/sea.html,301',
      'https://s.example/a/b.html,https://s.example/z/b.html,301',
      'https://s.example/a/,https://s.example/z/,301',
      'https://s.example/a/pic.png,https://s.example/z/pic.png,301',
      'https://s.example/c.html,https://s.example/sea.html,301',
    ])
  })
  it('writes no redirects and moves nothing where every slug is as it was', () => {
    const { out, status } = run('path,slug\na/b.html,b\n')
    expect(status).toBe(0)
    expect(read(out, 'redirects.csv')).toBe(site['redirects.csv'])
    expect(read(out, 'a/b.html')).toBe(site['a/b.html'])
  })
  it.each([
    [
      'path,slug\na/b.html,two words\n',
      /row 2: the slug “two words” cannot stand in an address; “two-words” can/,
    ],
    ['path,slug\nindex.html,home\n', /index\.html: The home page has no slug/],
    ['path,slug\na/index.html,c.html\n', /c\.html already has this address/],
    ['path,slug\na/b.html,../../x\n', /cannot stand in an address/],
  ])('names what cannot be, and writes nothing: %s', (csv, why) => {
    const { out, status, stderr } = run(csv)
    expect(status).toBe(2)
    expect(stderr).toMatch(why)
    expect(existsSync(out)).toBe(false)
  })
})

describe('quill measure', () => {
  it('prints one object a line, from arguments or stdin', () => {
    const [line] = quill(['measure', 'Visit the light']).stdout.split('\n')
    expect(JSON.parse(line!)).toEqual({
      text: 'Visit the light',
      graphemes: 15,
      px: 113.03,
      wide: { shown: 'Visit the light', cut: false, state: 'fits' },
      narrow: { shown: 'Visit the light', cut: false, state: 'fits' },
    })
    const lines = quill(['measure', '--as', 'description'], 'one\ntwo words\n').stdout.trim().split('\n')
    expect(lines.map((l) => JSON.parse(l).text)).toEqual(['one', 'two words'])
  })
})

describe('quill vocabulary', () => {
  it('prints what the table knows, by any way of writing the name', () => {
    const offers = quill(['vocabulary', 'https://schema.org/offers', '--format', 'json'])
    expect(offers.status).toBe(0)
    expect(JSON.parse(offers.stdout)).toMatchObject({
      id: 'offers',
      kind: 'property',
      ranges: ['Demand', 'Offer'],
      supersededBy: null,
    })
    expect(quill(['vocabulary', 'schema:FAQPage']).stdout).toMatch(
      /^FAQPage {2}class\n {2}comes from: WebPage\n/,
    )
  })
  it('names the nearest where there is none', () => {
    const { status, stdout, stderr } = quill(['vocabulary', 'Artcle'])
    expect([status, stdout]).toEqual([2, ''])
    expect(stderr).toBe('quill: schema.org has no “Artcle”; did you mean Article?\n')
    expect(quill(['vocabulary']).status).toBe(2)
  })
})

describe('quill check-data', () => {
  it('prints the shapes of the contract, for documents and for pages', () => {
    const dir = folder({
      'lamp.jsonld':
        '{\n  "@context": "https://schema.org",\n  "@type": "Product",\n  "name": "Lamp",\n  "offers": { "@type": "Offer", "price": "3" }\n}',
      'page.html':
        '<title>x</title>\n<script type="application/ld+json">{"@context":"https://schema.org","@type":"FAQPage","mainEntity":{"@type":"Question","name":"Why?","acceptedAnswer":{"@type":"Answer","text":"So."}}}</script><h1>Why?</h1><p>So.',
      'broken.json': '{"@type":"Event",}',
    })
    const { status, stdout } = quill([
      'check-data',
      join(dir, 'lamp.jsonld'),
      join(dir, 'page.html'),
      '--format',
      'json',
    ])
    expect(status).toBe(0)
    const [lamp, page] = JSON.parse(stdout).files
    expect(lamp.blocks).toHaveLength(1)
    expect(lamp.blocks[0]).toMatchObject({
      line: 1,
      types: ['Product'],
      features: [
        { feature: 'Product', eligible: false, missing: ['offers.priceCurrency|offers.priceSpecification'] },
      ],
    })
    expect(lamp.blocks[0].marks).toContainEqual({
      rule: 'data-required',
      severity: 'flaw',
      message:
        'Product: price currency or price specification of the offers is missing; the feature requires it.',
      line: 5,
      column: 13,
      start: 90,
      end: 91,
      repair: false,
      pointer: '/offers',
    })
    expect(page.blocks[0]).toMatchObject({
      line: 2,
      types: ['FAQPage'],
      features: [
        { feature: 'FAQPage', eligible: true, missing: [], retired: { since: '2023-08', scope: 'limited' } },
      ],
      marks: [{ rule: 'data-retired', pointer: '' }],
    })
    const broken = quill(['check-data', join(dir, 'broken.json')])
    expect(broken.status).toBe(1)
    expect(broken.stdout).toMatch(
      /blocker 1:18 {2}\/ {2}data-syntax: There is a comma before the closing brace/,
    )
    expect(quill(['check-data', join(dir, 'nowhere.json')]).status).toBe(2)
  })
})

describe('a project file in place of a site', () => {
  const BASE = 'https://s.example/'
  const page = (title: string, more = '') =>
    `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><title>${title}</title></head><body><main><h1>${title}</h1>${more}</main></body></html>`
  function projectFile(): string {
    const sources = {
      'site/index.html': page('Home', '<a href="tours/">Tours</a>'),
      'site/tours/index.html': page('Tours of the light'),
      'site/style.css': 'p{}',
    }
    const pages = ['site/index.html', 'site/tours/index.html'].map((file, i) =>
      filePage(`page-${i}`, file, BASE + (i === 0 ? '' : 'tours/')),
    )
    const project = writeProject({
      site: { name: 'Light', base: BASE, whole: true, root: 'site/', takenIn: '2026-11-25' },
      pages,
      work: new Map<string, Decisions>([
        ['', { style: { siteName: 'Light' } }],
        ['page-0', { 'edit:title': { value: '{h1} | {site}' } }],
        ['page-1', { 'edit:slug': { value: 'walks' }, 'edit:heading@9999': { level: 2 } }],
      ]),
      log: [],
      addresses: null,
      files: new Map(Object.entries(sources).map(([path, text]) => [path, new TextEncoder().encode(text)])),
      fetched: new Map(),
    })
    return join(folder({ 'light.zip': project }), 'light.zip')
  }
  it('is judged as its decisions leave it, at the addresses they lead to', () => {
    const { stdout } = quill(['audit', projectFile(), '--format', 'json'])
    const { base, pages } = JSON.parse(stdout) as { base: string; pages: Record<string, string>[] }
    expect(base).toBe(BASE)
    expect(pages.map(({ path, url, title }) => [path, url, title])).toEqual([
      ['site/index.html', BASE, 'Home | Light'],
      ['site/tours/index.html', `${BASE}walks/`, 'Tours of the light'],
    ])
  })
  it('is handed off whole or by its changed files alone; what cannot be carried out is named', () => {
    const out = join(folder({}), 'out')
    const { status, stdout, stderr } = quill(['hand-off', projectFile(), '--out', out])
    expect(status).toBe(0)
    expect(stdout).toMatch(/1 file changed, 1 at new addresses/)
    expect(stderr).toMatch(/not carried out: site\/tours\/index\.html, heading@9999/)
    const files = readdirSync(out, { recursive: true, encoding: 'utf8' }).sort()
    expect(files.filter((f) => /\./.test(f))).toEqual([
      'site/changes.csv',
      'site/index.html',
      'site/redirects.csv',
      'site/style.css',
      'site/walks/index.html',
    ])
    expect(readFileSync(join(out, 'site/index.html'), 'utf8')).toBe(
      page('Home', '<a href="walks/">Tours</a>').replace('<title>Home', '<title>Home | Light'),
    )
    expect(readFileSync(join(out, 'site/redirects.csv'), 'utf8')).toContain(`${BASE}tours/,${BASE}walks/,301`)
    const less = join(folder({}), 'out')
    quill(['hand-off', projectFile(), '--out', less, '--changed-only'])
    expect(existsSync(join(less, 'site/style.css'))).toBe(false)
    expect(existsSync(join(less, 'site/walks/index.html'))).toBe(true)
  })
  it('takes further changes, repairs, and has its data checked', () => {
    const file = projectFile()
    const changes = join(folder({ 'c.csv': 'path,description\nsite/index.html,About the light\n' }), 'c.csv')
    const out = join(folder({}), 'out')
    // One of the project's own edits cannot be carried out, and apply does all or nothing.
    expect(quill(['apply', file, '--changes', changes, '--out', out])).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/heading@9999/),
    })
    expect(existsSync(out)).toBe(false)
    expect(quill(['check-data', file]).stdout).toContain('site/index.html\n  describes nothing')
  })
  it('is asked for: anything else cannot be handed off', () => {
    const zip = join(folder({ 'a.zip': writeZip([['a.html', new Uint8Array([60])]]) }), 'a.zip')
    expect(quill(['hand-off', zip, '--out', join(folder({}), 'out')])).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/is not a project file/),
    })
  })
})

describe('addresses, suggestions, and pages taken in again', () => {
  it('audits the pages of a sitemap, fetched as its robots.txt allows', () => {
    const { stdout, status } = quill([
      'audit',
      'https://tidewatch.example/sitemap.xml',
      '--format',
      'json',
      '--date',
      '2026-11-26',
    ])
    expect(status).toBe(1)
    const report = JSON.parse(stdout)
    expect(report.base).toBe('https://tidewatch.example/')
    expect(report.pages.map((p: { path: string }) => p.path)).toContain('https://tidewatch.example/history/')
    expect(report.unread.map((u: { path: string }) => u.path)).toEqual([
      'https://tidewatch.example/staff/rota/',
      'https://tidewatch.example/brochure.pdf',
      'https://boats.elsewhere.example/',
    ])
    const rules = (path: string) =>
      report.pages.find((p: { path: string }) => p.path === path).marks.map((m: { rule: string }) => m.rule)
    expect(rules('https://tidewatch.example/book/')).toContain('address-fails')
    expect(report.site.marks.map((m: { rule: string }) => m.rule)).toEqual(
      expect.arrayContaining(['address-redirects', 'sitemap-dead']),
    )
  })
  it('audits one page by its address, and no more pages than it may', () => {
    const one = JSON.parse(quill(['audit', 'https://tidewatch.example/history/', '--format', 'json']).stdout)
    expect(one.pages).toHaveLength(1)
    expect(one.pages[0].description).toMatch(/^The café on the point was the keeper’s house/)
    const few = JSON.parse(
      quill(['audit', 'https://tidewatch.example/sitemap.xml', '--limit', '2', '--format', 'json']).stdout,
    )
    expect(few.pages).toHaveLength(2)
  })
  it.each([
    [['audit', 'https://nowhere.example/'], /No site has this name/],
    [['audit', 'http://127.0.0.1/'], /address within a network/],
    [['audit', 'https://tidewatch.example/', 'x.html'], /one address is audited at a time/],
    [['audit', 'https://tidewatch.example/', '--limit', '0'], /--limit/],
    [['suggestions', '.'], /--sheet/],
    [['rebase', 'a.html'], /two files/],
  ])('%j is refused with what to do', (args, why) => {
    expect(quill(args)).toMatchObject({ status: 2, stderr: expect.stringMatching(why) })
  })
  it('matches a consultant’s sheet', () => {
    const dir = folder({
      'a.html': GOOD,
      's.csv': 'Page;New title;Comment\r\nsite.example/a.html;A better title;now\r\n/b.html;x;\r\n',
    })
    // The sheet is no page of the site.
    const { stdout } = quill(['suggestions', dir, '--sheet', join(dir, 's.csv'), '--format', 'json'])
    expect(JSON.parse(stdout)).toMatchObject({
      columns: { address: 'Page', title: 'New title', note: 'Comment' },
      matched: [{ row: 2, path: 'a.html', title: 'A better title', note: 'now' }],
      unmatched: [{ row: 3, address: '/b.html', near: ['https://site.example/a.html'] }],
      twice: [],
    })
  })
  it('says what becomes of edits', () => {
    const old = '<title>Old</title><h1>The tides of the point</h1><h2>Ebb</h2>'
    const dir = folder({
      'old.html': old,
      'new.html': '<title>New</title><p>A word before.</p><h1>The tides of the point</h1>',
      'edits.json': JSON.stringify({
        title: { value: 'New' },
        [`heading@${old.indexOf('<h1>')}`]: { value: 'Tides' },
        [`heading@${old.indexOf('<h2>')}`]: { value: 'Ebb and flood' },
      }),
    })
    const { stdout, status } = quill([
      'rebase',
      join(dir, 'old.html'),
      join(dir, 'new.html'),
      '--edits',
      join(dir, 'edits.json'),
      '--format',
      'json',
    ])
    expect(status).toBe(0)
    expect(JSON.parse(stdout)).toEqual([
      { target: 'title', now: 'title', status: 'in place' },
      { target: 'heading@18', now: 'heading@39', status: 'still to do' },
      { target: 'heading@49', now: null, status: 'gone' },
    ])
  })
  it('lists a page’s text blocks, and applies edits by target', () => {
    const html =
      '<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><title>Old</title></head><body><main><p>See <b>the</b> light.</p><pre>a  b</pre></main></body></html>'
    const dir = folder({ 'site/a.html': html })
    const listed = JSON.parse(quill(['blocks', join(dir, 'site/a.html'), '--format', 'json']).stdout)
    expect(listed).toMatchObject([
      {
        target: `text@${html.indexOf('<p>')}`,
        tag: 'p',
        text: 'See the light.',
        landmark: 'main',
        main: true,
        editable: true,
        why: null,
        inline: ['b'],
      },
      { tag: 'pre', editable: false, why: expect.stringMatching(/preformatted/) },
    ])
    const edits = (target: string) => {
      const file = join(
        folder({
          'e.json': JSON.stringify({
            pages: { 'a.html': { [target]: { value: 'See our light & stay.' }, title: { value: 'New' } } },
          }),
        }),
        'e.json',
      )
      const out = join(folder({}), 'out')
      return { out, ...quill(['apply', join(dir, 'site'), '--edits', file, '--out', out]) }
    }
    const done = edits(listed[0].target)
    expect(done.status).toBe(0)
    expect(readFileSync(join(done.out, 'a.html'), 'utf8')).toBe(
      html.replace('Old', 'New').replace('<b>the</b> light.', '<b>our</b> light &amp; stay.'),
    )
    const refused = edits('text@3')
    expect(refused).toMatchObject({ status: 2, stderr: expect.stringMatching(/no longer in the source/) })
    expect(existsSync(refused.out)).toBe(false)
  })
  it('prints the keyword map, clashes, and pages for further phrases', () => {
    const knots =
      '<html lang="en"><head><title>Knot courses</title></head><body><main><h1>Knots</h1><p>A knot course in May.</p></main></body></html>'
    const dir = folder({
      'site/knots.html': knots,
      'site/rope.html': knots.replace('Knot courses', 'Rope').replace('A knot course', 'Rope'),
      'k.csv': 'path,primary,secondary\nknots.html,knot course,rope\nrope.html,courses in knots,\n',
      'p.csv': 'phrase,monthly\nrope,100\nzeppelin,5\n',
    })
    const { stdout, status } = quill([
      'keywords',
      join(dir, 'site'),
      '--keywords',
      join(dir, 'k.csv'),
      '--phrases',
      join(dir, 'p.csv'),
      '--format',
      'json',
    ])
    expect(status).toBe(0)
    expect(JSON.parse(stdout)).toMatchObject({
      pages: [
        {
          path: 'knots.html',
          primary: 'knot course',
          secondary: ['rope'],
          placement: {
            title: true,
            description: null,
            slug: true,
            h1: false,
            h2: null,
            lead: true,
            body: true,
            alt: null,
          },
          matches: 1,
        },
        { path: 'rope.html', primary: 'courses in knots', placement: { title: false, slug: false } },
      ],
      clashes: [{ phrase: 'knot course', pages: ['knots.html', 'rope.html'] }],
      suggestions: [{ phrase: 'rope', path: 'rope.html' }],
    })
  })
})
