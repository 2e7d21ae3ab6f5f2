/**
 * Work grows with the input: every generator of pages that grow at n, 2n and 4n, through reading, rules, index, offers of
 * structured data and the desk's views. CPU time, the least of five, retried once; above a floor that noise does not
 * reach, twice the input takes at most 2.5 times the time. No time by itself passes or fails.
 */
import 'fake-indexeddb/auto'
import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { describe, expect, it } from 'vitest'
import { headOf } from '../../app/workers/structure.ts'
import { dataView } from '../../app/workers/data.ts'
import { evaluate } from '../../app/workers/evaluate.ts'
import { setCurrent } from '../../app/workers/open-site.ts'
import { viewOf } from '../../app/workers/page-view.ts'
import { carryFor } from '../../core/exchange/hand-off.ts'
import { applyDraft } from '../../core/page/proof.ts'
import { readPage } from '../../core/page/read-page.ts'
import { readSource, type Source } from '../../core/page/source.ts'
import { defaultStyle, type HouseStyle } from '../../core/rules/house-style.ts'
import { auditPage, auditSite } from '../../core/rules/runner.ts'
import { movesOf, noMoves } from '../../core/site/moves.ts'
import { emptyIndex, entryOf, updateIndex } from '../../core/site/site-index.ts'
import { offersOf } from '../../core/structured-data/build.ts'
import { siteSideOf } from '../../core/structured-data/site-side.ts'
import { GEN } from '../fixtures/growth-cases.mjs'
import { ownCases } from '../fixtures/growth-own.ts'

const cases: Record<string, (n: number) => string> = { ...GEN, ...ownCases }

const BASE = 'https://site.example/'
const PATH = 'a.html'
const DATE = '2026-11-25'
const KEYWORDS = { primary: 'lamp word', secondary: ['x'] }
const style: HouseStyle = {
  ...defaultStyle,
  language: 'en',
  casing: 'ap',
  siteName: 'Light',
  titlePattern: '{page} | {site}',
}
/** Pages in steps: n is the smallest. */
const SMALLEST = 1000
/** Milliseconds of CPU that what is measured must reach before it is compared: noise is a few. */
const FLOOR = 80
/** Less than this is timed as this: a base that is near nothing has no ratio. */
const LEAST = 20
const MOST = 2.5
const DOUBLINGS = [1, 2, 4]

const steps = {
  read: (source: Source) => readPage(source, { path: PATH, url: BASE + PATH }),
  index: (source: Source) => {
    const page = readPage(source, { path: PATH, url: BASE + PATH })
    const index = emptyIndex(BASE, true, [
      [PATH, PATH],
      ['b.html', 'b.html'],
    ])
    updateIndex(index, PATH, entryOf(PATH, page, index))
    updateIndex(index, PATH, null)
    updateIndex(index, PATH, entryOf(PATH, page, index))
    auditPage(page, index, style, { date: DATE, keywords: KEYWORDS })
    auditSite(index, style, DATE)
    offersOf(page, source.text, siteSideOf(page, index, 'Light'), 'en')
  },
  moves: (source: Source) => {
    const moves = movesOf([PATH, 'b.html'], new Map([['b.html', { value: 'c' }]]), BASE)
    applyDraft(source, { title: { value: 'A new title' } }, carryFor(PATH, moves, BASE))
  },
  views: async (source: Source) => {
    const index = emptyIndex(BASE, true, [[PATH, PATH]])
    const setting = {
      index,
      style,
      name: 'Light',
      base: BASE,
      root: '',
      moves: noMoves,
      date: DATE,
      templates: [],
    }
    const decisions = { 'keyword:primary': KEYWORDS.primary }
    const evaluated = evaluate('s', PATH, source, decisions, setting)
    viewOf(evaluated, decisions, [], setting)
    setCurrent({
      site: {
        id: 's',
        name: 'Light',
        base: BASE,
        whole: true,
        root: '',
        status: 'ready',
        takenIn: DATE,
        pages: 1,
        otherFiles: 0,
        unread: [],
        demo: false,
      },
      setting,
      files: [[PATH, PATH]],
      slugs: new Map(),
      rows: new Map([[PATH, evaluated.row]]),
      sources: new Map([[PATH, source]]),
      siteMarks: [],
      siteMarksJson: '',
    })
    await dataView(PATH, decisions)
    await headOf(PATH, decisions)
  },
}

// What was left behind before is not to be cleared away while something is measured.
setFlagsFromString('--expose-gc')
const clearAway = runInNewContext('gc') as () => void

async function cpu(job: () => unknown): Promise<number> {
  clearAway()
  const before = process.cpuUsage()
  await job()
  const { user, system } = process.cpuUsage(before)
  return (user + system) / 1000
}

/** The least of so many turns of a step on a page of each size; null where a page is refused, which is an answer too. */
async function measure(step: (source: Source) => unknown, sources: (Source | null)[], turns: number) {
  const times: number[] = []
  for (const source of sources) {
    let least = source ? Infinity : 0
    for (let i = 0; source && i < turns; i++)
      // A new source each time: what is kept with one must not count as fast.
      least = Math.min(least, await cpu(() => step({ ...source })))
    times.push(least)
  }
  return times
}

/** The doublings whose time grew too much. */
const tooFast = (times: number[]): string[] =>
  times.flatMap((time, i) => {
    const before = times[i - 1]
    return before === undefined || time < FLOOR || time / Math.max(before, LEAST) <= MOST
      ? []
      : [`${Math.round(before)} → ${Math.round(time)} ms`]
  })

describe('growth', () => {
  it.each(Object.keys(cases))(
    '%s',
    async (name) => {
      const sources = DOUBLINGS.map((k) => {
        const read = readSource(new TextEncoder().encode(cases[name]!(SMALLEST * k)))
        if (!read.ok) return null
        return readPage(read.source, { path: PATH, url: BASE + PATH }).beyond === null ? read.source : null
      })
      for (const [stepName, step] of Object.entries(steps)) {
        let grew: string[] = []
        // Once to see whether there is anything to look at; then the least of five, twice at most.
        for (const turns of [1, 5, 5]) {
          grew = tooFast(await measure(step, sources, turns))
          if (grew.length === 0) break
        }
        expect({ [stepName]: grew }).toEqual({ [stepName]: [] })
      }
    },
    240_000,
  )
})
