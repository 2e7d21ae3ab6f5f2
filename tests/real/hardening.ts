/** A command that is killed while it writes; and the whole page's HTML against the HTML checker of the package vnu-jar. */
import { execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { conformanceOf } from '../../core/conformance/conformance.ts'
import { readPage } from '../../core/page/read/read-page.ts'
import { readSource } from '../../core/page/source/source.ts'
import { defaultStyle } from '../../core/rules/house-style.ts'
import { auditPage } from '../../core/rules/runner.ts'
import { emptyIndex, entryOf, updateIndex } from '../../core/site/site-index.ts'
import { corpus, packages, pagesOf } from './corpora.ts'

type Check = (what: string, ok: boolean, detail?: string) => void

const KILLS = 200
const PAGES = 400

/** `quill apply`, killed 200 times at moments spread over the whole of its run: the output is whole or not there. */
export async function killedWhileWriting(check: Check): Promise<void> {
  const work = mkdtempSync(join(tmpdir(), 'kq-killed-'))
  const site = join(work, 'site')
  mkdirSync(site)
  for (let i = 0; i < PAGES; i++)
    writeFileSync(
      join(site, `p${i}.html`),
      `<!doctype html><html lang=en><meta charset=utf-8><title>Page ${i}</title><p>${'x'.repeat(20_000)}`,
    )
  const sheet = join(work, 'changes.csv')
  writeFileSync(
    sheet,
    `path,title\r\n${Array.from({ length: PAGES }, (_, i) => `p${i}.html,New ${i}\r\n`).join('')}`,
  )
  const run = (out: string, killAfter: number | null) =>
    new Promise<number>((done) => {
      const started = Date.now()
      const child = spawn(
        process.execPath,
        ['scripts/quill.mjs', 'apply', site, '--changes', sheet, '--out', out],
        {
          stdio: 'ignore',
          detached: true,
        },
      )
      const timer =
        killAfter === null
          ? null
          : setTimeout(() => {
              try {
                process.kill(-child.pid!, 'SIGKILL')
              } catch {
                // It was done already.
              }
            }, killAfter)
      child.on('close', () => {
        if (timer) clearTimeout(timer)
        done(Date.now() - started)
      })
    })
  const whole = await run(join(work, 'first'), null)
  const wanted = readdirSync(join(work, 'first')).length
  let there = 0
  let wrong = ''
  for (let i = 0; i < KILLS; i++) {
    const out = join(work, `out-${i}`)
    await run(out, Math.round((whole * (20 + (i * 90) / KILLS)) / 100))
    if (!existsSync(out)) continue
    there++
    const files = readdirSync(out)
    const complete =
      files.length === wanted && files.every((f) => readFileSync(join(out, f), 'utf8').includes('New '))
    if (!complete) wrong = `out-${i} has ${files.length} of ${wanted} files`
    rmSync(out, { recursive: true })
  }
  check(
    `quill apply killed ${KILLS} times: the output is whole or not there`,
    wrong === '' && there > 0 && there < KILLS,
    wrong || `${there} whole, ${KILLS - there} not there`,
  )
  rmSync(work, { recursive: true, force: true })
}

const VNU = '26.9.27'
/** The checker's archive, fetched from the package registry where it is not there. */
function vnuJar(): string {
  const folder = resolve('.cache/vnu')
  const jar = join(folder, 'package/build/dist/vnu.jar')
  if (existsSync(jar)) return jar
  mkdirSync(folder, { recursive: true })
  execFileSync('npm', ['pack', `vnu-jar@${VNU}`, '--silent'], { cwd: folder, stdio: 'ignore' })
  execFileSync('tar', ['-xzf', `vnu-jar-${VNU}.tgz`], { cwd: folder })
  return jar
}

/** What vnu-jar finds and we do not, and why. A kind that is in no line here fails the check. */
const explained: [RegExp, string][] = [
  [
    /^Malformed byte sequence/,
    'vnu-jar reads a file as UTF-8 whatever it declares; these pages declare euc-kr or windows-1252, and are read as that',
  ],
  [/CSS|property|“[^”]*” is not a “|Parse Error/i, 'style sheets are not checked: they are not the editor’s'],
  [
    /^The “[^”]*” attribute on the|is obsolete/i,
    'html-validate marks obsolete attributes and elements by its own list, at the element’s start',
  ],
  [
    /Bad value .* for attribute “(?:href|src|action|cite|srcset)”/,
    'addresses are judged by our own link rules, as browsers resolve them',
  ],
  [/Duplicate ID|The first occurrence of ID/, 'our rule id-duplicate, at the first of them'],
  [
    /Internal encoding declaration|character encoding|encoding/i,
    'our rules charset-missing, charset-late and charset-wrong',
  ],
  [
    /Start tag seen without seeing a doctype|Almost standards mode|Obsolete doctype|quirky/i,
    'our rule doctype-missing; old doctypes are not marked',
  ],
  [
    /Stray|No “[^”]*” element in scope|End tag|Unclosed|unclosed|implied|Saw “|Self-closing|violates nesting|seen but an element/i,
    'our rule markup-broken, at the first place that the parser names',
  ],
  [/The “aria-|role|“alt”/i, 'our landmark and alternative-text rules; other ARIA is not checked'],
  [/Table column|Row \d|table row|The “(?:headers|scope)” attribute/i, 'tables are not laid out'],
  [
    /not allowed as child|Text not allowed|not allowed on element|is missing a required|must not|Attribute “[^”]*” not allowed/i,
    'content models by the element’s own table in html-validate, which knows fewer contexts',
  ],
  [
    /Forbidden code point|Text run is not in Unicode|control character|U\+/i,
    'characters are not checked one by one',
  ],
  [/XML|namespace|xmlns/i, 'XML’s own rules are not checked'],
  [/consecutive hyphens|“--”|comment/i, 'our rule markup-broken'],
  [/Bad value/, 'values of attributes that html-validate has no table for'],
  [/lang|language/i, 'our rules lang-missing and lang-wrong'],
  [/heading/i, 'our heading rules'],
]

interface VnuMessage {
  type: string
  url: string
  lastLine?: number
  firstLine?: number
  message: string
}

/** Every kind of error that vnu-jar finds on the demo and 200 real pages: found by us on the line, or explained. */
export async function compareConformance(check: Check): Promise<void> {
  const chosen: { file: string; bytes: Uint8Array }[] = []
  const demo = resolve('stand-ins/site')
  const folders = [demo, ...packages.map((name) => corpus(name))]
  for (const folder of folders) {
    const all = pagesOf(folder).filter((p) => /\.html?$/.test(p.path) && p.read().length < 120_000)
    const most = folder === demo ? 60 : 50
    const step = Math.max(1, Math.floor(all.length / most))
    for (const page of all.filter((_, i) => i % step === 0).slice(0, most))
      chosen.push({ file: join(folder, page.path), bytes: page.read() })
  }
  const work = mkdtempSync(join(tmpdir(), 'kq-vnu-'))
  chosen.forEach(({ bytes }, i) => writeFileSync(join(work, `${i}.html`), bytes))
  const said = execFileSync(
    'java',
    ['-Xss8m', '-jar', vnuJar(), '--format', 'json', '--exit-zero-always', '--stdout', work],
    { maxBuffer: 1 << 30, encoding: 'utf8' },
  )
  const { messages } = JSON.parse(said) as { messages: VnuMessage[] }
  const lines: Set<number>[] = []
  for (const { bytes } of chosen) {
    const own = new Set<number>()
    lines.push(own)
    const read = readSource(bytes)
    if (!read.ok) continue
    const { text } = read.source
    for (const f of await conformanceOf(text)) own.add(f.line)
    const page = readPage(read.source, { path: 'a.html', url: 'https://pages.example/a.html' })
    const index = emptyIndex('https://pages.example/', false, [['a.html', 'a.html']])
    updateIndex(index, 'a.html', entryOf('a.html', page, index))
    const lineOf = (at: number) => text.slice(0, at).split('\n').length
    for (const mark of auditPage(page, index, defaultStyle, { date: '2026-11-25', keywords: null }))
      if (mark.start !== null) own.add(lineOf(mark.start))
  }
  const kinds = new Map<string, { pages: Set<number>; times: number; met: number }>()
  for (const { type, url, lastLine, firstLine, message } of messages) {
    if (type !== 'error') continue
    const i = Number(/(\d+)\.html$/.exec(url)?.[1])
    const kind = message
      .replace(/“[^”]*”/g, '“…”')
      .replace(/\d+/g, 'N')
      .slice(0, 110)
    const entry = kinds.get(kind) ?? { pages: new Set<number>(), times: 0, met: 0 }
    kinds.set(kind, entry)
    entry.pages.add(i)
    entry.times++
    const from = (firstLine ?? lastLine ?? 0) - 1
    const to = (lastLine ?? 0) + 1
    if ([...Array(Math.min(60, to - from + 1)).keys()].some((k) => lines[i]!.has(from + k))) entry.met++
  }
  let found = 0
  const open: string[] = []
  for (const [kind, { pages, times, met }] of [...kinds].sort((a, b) => b[1].times - a[1].times)) {
    const share = met / times
    if (share >= 0.5) found++
    const why = share >= 0.5 ? 'found' : explained.find(([of]) => of.test(kind))?.[1]
    if (!why) open.push(kind)
    console.log(
      `        ${String(times).padStart(5)} on ${String(pages.size).padStart(3)} pages, ${Math.round(share * 100)} % met: ${kind}${share >= 0.5 ? '' : ` — ${why ?? 'NOT EXPLAINED'}`}`,
    )
  }
  check(
    `${kinds.size} kinds of error that vnu-jar finds on ${chosen.length} pages: found by us, or explained`,
    open.length === 0 && kinds.size > 10,
    `${found} found, ${kinds.size - found - open.length} explained, ${open.length} open`,
  )
  rmSync(work, { recursive: true, force: true })
}
