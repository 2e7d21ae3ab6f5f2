/** One proof: what the application saves and what the command line writes, from the same project file, are the same bytes. */
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { readProject, writeProject, type Project } from '../../core/exchange/project.ts'
import { readPage } from '../../core/page/read/read-page.ts'
import { readSource, type Source } from '../../core/page/source/source.ts'
import { toBytePlaces } from '../../core/page/source/places.ts'
import type { PageFacts } from '../../core/page/read/facts.ts'
import { build } from '../../core/structured-data/build.ts'
import { linksOf } from '../../core/structured-data/follow.ts'
import { DEMO, allPages, filesOf, openShelf, takeInZip, wholeZip, zipOf } from './helpers.ts'

const quill = (...args: string[]) => {
  const { stdout, stderr, status } = spawnSync('npm', ['run', '-s', 'quill', '--', ...args], {
    encoding: 'utf8',
    maxBuffer: 1 << 27,
  })
  if (status === 2) throw new Error(stderr)
  return stdout
}

async function savedProject(page: Page): Promise<Project> {
  await openShelf(page)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Project file' }).click(),
  ])
  const read = readProject(new Uint8Array(readFileSync(await download.path())))
  if (!read.ok) throw new Error(read.why)
  return read.project
}

/** Every kind of decision, spread over the demo's pages. */
function decideEverything(project: Project): void {
  const pages = project.pages.map((identity) => {
    const read = readSource(project.files.get(identity.file!)!)
    if (!read.ok) throw new Error(read.why)
    return {
      identity,
      source: read.source,
      facts: readPage(read.source, { path: identity.file!, url: identity.url }),
    }
  })
  const byte = (source: Source, start: number) => toBytePlaces(source, [start])[0]!
  const decide = (id: string, decisions: Record<string, unknown>) =>
    project.work.set(id, { ...project.work.get(id), ...decisions })
  const at = (file: string) => pages.find(({ identity }) => identity.file === file)!
  const first = (has: (facts: PageFacts) => boolean) => pages.find(({ facts }) => has(facts))!

  // Titles with tokens, and a rule for many pages.
  for (const { identity } of pages.slice(0, 6))
    decide(identity.id, { 'edit:title': { value: '{h1} | {section} {year}' } })
  const recurs = { id: 'r1', tag: 'p', className: 'section-title', landmark: null, become: 2, except: [] }
  decide('', { templates: [recurs] })
  // Metas that follow the title.
  const shared = first((facts) => facts.metas.some((m) => m.name === 'og:title'))
  decide(shared.identity.id, { 'edit:title': { value: 'Shared and followed' }, follow: ['og:title'] })
  // Slugs of a folder, with what stands in it, and of a page.
  decide(at('tours/index.html').identity.id, { 'edit:slug': { value: 'guided-tours' } })
  decide(at('contact.html').identity.id, { 'edit:slug': { value: 'call-the-keepers' } })
  // Levels, a heading that becomes a paragraph, the shell.
  const levelled = first((facts) => facts.headings.length > 3)
  const [, second, third] = levelled.facts.headings
  decide(levelled.identity.id, {
    [`edit:heading@${byte(levelled.source, second!.start)}`]: { level: 4, value: 'Lamps & wicks' },
    [`edit:heading@${byte(levelled.source, third!.start)}`]: { tag: 'p' },
    'edit:lang': { value: 'en-GB' },
    'edit:meta:robots': { value: 'noindex' },
  })
  const pictured = first((facts) => facts.images.length > 0)
  decide(pictured.identity.id, {
    [`edit:alt@${byte(pictured.source, pictured.facts.images[0]!.start)}`]: { value: 'The lamp, lit' },
    'edit:canonical': { value: pictured.identity.url },
    'stet:title-short|title': { fingerprint: 'x', reason: 'It stands.', date: '2026-11-25' },
  })
  // Data that is built from the page and follows it, also where its own heading is edited.
  const built = at('tours/tower.html')
  const side = { base: project.site.base, name: 'Farrowskerry Light', organisation: null, trail: [] }
  const data = build('WebPage', built.facts, built.source.text, side, 'en')
  const [h1] = built.facts.headings
  decide(built.identity.id, {
    'edit:data:page': {
      value: JSON.stringify(data.data, null, 2),
      built: linksOf(data, (start) => String(byte(built.source, start))),
    },
    [`edit:heading@${byte(built.source, h1!.start)}`]: { value: 'The tower, step by step' },
  })
}

interface StoredRow {
  site: string
  path: string
  url: string
  rules: string[]
  blocker: number
  flaw: number
  nit: number
}
/** The marks of every page as the ledger keeps them: rules left, and how many of each severity. */
const storedMarks = (page: Page, site: string) =>
  page.evaluate(
    (id) =>
      new Promise<string>((resolve, reject) => {
        const request = indexedDB.open('keen-quill')
        request.onerror = () => reject(request.error!)
        request.onsuccess = () => {
          const all = request.result.transaction('ledger').objectStore('ledger').getAll()
          all.onsuccess = () => {
            request.result.close()
            const rows = (all.result as StoredRow[]).filter((row) => row.site === id)
            const lines = rows.map(({ path, url, rules, blocker, flaw, nit }) =>
              JSON.stringify([path, url, [...rules].sort(), blocker, flaw, nit]),
            )
            resolve(lines.sort().join('\n'))
          }
        }
      }),
    site,
  )

function auditedMarks(...args: string[]): string {
  const { pages } = JSON.parse(quill('audit', ...args, '--format', 'json')) as {
    pages: { path: string; url: string; marks: { rule: string; severity: string }[] }[]
  }
  const count = (marks: { severity: string }[], severity: string) =>
    marks.filter((m) => m.severity === severity).length
  return pages
    .map(({ path, url, marks }) =>
      JSON.stringify([
        path,
        url,
        [...new Set(marks.map((m) => m.rule))].sort(),
        count(marks, 'blocker'),
        count(marks, 'flaw'),
        count(marks, 'nit'),
      ]),
    )
    .sort()
    .join('\n')
}

const openedSite = async (page: Page): Promise<string> => {
  await allPages(page)
  return /sites\/([^/]+)/.exec(page.url())![1]!
}

test('a project with every kind of decision: the ZIP and the folder of quill hand-off are the same bytes, and the marks are the same', async ({
  page,
}) => {
  const project = await savedProject(page)
  decideEverything(project)
  const folder = mkdtempSync(join(tmpdir(), 'one-proof-'))
  const file = join(folder, 'light.quill.zip')
  writeFileSync(file, writeProject(project))

  await page
    .getByTestId('file-input')
    .setInputFiles({ name: 'light.zip', mimeType: 'application/zip', buffer: readFileSync(file) })
  await page.getByRole('button', { name: /^Take in 45 pages/ }).click()
  const site = await openedSite(page)
  const zip = new Map(Object.entries(await wholeZip(page, site)))
  const out = join(folder, 'out')
  quill('hand-off', file, '--out', out)
  const written = filesOf(out)
  expect([...written.keys()].sort()).toEqual([...zip.keys()].sort())
  for (const [path, bytes] of zip)
    expect(Buffer.compare(Buffer.from(bytes), Buffer.from(written.get(path)!)), path).toBe(0)
  expect([...zip.keys()]).toEqual(
    expect.arrayContaining([
      'guided-tours/tower.html',
      'call-the-keepers.html',
      'redirects.csv',
      'changes.csv',
    ]),
  )
  expect(Buffer.from(zip.get('guided-tours/tower.html')!).toString()).toContain('The tower, step by step')

  await expect.poll(() => storedMarks(page, site)).toBe(auditedMarks(file))
})

test('the marks of an intake are those of quill audit', async ({ page }) => {
  const file = join(mkdtempSync(join(tmpdir(), 'one-run-')), 'light.zip')
  writeFileSync(file, zipOf(Object.fromEntries(filesOf(DEMO))))
  await openShelf(page)
  await takeInZip(page, 'light.zip', readFileSync(file), 'https://farrowskerry.example/')
  const site = await openedSite(page)
  await expect
    .poll(() => storedMarks(page, site))
    .toBe(auditedMarks(file, '--base-url', 'https://farrowskerry.example/'))
})
