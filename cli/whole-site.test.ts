/** The commands that look at a whole site: its sitemap, its progress. */
import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { writeTable } from '../core/exchange/csv.ts'
import { dateOf } from '../core/progress/statistics.ts'
import { seriesWith } from '../tests/fixtures/progress-series.ts'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'quill-'))
const quill = (...args: string[]) =>
  spawnSync(process.execPath, ['scripts/quill.mjs', ...args], { cwd: root, encoding: 'utf8' })
const write = (name: string, text: string): string => {
  const path = join(folder, name)
  mkdirSync(join(path, '..'), { recursive: true })
  writeFileSync(path, text)
  return path
}

describe('quill sitemap', () => {
  const page = (head = '') =>
    `<!doctype html><html lang="en"><head><title>T</title>${head}</head><body><h1>T</h1></body></html>`
  write('site/index.html', page())
  write('site/b.html', page())
  write('site/hidden.html', page('<meta name="robots" content="noindex">'))
  write('site/other.html', page('<link rel="canonical" href="https://s.example/b.html">'))
  write('site/a b.html', page())
  write('site/sitemap.xml', '<urlset><url><loc>https://s.example/b.html</loc></url></urlset>')
  const site = join(folder, 'site')
  it('lists the indexable pages, those of the present sitemap first', () => {
    const { stdout, status } = quill('sitemap', site, '--base-url', 'https://s.example/')
    expect(status).toBe(0)
    expect([...stdout.matchAll(/<loc>(.*?)<\/loc>/g)].map((m) => m[1])).toEqual([
      'https://s.example/b.html',
      'https://s.example/',
      'https://s.example/a%20b.html',
    ])
  })
  it('is written where it is asked for, and asks for the address', () => {
    const out = join(folder, 'made.xml')
    const { stdout } = quill('sitemap', site, '--base-url', 'https://s.example/', '--out', out)
    expect(stdout).toContain('1 file written')
    expect(readFileSync(out, 'utf8')).toContain('<loc>https://s.example/</loc>')
    const asked = quill('sitemap', site)
    expect(asked.status).toBe(2)
    expect(asked.stderr).toContain('--base-url')
  })
})

describe('quill progress', () => {
  const { rows, changed } = seriesWith(0.3, 3)
  const statistics = write(
    'statistics.csv',
    writeTable(
      ['date', 'page', 'phrase', 'clicks', 'impressions', 'position'],
      rows.map((r) => [r.date, r.page, '', String(r.clicks), String(r.impressions), String(r.position)]),
    ),
  )
  const changes = write(
    'changes.csv',
    writeTable(
      ['page', 'date'],
      changed.map(({ page, day }) => [page, dateOf(day)]),
    ),
  )
  it('gives the shapes of the contract', () => {
    const { stdout, status } = quill(
      'progress',
      '--statistics',
      statistics,
      '--changes',
      changes,
      '--format',
      'json',
    )
    expect(status).toBe(0)
    const report = JSON.parse(stdout) as { weeks: number; pages: object[]; effect: Record<string, object> }
    expect(report.weeks).toBe(4)
    expect(report.pages).toHaveLength(changed.length)
    expect(report.pages[0]).toMatchObject({
      page: changed[0]!.page,
      before: {
        clicks: expect.any(Number),
        impressions: expect.any(Number),
        ctr: expect.any(Number),
        position: 6,
      },
    })
    const { estimate, low, high } = report.effect['clicks'] as Record<string, number>
    expect(low).toBeLessThan(estimate!)
    expect(estimate).toBeLessThan(high!)
    expect(low).toBeGreaterThan(0)
  })
  it('says in words what it found, and what is wrong with a sheet', () => {
    const { stdout } = quill('progress', '--statistics', statistics, '--changes', changes)
    expect(stdout).toMatch(/clicks: about \d+ % more clicks than pages left alone, between \d+ and \d+ %/)
    const wrong = quill('progress', '--statistics', changes, '--changes', changes)
    expect(wrong.status).toBe(2)
    expect(wrong.stderr).toContain('no column for clicks, impressions')
  })
})

describe('an audit in parts', () => {
  const demo = join(root, 'stand-ins/site')
  const common = [
    demo,
    '--base-url',
    'https://farrowskerry.example/',
    '--date',
    '2026-11-26',
    '--keywords',
    join(root, 'stand-ins/keywords.csv'),
  ]
  const made = new Map<string, string>()
  const part = (i: number, n: number) => {
    const name = `part-${i}-of-${n}`
    let out = made.get(name)
    if (out !== undefined) return out
    out = join(folder, name)
    const { status, stderr } = quill('audit', ...common, '--shard', `${i}/${n}`, '--out', out)
    expect({ status, stderr }).toEqual({ status: 0, stderr: '' })
    made.set(name, out)
    return out
  }
  it.each(['json', 'csv', 'text'])('merged is one run, byte for byte, and so are jobs: %s', (format) => {
    const one = quill('audit', ...common, '--jobs', '1', '--format', format)
    const merged = quill('merge', part(2, 2), part(1, 2), '--format', format)
    expect(merged.stdout).toBe(one.stdout)
    expect(merged.status).toBe(one.status)
    if (format !== 'json') return
    const jobs = quill('audit', ...common, '--jobs', '3', '--format', format)
    expect(jobs.stdout).toBe(one.stdout)
    expect(jobs.status).toBe(one.status)
  })
  it('says once what no part can do', () =>
    expect(quill('audit', join(folder, 'nothing'), '--jobs', '2')).toMatchObject({
      status: 2,
      stdout: '',
      stderr: expect.stringMatching(/^[^\n]*nothing: there is no such file or folder.\n$/),
    }))
  it('names what is missing, foreign or damaged', () => {
    const [first, second] = [part(1, 2), part(2, 2)]
    expect(quill('merge', first).stderr).toContain('Part 2 of 2 is missing')
    expect(quill('merge', first, part(2, 3)).stderr).toContain('is of another audit')
    expect(quill('merge', first, second, second).stderr).toContain('given twice')
    const cut = write('cut', readFileSync(second, 'utf8').split('\n').slice(0, 4).join('\n'))
    expect(quill('merge', first, cut)).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('cut ends too early'),
    })
    expect(quill('merge', write('other', '{}\n')).stderr).toContain('is no part of an audit')
    expect(quill('audit', demo, '--shard', '3/2').stderr).toContain('such as 1/4')
  })
})
