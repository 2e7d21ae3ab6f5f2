import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ledgerRow } from '../../tests/fixtures/ledger-row.ts'
import { defaultStyle } from '../rules/house-style.ts'
import {
  facets,
  filterPages,
  folderOf,
  missingOf,
  valuesOf,
  whatIsLeft,
  type FilteredPage,
  type LedgerFilter,
} from './ledger-filter.ts'

const page = (path: string, more: Partial<FilteredPage['row']> = {}, state?: string): FilteredPage => ({
  row: ledgerRow(path, more),
  decisions: state ? { state } : {},
  siteMarks: undefined,
})

describe('what a page lacks', () => {
  it('is told in the order in which it matters', () => {
    expect(missingOf(page('a', { title: ' ', imagesWithoutAlt: 2, lang: null }))).toEqual([
      'title',
      'description',
      'H1',
      'keyword',
      'structured data',
      'language',
      'alternative texts',
    ])
    expect(
      missingOf({
        row: ledgerRow('a', { description: 'd', h1: 'h', h1Count: 1, types: ['Event'] }),
        decisions: { 'keyword:primary': 'k' },
      }),
    ).toEqual([])
  })
  it('is not said of what a sheet’s row cannot know', () =>
    expect(missingOf(page('a', { partial: 'sheet' as never, lang: null }))).not.toContain('language'))
})

it.each([
  ['https://s.example/', '/'],
  ['https://s.example/a.html', '/'],
  ['https://s.example/tours/', '/tours/'],
  ['https://s.example/tours/night/walk.html?x=/y/', '/tours/'],
])('the folder of %s is %s', (url, folder) => expect(folderOf(url)).toBe(folder))

describe('a filter', () => {
  it('says anew what has changed of a page since it was asked last', () => {
    const { row } = page('a/1.html')
    const statesOf = (decisions: FilteredPage['decisions'], siteMarks?: FilteredPage['siteMarks']) => {
      const { counts } = filterPages([{ row, decisions, siteMarks }], {}, defaultStyle)
      return [...counts.state.keys(), ...counts.mark.keys(), ...counts.severity.keys()]
    }
    expect(statesOf({ state: 'approved' })).toEqual(['approved'])
    expect(statesOf({ state: 'drafted' })).toEqual(['drafted'])
    const one = { rules: ['title-twice'], blocker: 0, flaw: 1, nit: 0 }
    expect(statesOf({}, one)).toEqual(['untouched', 'title-twice', 'flaw'])
    expect(statesOf({}, { ...one, rules: ['description-twice'] })).toEqual([
      'untouched',
      'description-twice',
      'flaw',
    ])
    expect(statesOf({}, { ...one, flaw: 0, nit: 1 })).toEqual(['untouched', 'title-twice', 'nit'])
  })
  const pages = fc.array(
    fc.record({
      folder: fc.constantFrom('', 'a/', 'b/'),
      title: fc.constantFrom(null, 't'),
      rules: fc.subarray(['title-long', 'shell-lang', 'h1-missing']),
      state: fc.constantFrom(undefined, 'approved', 'drafted'),
      lang: fc.constantFrom('en', 'de'),
    }),
    { maxLength: 12 },
  )
  const filters = fc.record(
    {
      folder: fc.constantFrom('/', '/a/', '/b/'),
      missing: fc.constantFrom('title', 'H1'),
      mark: fc.constantFrom('title-long', 'shell-lang'),
      state: fc.constantFrom('approved', 'untouched'),
      language: fc.constantFrom('en', 'fr'),
    },
    { requiredKeys: [] },
  )
  it('shows what has all that is asked, and counts what each other choice would show', () =>
    fc.assert(
      fc.property(pages, filters, (given, filter: LedgerFilter) => {
        const all = given.map(({ folder, title, rules, state, lang }, i) =>
          page(`${folder}${i}`, { title, rules, lang }, state),
        )
        const showing = (f: LedgerFilter) =>
          all.filter((p) =>
            facets.every(
              (facet) => f[facet] === undefined || valuesOf(p, facet, defaultStyle).includes(f[facet]),
            ),
          )
        const { shown, counts } = filterPages(all, filter, defaultStyle)
        expect(shown).toEqual(showing(filter))
        for (const facet of facets)
          for (const [value, n] of counts[facet])
            expect(n).toBe(showing({ ...filter, [facet]: value }).length)
      }),
    ))
})

it('what is left has the gravest first, then what most pages have', () => {
  const all = [
    page('a', { rules: ['nit', 'flaw'], title: 't', h1: 'h', h1Count: 1 }),
    page('b', { rules: ['nit', 'blocker'], title: null }),
  ].map((p) => ({ ...p, row: { ...p.row, rules: p.row.rules.map((r) => ids[r]!) } }))
  const left = whatIsLeft(all, (id) => severities[id]!, defaultStyle)
  expect(left.marks.map((m) => [m.value, m.pages])).toEqual([
    [ids.blocker, 1],
    [ids.flaw, 1],
    [ids.nit, 2],
  ])
  expect(left.missing[0]).toEqual({ facet: 'missing', value: 'title', pages: 1 })
})
const ids: Record<string, string> = { blocker: 'title-missing', flaw: 'title-long', nit: 'shell-lang' }
const severities: Record<string, 'blocker' | 'flaw' | 'nit'> = {
  'title-missing': 'blocker',
  'title-long': 'flaw',
  'shell-lang': 'nit',
}
