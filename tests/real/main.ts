/**
 * `npm run check-real`: the core, the command line and the application on thousands of real pages, which it fetches.
 * Not part of verify. What cannot be tried here counts as failed. Its last line is `N passed, N failed`.
 */
import { execFileSync, spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import type { Report } from '../../core/exchange/audit-report.ts'
import { writeTable } from '../../core/exchange/csv.ts'
import { compileKeyword, findKeyword } from '../../core/words/match.ts'
import { languageOf, wordsOf } from '../../core/words/stem.ts'
import { canonicalOf, descriptionOf, titleOf } from '../../core/page/read/facts.ts'
import { readPage } from '../../core/page/read/read-page.ts'
import { readSource } from '../../core/page/source/source.ts'
import { Chance } from '../fuzz/fuzz.ts'
import { launch, NAME_HELPER, serve } from '../fixtures/chromium.ts'
import { audit, disagreements, looksAlike, repairAll, show, verdicts } from '../fixtures/structure.ts'
import { killRounds } from '../fixtures/killed-browser.ts'
import { differenceOfParses } from '../fixtures/two-parses.ts'
import { corpus, packages, pagesOf, type Package } from './corpora.ts'
import { compareConformance, killedWhileWriting } from './hardening.ts'
import { checkProgress } from './progress.ts'
import { matchReturns, readOfficeFiles } from './returned.ts'
import { partsUnderParallel } from './scale.ts'
import { measureScripts } from './scripts.ts'
import { redirectsOnServers } from './servers.ts'

const root = join(import.meta.dirname, '../..')
let passed = 0
let failed = 0
function check(what: string, ok: boolean, detail = ''): void {
  if (ok) passed++
  else failed++
  console.log(`${ok ? 'passed' : 'FAILED'}  ${what}${detail ? `  (${detail})` : ''}`)
}

function quill(args: string[]): { status: number | null; stdout: string; stderr: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['scripts/quill.mjs', ...args], {
    cwd: root,
    encoding: 'utf8',
    maxBuffer: 1 << 30,
  })
  return { status, stdout, stderr }
}

function finish(): never {
  console.log(`${passed} passed, ${failed} failed`)
  process.exit(failed > 0 ? 1 : 0)
}

/** Every page is in the report, or named with a reason. */
function auditWhole(name: Package): void {
  const folder = corpus(name)
  const pages = pagesOf(folder)
  const { status, stdout, stderr } = quill(['audit', folder, '--format', 'json', '--date', '2026-11-23'])
  if (status !== 0 && status !== 1) return check(`${name}: quill audit`, false, stderr.slice(0, 300))
  const report = JSON.parse(stdout) as Report
  const seen = new Set([...report.pages.map((p) => p.path), ...report.unread.map((u) => u.path)])
  const lost = pages.filter((p) => !seen.has(p.path))
  check(
    `${name}: quill audit takes in all of ${pages.length} pages`,
    lost.length === 0,
    lost[0]?.path ?? `${report.unread.length} unread`,
  )
  check(
    `${name}: every unread page is explained`,
    report.unread.every((u) => u.why.length > 10),
    report.unread[0]?.why,
  )
}

/** Every page scanned is read as parse5's own tokenizer reads it; nearly all are. */
function readBothWays(name: Package): void {
  const differences = pagesOf(corpus(name)).flatMap(({ path, read }) => {
    const source = readSource(read())
    return source.ok ? [{ path, found: differenceOfParses(source.source.text) }] : []
  })
  const notScanned = differences.filter(({ found }) => found === 'not scanned').length
  const differing = differences.filter(({ found }) => found !== null && found !== 'not scanned')
  check(
    `${name}: ${differences.length - notScanned} of ${differences.length} pages are scanned, each to the tree that parse5 gives`,
    differing.length === 0 && notScanned < differences.length / 10,
    differing[0] && `${differing[0].path}: ${differing[0].found}`,
  )
}

/** 50 titles changed in one go: every file is there, and no byte outside the titles differs. */
function applyTitles(name: Package): void {
  const folder = corpus(name)
  const all = pagesOf(folder)
  const titled = all.filter((p) => {
    const source = readSource(p.read())
    if (!source.ok) return false
    const facts = readPage(source.source, { path: p.path, url: 'https://site.example/' })
    return titleOf(facts) !== null && /<\/title/i.test(source.source.text)
  })
  const chosen = titled.filter((_, i) => i % Math.max(1, Math.floor(titled.length / 50)) === 0).slice(0, 50)
  const work = mkdtempSync(join(tmpdir(), 'kq-real-'))
  const sheet = join(work, 'changes.csv')
  writeFileSync(
    sheet,
    writeTable(
      ['path', 'title'],
      chosen.map((p, i) => [p.path, `Tides & “knots” ${i} – é Ω 灯`]),
    ),
  )
  const out = join(work, 'out')
  const { status, stderr } = quill(['apply', folder, '--changes', sheet, '--out', out])
  if (status !== 0) return check(`${name}: quill apply`, false, stderr.slice(0, 300))
  const changed = new Set(chosen.map((p) => p.path))
  let wrong = ''
  for (const page of all) {
    const before = page.read()
    const after = new Uint8Array(readFileSync(join(out, page.path)))
    if (!changed.has(page.path)) {
      if (Buffer.compare(before, after) !== 0) wrong = `${page.path}: changed though nothing was asked of it`
      continue
    }
    const text = Buffer.from(before).toString('latin1')
    const [match] = /<title[^>]*>[\s\S]*?<\/title/i.exec(text) ?? []
    if (match === undefined) {
      wrong = `${page.path}: no title found`
      continue
    }
    const from = text.indexOf(match)
    const tail = text.length - from - match.length
    const same =
      Buffer.compare(before.subarray(0, from), after.subarray(0, from)) === 0 &&
      Buffer.compare(before.subarray(before.length - tail), after.subarray(after.length - tail)) === 0
    const source = readSource(after)
    const title = source.ok
      ? titleOf(readPage(source.source, { path: page.path, url: 'https://site.example/' }))?.text
      : null
    if (!same || !title?.startsWith('Tides & “knots”'))
      wrong = `${page.path}: ${same ? `reads as ${title}` : 'a byte outside the title differs'}`
  }
  check(
    `${name}: quill apply on ${chosen.length} of ${all.length} pages changes the titles’ bytes alone`,
    wrong === '' && chosen.length >= 50,
    wrong,
  )
}

/** What Chromium's own DOM says of a page, scripts kept from running. */
const domFacts = (page: Page) =>
  page.evaluate(() => ({
    title:
      [...document.head.querySelectorAll('title')][0]?.textContent?.replace(/[ \t\n\f\r]+/g, ' ').trim() ??
      null,
    description:
      document.head
        .querySelector('meta[name="description" i]')
        ?.getAttribute('content')
        ?.replace(/[ \t\n\f\r]+/g, ' ')
        .trim() ?? null,
    canonical: document.head.querySelector<HTMLLinkElement>('link[rel~="canonical" i]')?.href ?? null,
    lang: document.documentElement.getAttribute('lang'),
    headings: [...document.querySelectorAll('h1,h2,h3,h4,h5,h6')].map((h) => Number(h.tagName[1])),
    alts: [...document.querySelectorAll('img')].map((i) => i.getAttribute('alt')),
    ids: [...document.querySelectorAll('body [id]:not([id=""])')].map((e) => e.id),
    words:
      (document.querySelector('main') ?? document.body)?.innerText
        .split(/\s+/)
        .filter((w) => /[\p{L}\p{N}]/u.test(w)).length ?? 0,
  }))

async function compareWithDom(page: Page, name: Package): Promise<void> {
  const all = pagesOf(corpus(name)).filter((p) => p.read().length < 300_000)
  const chosen = all.filter((_, i) => i % Math.max(1, Math.floor(all.length / 40)) === 0).slice(0, 40)
  const differences: string[] = []
  for (const { path, read } of chosen) {
    const bytes = read()
    const source = readSource(bytes)
    if (!source.ok) continue
    const url = 'https://pages.example/' + path.split('/').map(encodeURIComponent).join('/')
    const facts = readPage(source.source, { path, url })
    await show(page, url, bytes)
    const dom = await domFacts(page)
    const own = {
      title: titleOf(facts)?.text ?? null,
      description: descriptionOf(facts)?.content ?? null,
      canonical: canonicalOf(facts)?.url ?? null,
      lang: facts.lang,
      headings: facts.headings.filter((h) => h.role === null).map((h) => h.level),
      alts: facts.images.map((i) => i.alt),
    }
    for (const key of Object.keys(own) as (keyof typeof own)[])
      if (JSON.stringify(own[key]) !== JSON.stringify(dom[key]))
        differences.push(
          `${path}: ${key}: ${JSON.stringify(own[key])?.slice(0, 80)} / ${JSON.stringify(dom[key])?.slice(0, 80)}`,
        )
    // Misnested elements are cloned by the standard's algorithm, with their ids: the facts count each once.
    const missing = [...new Set(dom.ids)].filter((id) => !facts.ids.some((f) => f.id === id))
    if (missing.length > 0) differences.push(`${path}: ids ${missing.slice(0, 3).join(', ')}`)
    // Tolerance: innerText joins and splits at the layout's boxes; scripts without spaces are estimated.
    if (
      facts.main.by === 'body' &&
      facts.landmarks.length === 0 &&
      !/^(ja|ko|zh)/.test(facts.lang ?? '') &&
      !/[\u3040-\u9fff]/.test(source.source.text) &&
      Math.abs(facts.main.words - dom.words) > 5 + dom.words * 0.02
    )
      differences.push(`${path}: words ${facts.main.words} / ${dom.words}`)
  }
  check(
    `${name}: facts of ${chosen.length} pages are those of Chromium’s DOM`,
    differences.length === 0,
    differences.slice(0, 3).join(' · '),
  )
}

/** Pages of a package at which structure is looked at: 75 of each make 300. */
const STRUCTURE_PAGES = 75

/** Headings, landmarks, pictures, language, viewport and ids against axe-core and the accessibility tree; every repair. */
async function compareStructure(page: Page, name: Package): Promise<void> {
  const all = pagesOf(corpus(name)).filter((p) => p.read().length < 200_000)
  const step = Math.max(1, Math.floor(all.length / STRUCTURE_PAGES))
  const chosen = all.filter((_, i) => i % step === 0).slice(0, STRUCTURE_PAGES)
  const differences: string[] = []
  const wrong: string[] = []
  let repairs = 0
  let pictures = 0
  for (const { path, read } of chosen) {
    const bytes = read()
    const source = readSource(bytes)
    if (!source.ok) continue
    const url = 'https://pages.example/' + path.split('/').map(encodeURIComponent).join('/')
    const facts = readPage(source.source, { path, url })
    await show(page, url, bytes)
    for (const d of disagreements(facts, audit(facts), await verdicts(page)))
      differences.push(`${path}: ${d}`)
    const result = repairAll(source.source, { path, url })
    repairs += result.count
    for (const w of result.wrong) wrong.push(`${path}: ${w}`)
    if (!result.drawn) continue
    pictures++
    if (!(await looksAlike(page, url, bytes, result.drawn.source.bytes)))
      wrong.push(`${path}: the picture differs`)
  }
  for (const line of [...differences, ...wrong].slice(0, 40)) console.log(`        ${line}`)
  check(
    `${name}: the structure of ${chosen.length} pages is what axe-core and the accessibility tree say`,
    differences.length === 0 && chosen.length >= STRUCTURE_PAGES,
    `${differences.length} differences`,
  )
  check(
    `${name}: ${repairs} repairs change their own bytes, take their marks away, bring no blocker; ${pictures} pages drawn alike`,
    wrong.length === 0,
    `${wrong.length} wrong`,
  )
}

async function takeInByApplication(page: Page, name: Package, address: string): Promise<void> {
  const folder = corpus(name)
  const pages = pagesOf(folder)
  await page.unrouteAll()
  await page.goto(address)
  await page.waitForSelector('html[data-hydrated]')
  await page.getByTestId('folder-input').setInputFiles(folder)
  await page.getByRole('button', { name: /^Take in/ }).click({ timeout: 120_000 })
  const openLedger = page.getByRole('button', { name: 'Open the ledger' })
  const ledger = page.getByTestId('what-is-left')
  await openLedger.or(ledger).first().waitFor({ timeout: 600_000 })
  let unread = 0
  if (await openLedger.isVisible()) {
    unread = await page.getByRole('dialog').locator('li').count()
    await openLedger.click()
  }
  await ledger.waitFor({ timeout: 120_000 })
  const rows = Number(await ledger.getAttribute('aria-rowcount')) - 1
  check(
    `${name}: the application takes in all of ${pages.length} pages`,
    rows + unread >= pages.length,
    `${rows} in the ledger, ${unread} unread`,
  )
}

/** Word forms against libstemmer's own program, on the words on the pages. */
function compareStems(): void {
  if (!existsSync('/usr/bin/stemwords'))
    try {
      execFileSync('apt-get', ['install', '-y', 'libstemmer-tools'], { stdio: 'ignore' })
    } catch {
      // Counted as failed below.
    }
  for (const [lang, algorithm, part] of [
    ['en', 'english', 'manual/en'],
    ['de', 'german', 'manual/de'],
    ['fr', 'french', 'manual/fr'],
    ['es', 'spanish', 'manual/es'],
  ] as const) {
    const words = new Set<string>()
    const texts: string[] = []
    for (const page of pagesOf(corpus('apache2-doc')).filter((p) => p.path.includes(part))) {
      const source = readSource(page.read())
      if (!source.ok) continue
      const { text } = readPage(source.source, { path: '', url: 'https://x.example/' }).main
      texts.push(text)
      for (const w of wordsOf(text)) if (/^\p{L}+$/u.test(w.word)) words.add(w.word)
    }
    const list = [...words]
    const result = spawnSync('stemwords', ['-l', algorithm], {
      input: list.join('\n') + '\n',
      encoding: 'utf8',
    })
    if (result.status !== 0) {
      check(`stems in ${algorithm}`, false, 'stemwords (Debian’s libstemmer-tools) cannot be run')
      continue
    }
    const theirs = result.stdout.split('\n')
    const differ = list.filter((w, i) => languageOf(lang).stem(w) !== theirs[i])
    // The package follows an older Snowball release than Debian's; rules for single endings have changed since.
    check(
      `stems of ${list.length} ${algorithm} words are stemwords’ own, 99 % at least`,
      list.length > 500 && differ.length <= list.length / 100,
      `${differ.length} differ: ${differ
        .slice(0, 5)
        .map((w) => `${w} ${languageOf(lang).stem(w)}/${theirs[list.indexOf(w)]}`)
        .join(', ')}`,
    )
    comparePhrases(lang, texts.slice(0, 40), new Map(list.map((word, i) => [word, theirs[i]!])))
  }
}

/** Phrases in running text: where each page has one, by a plain look at every window with stemwords' own stems. */
function comparePhrases(lang: string, texts: readonly string[], stems: ReadonlyMap<string, string>): void {
  const chance = new Chance(20261126)
  const pages = texts.map((text) => wordsOf(text).map((w) => stems.get(w.word) ?? w.word))
  const { isStopWord } = languageOf(lang)
  let compared = 0
  const differ: string[] = []
  for (let i = 0; i < 80; i++) {
    // Two or three words that stand together somewhere, in any order, in the forms that they have there.
    const words = wordsOf(chance.one(texts.filter((text) => text.length > 500)))
    const from = chance.below(words.length - 6)
    const content = words.slice(from, from + 6).filter((w) => !isStopWord(w.word) && stems.has(w.word))
    const chosen = content.slice(0, 2 + chance.below(2)).map((w) => w.word)
    if (chosen.length < 2) continue
    const phrase = (chance.below(2) ? [...chosen].reverse() : chosen).join(' ')
    const wanted = [...new Set(chosen.map((word) => stems.get(word)!))]
    const keyword = compileKeyword(phrase, lang)
    for (const [k, page] of pages.entries()) {
      compared++
      const theirs = page.some((_, at) => {
        const window = new Set(page.slice(at, at + wanted.length + 3))
        return wanted.every((stem) => window.has(stem))
      })
      if (theirs !== findKeyword(texts[k]!, keyword).length > 0) differ.push(`${phrase} in page ${k}`)
    }
  }
  check(
    `phrases in running text, ${lang}: ${compared} pages looked at agree with stemwords, 99.9 % at least`,
    compared > 1000 && differ.length <= compared / 1000,
    `${differ.length} differ: ${differ.slice(0, 5).join('; ')}`,
  )
}

/**
 * `npm run check-real structure` looks at structure alone, `application` at what the application takes in, `conformance` at
 * the whole page's HTML, `killed` at a command and a browser that are killed, `servers` at redirects as two servers read them, `progress` at
 * effects that are known, `scale` at an audit in parts, `returns` at pages taken in again, `scripts` at widths in other scripts, `sheets` at office files,
 * `stems` at word forms and phrases.
 */
const part = process.argv[2]
if (!part) {
  for (const name of packages) {
    readBothWays(name)
    auditWhole(name)
    applyTitles(name)
  }
}
if (!part || part === 'stems') compareStems()
if (!part || part === 'conformance') await compareConformance(check)
if (!part || part === 'killed') {
  await killedWhileWriting(check)
  const { address, stop } = await serve(4474)
  const problems: string[] = []
  const { cutOff, thrownAway } = await killRounds(address, 300, 20261126, (problem) => problems.push(problem))
  stop()
  check(
    `killed 300 times (${Object.entries(cutOff)
      .map(([work, n]) => `${work} ${n}`)
      .join(
        ', ',
      )}; the database thrown away by the browser itself ${thrownAway} times): no half step, no record lost`,
    problems.length === 0,
    problems.slice(0, 5).join('; '),
  )
}
if (!part || part === 'returns') matchReturns(check)
if (!part || part === 'progress') checkProgress(check)
if (!part || part === 'scale') partsUnderParallel(check)
if (!part || part === 'servers') await redirectsOnServers(check)
if (!part || part === 'scripts') await measureScripts(check)
if (!part || part === 'sheets') await readOfficeFiles(check)
if (part && part !== 'structure' && part !== 'application') finish()
const server = await serve(4473)
const browser = await launch()
try {
  // Of its own context, so that what the accessibility checks leave behind troubles nobody.
  const drawing = await browser.newContext({ viewport: { width: 800, height: 600 } })
  if (part !== 'application')
    for (const name of packages) await compareStructure(await drawing.newPage(), name)
  await drawing.close()
  const page = await browser.newPage()
  await page.addInitScript(NAME_HELPER)
  if (!part) for (const name of packages) await compareWithDom(page, name)
  if (!part || part === 'application') {
    for (const name of packages) await takeInByApplication(page, name, server.address)
  }
} catch (error) {
  check('the browser’s part', false, (error as Error).message.slice(0, 400))
} finally {
  await browser.close()
  server.stop()
}
finish()
