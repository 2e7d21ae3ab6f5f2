/**
 * Work grows with the input: every generator of pages that grow at n, 2n and 4n, through reading, rules, index, offers of
 * structured data, moves and the desk's views. Steps are counted by the engine; twice the input takes at most 2.5 times as
 * many. CPU time, for what the engine does by itself, is compared above a floor that noise does not reach.
 */
import 'fake-indexeddb/auto'
import { Session } from 'node:inspector'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
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
/** n: the smallest of the three sizes. */
const SMALLEST = 250
const DOUBLINGS = [1, 2, 4]
const MOST = 2.5
/** Steps below which nothing is compared: a constant part hides the rest. */
const FEWEST_STEPS = 30_000
/** Milliseconds of CPU below which nothing is compared: a busy machine's noise does not reach it. */
const FLOOR = 400

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

const inspector = new Session()
inspector.connect()
const post = <T>(method: string, params: object = {}): Promise<T> =>
  new Promise((resolve, reject) =>
    inspector.post(method, params, (error, result) => (error ? reject(error) : resolve(result as T))),
  )
interface Coverage {
  result: { url: string; functions: { ranges: { count: number }[] }[] }[]
}

/**
 * Steps of a job: how often the blocks of our code, and of the packages that it calls, were run. The engine counts them,
 * and counts the same on every machine.
 */
async function stepsOf(job: () => unknown): Promise<number> {
  // Counts begin anew with each look, and little runs between two jobs.
  await job()
  const { result } = await post<Coverage>('Profiler.takePreciseCoverage')
  let count = 0
  for (const { url, functions } of result)
    if (/\/(?:core|app|node_modules)\//.test(url) && !/vitest|fake-indexeddb/.test(url))
      for (const { ranges } of functions) for (const range of ranges) count += range.count
  return count
}

/** What a step costs on a page of each size; 0 where a page is refused, which is an answer too. */
async function measure(
  step: (source: Source) => unknown,
  sources: (Source | null)[],
  cost: (job: () => unknown) => Promise<number>,
  turns: number,
): Promise<number[]> {
  const costs: number[] = []
  for (const source of sources) {
    let least = source ? Infinity : 0
    // A new source each time: what is kept with one must not count as fast.
    for (let i = 0; source && i < turns; i++) least = Math.min(least, await cost(() => step({ ...source })))
    costs.push(least)
  }
  return costs
}
async function cpu(job: () => unknown): Promise<number> {
  const before = process.cpuUsage()
  await job()
  const { user, system } = process.cpuUsage(before)
  return (user + system) / 1000
}

/** The doublings at which the cost grew too much. */
const tooFast = (costs: number[], floor: number): string[] =>
  costs.flatMap((cost, i) => {
    const before = costs[i - 1]
    return before === undefined || cost < floor || cost / Math.max(before, floor / 10) <= MOST
      ? []
      : [`${Math.round(before)} → ${Math.round(cost)}`]
  })

const sourcesOf = (name: string): (Source | null)[] =>
  DOUBLINGS.map((k) => {
    const read = readSource(new TextEncoder().encode(cases[name]!(SMALLEST * k)))
    if (!read.ok) return null
    return readPage(read.source, { path: PATH, url: BASE + PATH }).beyond === null ? read.source : null
  })

describe('growth', () => {
  beforeAll(async () => {
    await post('Profiler.enable')
    await post('Profiler.startPreciseCoverage', { callCount: true, detailed: true })
  })
  afterAll(async () => {
    await post('Profiler.stopPreciseCoverage')
    inspector.disconnect()
  })
  it.each(Object.keys(cases))(
    '%s',
    async (name) => {
      const sources = sourcesOf(name)
      await post('Profiler.takePreciseCoverage')
      for (const [stepName, step] of Object.entries(steps)) {
        let grew: string[] = []
        // Something kept from another page may make one of the sizes cheap: then once more.
        for (const turns of [1, 2]) {
          grew = tooFast(await measure(step, sources, stepsOf, turns), FEWEST_STEPS)
          if (grew.length === 0) break
        }
        expect({ [stepName]: grew }).toEqual({ [stepName]: [] })
        // What the engine does by itself is not counted in steps, and shows in time alone.
        const largest = sources.at(-1)!
        let slower: string[] = []
        if (largest && (await cpu(() => step({ ...largest }))) > FLOOR)
          for (const turns of [5, 5]) {
            slower = tooFast(await measure(step, sources, cpu, turns), FLOOR)
            if (slower.length === 0) break
          }
        expect({ [`${stepName}, ms`]: slower }).toEqual({ [`${stepName}, ms`]: [] })
      }
    },
    240_000,
  )
})
