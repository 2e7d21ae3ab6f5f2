/**
 * Input that once hung, crashed or misled: one test for each kind that was tried. Growth is in tests/fixtures/growth.ts, encodings in
 * tests/reference/encodings.spec.ts, a command that is killed while writing in check-real.
 */
import { matchesAddress } from '../../core/addresses/match-address.ts'
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { deflateRawSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { decodeSheet } from '../../core/exchange/csv.ts'
import { pageMovesFor } from '../../core/work/page-proof.ts'
import { readProject } from '../../core/exchange/project.ts'
import { crc32 } from '../../core/exchange/zip-read.ts'
import { openZip, writeZip } from '../../core/exchange/zip.ts'
import { onePage, pageFrom } from '../../core/page/read/boundary.ts'
import type { Draft } from '../../core/page/edits/draft.ts'
import { prescan } from '../../core/page/source/encoding.ts'
import { applyDraft } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read/read-page.ts'
import { readSource } from '../../core/page/source/source.ts'
import { defaultStyle, styleFor, type HouseStyle } from '../../core/rules/house-style.ts'
import { auditPage } from '../../core/rules/runner.ts'
import { addressKey } from '../../core/addresses/addresses.ts'
import { movesOf } from '../../core/site/moves.ts'
import { emptyIndex, entryOf, updateIndex } from '../../core/site/site-index.ts'
import { offersOf } from '../../core/structured-data/build.ts'
import { hoursIn } from '../../core/structured-data/figures-in-text.ts'
import { siteSideOf } from '../../core/site/site-side.ts'
import { commonSuffix, withoutSite } from '../../core/wording/patterns.ts'

const BASE = 'https://s.example/'
const utf8 = (text: string) => new TextEncoder().encode(text)
const sourceOf = (page: string | Uint8Array) => {
  const read = readSource(typeof page === 'string' ? utf8(page) : page)
  if (!read.ok) throw new Error(read.why)
  return read.source
}
/** A page through reading, index, rules and offers: the ids of its marks. */
function marksOf(html: string, style: HouseStyle = defaultStyle, more: string[] = []): string[] {
  const source = sourceOf(html)
  const page = readPage(source, { path: 'a.html', url: `${BASE}a.html` })
  const index = emptyIndex(
    BASE,
    true,
    ['a.html', ...more].map((p) => [p, p] as const),
  )
  updateIndex(index, 'a.html', entryOf('a.html', page, index))
  offersOf(page, source.text, siteSideOf(page, index, 'Light'), 'en')
  return auditPage(page, index, style, { date: '2026-11-25', keywords: null }).map((m) => m.rule)
}
const root = join(import.meta.dirname, '../..')
const quill = (...args: string[]) => {
  const done = spawnSync(process.execPath, [join(root, 'scripts/quill.mjs'), ...args], {
    cwd: root,
    encoding: 'utf8',
  })
  return { status: done.status, stdout: done.stdout, stderr: done.stderr }
}
function folder(files: Record<string, string | Uint8Array>): string {
  const dir = mkdtempSync(join(tmpdir(), 'kq-hostile-'))
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(dirname(join(dir, path)), { recursive: true })
    writeFileSync(join(dir, path), content)
  }
  return dir
}
const PAGE = '<!doctype html><html lang=en><meta charset=utf-8><title>A page that is fine</title><p>x'
const ld = (json: string) => `${PAGE}<script type="application/ld+json">${json}</script>`

describe('hang and crash', () => {
  it('days that are none (ſun) are skipped, and opening hours end', () => {
    expect(hoursIn('Mon to ſun 9:00–17:00', 'en')).toSatisfy(
      (h: ReturnType<typeof hoursIn>) => !h || h.days.every(Boolean),
    )
    expect(hoursIn('ſun 9:00', 'en')).toSatisfy(
      (h: ReturnType<typeof hoursIn>) => !h || h.days.every(Boolean),
    )
    expect(marksOf(`${PAGE}<address>Mon to ſun 9:00–17:00</address>`)).toBeInstanceOf(Array)
  })
  it.each(['constructor', '__proto__', 'toString', 'hasOwnProperty'])(
    '%s as a role, entity, itemprop, type, id',
    (name) => {
      expect(
        marksOf(
          `${PAGE}<div role=${name}>&${name};</div><p id=${name}><a href="#${name}">to it</a><div itemscope itemtype="https://schema.org/${name}"><b itemprop=${name}>x</b></div>` +
            `<script type="application/ld+json">{"@context":"https://schema.org","@type":"${name}","${name}":{"@id":"${name}"}}</script>`,
        ),
      ).toBeInstanceOf(Array)
      expect(({} as Record<string, unknown>)['@id']).toBeUndefined()
    },
  )
  it.each(['5000000000', '4294967296', '-1', '1e9', 'NaN', ''])('aria-level=%s', (level) => {
    const page = readPage(sourceOf(`${PAGE}<div role=heading aria-level="${level}">x</div>`), {
      path: 'a',
      url: BASE,
    })
    expect(page.headings[0]!.level).toBeLessThanOrEqual(99)
    expect(marksOf(`${PAGE}<div role=heading aria-level="${level}">x</div>`.repeat(2))).toBeInstanceOf(Array)
  })
  it.each(['Light (Trust', 'C++ Club', '[x', '\\', '$&', '*'])(
    'the site’s name %s is a text, not a pattern',
    (siteName) => {
      expect(withoutSite(`Visit | ${siteName}`, siteName)).toBe('Visit')
      expect(commonSuffix([`A | ${siteName}`, `B | ${siteName}`, `C | ${siteName}`])?.site).toBe(siteName)
      expect(
        marksOf(PAGE, {
          ...defaultStyle,
          siteName,
          titlePattern: '{page} | {site}',
          forbiddenWords: [siteName],
          protectedWords: [siteName],
        }),
      ).toBeInstanceOf(Array)
    },
  )
  it('an address that is not encoded right: tel:100%', () =>
    expect(
      marksOf(`${PAGE}<a href="tel:100%">Ring</a><a href="/100%">to</a><img src="%zz">`, defaultStyle, [
        'b.html',
      ]),
    ).toBeInstanceOf(Array))
  it('a context chain of 4,000 terms', () => {
    const terms = Object.fromEntries(Array.from({ length: 4000 }, (_, i) => [`t${i}`, `t${i + 1}:x`]))
    expect(marksOf(ld(JSON.stringify({ '@context': terms, '@type': 'Person', t0: 'x' })))).toBeInstanceOf(
      Array,
    )
  })
  it('an array of 200,000 numbers, under a title with a year', () =>
    expect(
      marksOf(
        ld(`{"@context":"https://schema.org","@type":"Person","x":[${'1,'.repeat(199_999)}1]}`).replace(
          'fine',
          '2019',
        ),
      ),
    ).toContain('title-stale-year'))
  it('a page that throws is named, and the rest goes on', () =>
    expect(
      onePage(() => {
        throw new Error('of ours')
      }),
    ).toMatchObject({
      ok: false,
      why: expect.stringMatching(/could not be checked because of a fault in Keen Quill \(of ours\)/),
    }))
  it('an address pattern of many stars is matched at once', () => {
    const match = `/${'*a'.repeat(40)}b`
    expect(matchesAddress(match, `/${'a'.repeat(50_000)}`)).toBe(false)
    expect(matchesAddress('/*a*b', '/xxaxxb')).toBe(true)
    expect(
      styleFor({ ...defaultStyle, addresses: [{ match }] }, `${BASE}${'a'.repeat(50_000)}`),
    ).toBeDefined()
  })
  it.each([
    [
      'a wrong value in the log',
      {
        log: [
          {
            at: 'x',
            label: 'y',
            changes: [{ path: 'a', key: 'edit:title', after: { value: 5 } }],
            undone: false,
          },
        ],
      },
    ],
    ['an entry without changes', { log: [{ at: 'x', label: 'y', undone: false }] }],
    [
      'a key that is none',
      {
        log: [{ at: 'x', label: 'y', changes: [{ path: 'a', key: 'constructor', after: 1 }], undone: false }],
      },
    ],
    [
      'a root outside',
      { site: { name: 'x', base: BASE, whole: true, root: '../../', takenIn: '2026-11-25' } },
    ],
  ])('a project file with %s is refused', (_, wrong) => {
    const project = {
      format: 'keen-quill-project',
      version: 1,
      site: { name: 'x', base: BASE, whole: true, root: '', takenIn: '2026-11-25' },
      work: {},
      log: [],
      ...wrong,
    }
    expect(readProject(writeZip([['project.json', utf8(JSON.stringify(project))]]))).toMatchObject({
      ok: false,
      why: expect.stringMatching(/cannot be read|damaged/),
    })
  })
  it.each([
    [
      '6,000 formatting elements that are never closed',
      Array.from({ length: 6000 }, (_, i) => `<p><font color=#${i}>x`).join(''),
    ],
    ['30,000 levels', '<div>'.repeat(30_000)],
    ['2,000 attributes', `<p ${Array.from({ length: 2000 }, (_, i) => `a${i}`).join(' ')}>`],
    ['25,000 headings', '<h2>x</h2>'.repeat(25_000)],
    ['a title of 30,000 letters', `<title>${'a'.repeat(30_000)}</title>`],
  ])('a page with %s is left out, with the reason', (_, html) =>
    expect(pageFrom(utf8(html), { path: 'a.html', url: BASE })).toMatchObject({
      ok: false,
      why: expect.stringMatching(/\d/),
    }),
  )
})

/** An archive of one entry, with what it declares of it. */
function archive(
  name: Uint8Array | string,
  content: Uint8Array,
  {
    size = content.length,
    crc = crc32(content),
    flag = 0,
    packed = deflateRawSync(content) as Uint8Array,
  } = {},
): Uint8Array {
  const path = typeof name === 'string' ? utf8(name) : name
  const entry = (signature: number, extra: number[], tail: number[]) => {
    const head = new DataView(new ArrayBuffer(26))
    const at = [20, flag, 8, 0, 0].flatMap((v) => [v & 255, v >> 8])
    at.forEach((b, i) => head.setUint8(i, b))
    head.setUint32(10, crc, true)
    head.setUint32(14, packed.length, true)
    head.setUint32(18, size, true)
    head.setUint16(22, path.length, true)
    return [
      signature & 255,
      (signature >> 8) & 255,
      (signature >> 16) & 255,
      signature >>> 24,
      ...extra,
      ...new Uint8Array(head.buffer),
      ...tail,
      ...path,
    ]
  }
  const local = [...entry(0x04034b50, [], []), ...packed]
  const central = entry(0x02014b50, [20, 0], [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0])
  const end = new DataView(new ArrayBuffer(22))
  end.setUint32(0, 0x06054b50, true)
  end.setUint16(8, 1, true)
  end.setUint16(10, 1, true)
  end.setUint32(12, central.length, true)
  end.setUint32(16, local.length, true)
  return Uint8Array.from([...local, ...central, ...new Uint8Array(end.buffer)])
}
const readAll = (bytes: Uint8Array) => {
  const opened = openZip(bytes)
  if (!opened.ok) throw new Error(opened.why)
  return { paths: opened.zip.paths, ...opened.zip.read(opened.zip.paths) }
}

describe('archives', () => {
  it('an entry that inflates beyond what it declares is stopped there', () => {
    const { files, failed } = readAll(archive('a.html', new Uint8Array(3_000_000), { size: 1000 }))
    expect([files.size, failed[0]?.why]).toEqual([
      0,
      expect.stringMatching(/unpacks to more than the archive declares/),
    ])
  })
  it.each(['__proto__', 'constructor'])('a file named %s is a file', (name) => {
    expect(readAll(writeZip([[name, utf8('x')]])).files.get(name)).toEqual(utf8('x'))
    expect(readAll(archive(name, utf8('x'), { packed: Uint8Array.of(255, 255) })).failed).toHaveLength(1)
  })
  it('a wrong check sum, or bytes that are missing, are named', () => {
    expect(readAll(archive('a.html', utf8('abc'), { crc: 1 })).failed[0]!.why).toMatch(/check sum/)
    expect(readAll(archive('a.html', utf8('abc'), { size: 9 })).failed[0]!.why).toMatch(/cut short/)
  })
  it('a name is UTF-8 where it is valid UTF-8, else CP437', () => {
    expect(readAll(archive('ü.html', utf8('x'))).paths).toEqual(['ü.html'])
    expect(readAll(archive(Uint8Array.of(0x81, 0x2e, 0x68, 0x74, 0x6d), utf8('x'))).paths).toEqual(['ü.htm'])
  })
})

describe('the command line', () => {
  it.each([['constructor'], ['__proto__'], ['toString']])('quill %s is no command', (command) => {
    const { status, stderr } = quill(command)
    expect([status, stderr]).toEqual([2, expect.stringMatching(/no command/)])
  })
  it('--help exits 0', () => expect(quill('--help').status).toBe(0))
  it('ends quietly when nobody reads on', () => {
    const dir = folder(Object.fromEntries(Array.from({ length: 300 }, (_, i) => [`p${i}.html`, PAGE])))
    const { stderr, status } = spawnSync(
      '/bin/sh',
      ['-c', `"${process.execPath}" scripts/quill.mjs audit "${dir}" | head -1`],
      { cwd: root, encoding: 'utf8' },
    )
    expect([stderr, status]).toEqual(['', 0])
  })
  it('an output that cannot be is refused before anything is written', () => {
    const dir = folder({ 'a.html': PAGE, 'b.html': PAGE })
    const changes = join(folder({ 'c.csv': 'path,title\na.html,New\n' }), 'c.csv')
    for (const out of ['/proc/x', changes, dir, join(dir, 'within')]) {
      const { status, stderr } = quill('apply', dir, '--changes', changes, '--out', out)
      expect([status, stderr.trim().split('\n').length]).toEqual([2, 1])
    }
    expect(readdirSync(dir).sort()).toEqual(['a.html', 'b.html'])
  })
  it('a name that is too long is found before the first byte is written', () => {
    const dir = folder({ 'a.html': PAGE })
    const out = join(folder({}), 'out')
    const changes = join(folder({ 'c.csv': `path,slug\na.html,${'灯'.repeat(120)}\n` }), 'c.csv')
    const { status, stderr } = quill('apply', dir, '--changes', changes, '--out', out, '--base-url', BASE)
    expect([status, stderr, existsSync(out)]).toEqual([2, expect.stringMatching(/bytes; at most/), false])
  })
  it('a symbolic link within is followed, one that leads out is listed', () => {
    const outside = folder({ 'secret.html': PAGE })
    const dir = folder({ 'a.html': PAGE })
    symlinkSync(join(dir, 'a.html'), join(dir, 'b.html'))
    symlinkSync(join(outside, 'secret.html'), join(dir, 'c.html'))
    const report = JSON.parse(quill('audit', dir, '--format', 'json').stdout)
    expect(report.pages.map((p: { path: string }) => p.path)).toEqual(['a.html', 'b.html'])
    expect(report.unread).toEqual([{ path: 'c.html', why: expect.stringMatching(/leads out of the folder/) }])
  })
  it('what names nothing is said: a rule, a day, a page', () => {
    const dir = folder({
      'a.html': PAGE,
      'style.json': '{"rules":{"title-cutt":"off"}}',
      'k.csv': 'path,primary\nnone.html,lamp\n',
    })
    const page = join(dir, 'a.html')
    expect(quill('audit', page, '--style', join(dir, 'style.json'))).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/title-cutt/),
    })
    expect(quill('audit', page, '--date', '2026-02-30')).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/calendar/),
    })
    expect(quill('audit', page, '--keywords', join(dir, 'k.csv')).stderr).toMatch(/none\.html/)
    const changes = (row: string) => join(folder({ 'c.csv': `path,canonical,robots\n${row}\n` }), 'c.csv')
    for (const row of ['a.html,javascript:alert(1),', 'a.html,,noidnex'])
      expect(quill('apply', page, '--changes', changes(row), '--out', join(folder({}), 'out')).status).toBe(2)
  })
})

describe('bytes and verdicts', () => {
  const edited = (page: string | Uint8Array, draft: Draft) => applyDraft(sourceOf(page), draft)
  it('a page that is XML gets XML', () => {
    const xml =
      '<?xml version="1.0"?>\n<!DOCTYPE html>\n<html xmlns="http://www.w3.org/1999/xhtml"><head><title>x</title></head><body/></html>'
    const { source } = edited(xml, {
      'meta:description': { value: 'a < b ]]>' },
      title: { value: ']]> & <' },
    })
    expect(source.text).toMatch(/<meta name="description" content="a &lt; b ]](?:>|&gt;)" \/>/)
    expect(source.text).toContain('<title>]]&gt; &amp; &lt;</title>')
  })
  it('what declares no encoding, or one that is none, is written in ASCII', () => {
    for (const head of ['', '<meta charset="utf-8/">'])
      expect(edited(`${head}<title>x</title>`, { title: { value: 'Æøå' } }).source.text).toContain(
        '<title>&#198;&#248;&#229;</title>',
      )
  })
  it('a longer title does not push the declaration beyond byte 1024', () => {
    const html = `<!doctype html><html><head><title>x</title><!--${'x'.repeat(900)}--><meta charset="utf-8"></head><body>é</body></html>`
    const { source } = edited(html, { title: { value: 'word '.repeat(60) } })
    expect(prescan(source.bytes)).toMatchObject({ encoding: 'utf-8' })
  })
  it('a sheet in windows-1252 is read, and one in neither is refused with the line', () => {
    expect(decodeSheet(Uint8Array.of(0x43, 0x61, 0x66, 0xe9))).toEqual({ ok: true, text: 'Café' })
    expect(decodeSheet(Uint8Array.of(0x61, 0x0a, 0x81, 0xff))).toMatchObject({
      ok: false,
      why: expect.stringMatching(/^Line 2/),
    })
  })
  it('one address in every spelling is one', () => {
    const same = [
      'caf%c3%a9.html',
      'caf%C3%A9.html',
      'café.html',
      './café.html',
      'x/../caf%C3%A9.html',
      '%63afé.html',
    ]
    for (const href of same)
      expect(marksOf(`${PAGE}<a href="${href}">to it</a>`, defaultStyle, ['café.html']), href).not.toContain(
        'link-broken',
      )
    const odd = ['a[b].html', 'a%5Bb%5D.html', 'a%5bb%5d.html']
    for (const href of odd)
      expect(marksOf(`${PAGE}<a href="${href}">to it</a>`, defaultStyle, ['a[b].html']), href).not.toContain(
        'link-broken',
      )
    expect(addressKey(`${BASE}%7Ex`)).toBe(addressKey(`${BASE}~x`))
    const pageMoves = pageMovesFor(
      'a.html',
      movesOf(['a.html', 'café.html'], new Map([['café.html', { value: 'c' }]]), BASE),
      BASE,
    )
    for (const href of same.slice(0, 5))
      expect(applyDraft(sourceOf(`${PAGE}<a href="${href}">x</a>`), {}, pageMoves).source.text, href).toMatch(
        /href="(?:\.\/|x\/\.\.\/)?c\.html"/,
      )
  })
  it('the encoding is looked for where the standard looks', () => {
    expect(prescan(utf8('<p title="<!--"><meta charset=koi8-r>'))).toMatchObject({ encoding: 'koi8-r' })
    expect(prescan(utf8('<title><meta charset=koi8-r></title>'))).toBeNull()
    expect(prescan(utf8('<!-- <meta charset=koi8-r> -->'))).toBeNull()
  })
  it.each([
    ['mit 9:00', 'de'],
    ['Küche 9:00–17:00', 'de'],
    ['man 9:00 kan', 'da'],
  ])('“%s” names no day', (text, lang) => expect(hoursIn(text, lang)?.days ?? []).toEqual([]))
  it('a canonical that is not on the web, and a robots directive that is none, are marked', () => {
    const head = (more: string) =>
      marksOf(`<!doctype html><html lang=en><meta charset=utf-8><title>x</title>${more}<p>x`)
    expect(head('<link rel=canonical href="javascript:alert(1)">')).toContain('canonical-scheme')
    expect(head('<link rel=canonical href="file:///a.html">')).toContain('canonical-scheme')
    expect(head('<meta name=robots content="noidnex">')).toContain('robots-unknown')
  })
})
