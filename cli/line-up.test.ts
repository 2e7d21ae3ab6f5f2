import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

const root = join(import.meta.dirname, '..')
const file = join(mkdtempSync(join(tmpdir(), 'quill-')), 'results.json')
writeFileSync(
  file,
  JSON.stringify({
    phrase: 'lighthouse tours',
    market: 'national',
    asOf: '2026-11-20',
    results: [
      {
        position: 1,
        url: 'https://a.example/',
        title: 'The 7 Best Lighthouse Tours (2026)',
        description: 'Boats and views.',
      },
      { position: 2, url: 'https://us.example/tours/', title: 'Ours as shown', description: '' },
      {
        position: 3,
        url: 'https://b.example/',
        title: 'Boats: Are Lighthouse Tours Worth It?',
        description: 'Views.',
      },
    ],
  }),
)
const args = ['scripts/quill.mjs', 'line-up', '--results', file]

describe('quill line-up', () => {
  it('prints the shapes of the contract, our own result left out', () => {
    const out = execFileSync(
      process.execPath,
      [
        ...args,
        '--title',
        'Lighthouse Tours',
        '--description',
        'Boats.',
        '--url',
        'https://us.example/tours/',
      ],
      { cwd: root, encoding: 'utf8' },
    )
    const { results, ours, words } = JSON.parse(out) as Record<string, never>
    expect(results).toMatchObject([
      {
        position: 1,
        url: 'https://a.example/',
        numbers: ['7'],
        year: 2026,
        question: false,
        brackets: true,
        phraseFirst: false,
        titleState: 'fits',
      },
      { position: 3, question: true, numbers: [], year: null, phraseFirst: false },
    ])
    expect(ours).toMatchObject({
      position: 2,
      url: 'https://us.example/tours/',
      phraseFirst: true,
      descriptionState: 'fits',
    })
    expect(words).toEqual([
      { word: 'boats', results: 2, ours: true },
      { word: 'views', results: 2, ours: false },
    ])
  })
  it('says what it needs, and exits 2', () => {
    const tried = spawnSync(process.execPath, [...args, '--title', 'x'], { cwd: root, encoding: 'utf8' })
    expect(tried.status).toBe(2)
    expect(tried.stderr).toMatch(/--url are needed/)
  })
})
