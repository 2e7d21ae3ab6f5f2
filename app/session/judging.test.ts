import { beforeEach, expect, test, vi } from 'vitest'
import type { PageId } from '../../core/site/page-identity.ts'
import { AT_ONCE, createJudging } from './judging.ts'
import { holdState, type OpenedSite, type StateHolder } from './session-state.ts'

type Asked = { pages: PageId[]; isLast: boolean }
const { worker } = vi.hoisted(() => ({ worker: { evaluateRows: null as unknown } }))
vi.mock('../workers/client.ts', () => ({ core: () => worker }))

let asked: Asked[]
let broken: ReadonlySet<PageId>
let state: StateHolder
const siteMarks = [{ rule: 'title-duplicate' }]
beforeEach(() => {
  asked = []
  broken = new Set()
  worker.evaluateRows = async (pages: { page: PageId }[], isLast: boolean) => {
    asked.push({ pages: pages.map((p) => p.page), isLast })
    if (pages.some(({ page }) => broken.has(page))) throw new Error('It got stuck.')
    const rows = pages.map(({ page }) => ({ id: page }))
    return { rows, siteMarks: isLast ? siteMarks : null, moved: [], leftOut: [] }
  }
  state = holdState({ rows: new Map(), work: new Map(), siteMarks: [] } as unknown as OpenedSite)
})
const pages = (count: number) => Array.from({ length: count }, (_, i) => `page-${i}`)
const judged = () => vi.waitFor(() => expect(state.get().judging).toBeNull())

test('a few pages at a time, the marks on the site with the last of them', async () => {
  createJudging(state).judge(pages(2 * AT_ONCE + 1))
  await judged()
  expect(asked.map(({ pages, isLast }) => [pages.length, isLast])).toEqual([
    [AT_ONCE, false],
    [AT_ONCE, false],
    [1, true],
  ])
  expect(state.get().rows.size).toBe(2 * AT_ONCE + 1)
  expect(state.get().siteMarks).toBe(siteMarks)
})

test('once stopped, no more pages, but the marks on the site of those that were', async () => {
  const judging = createJudging(state)
  const { evaluateRows } = worker
  worker.evaluateRows = (...given: unknown[]) => {
    judging.stop()
    return (evaluateRows as (...given: unknown[]) => unknown)(...given)
  }
  judging.judge(pages(3 * AT_ONCE))
  await judged()
  expect(asked.slice(1)).toEqual([{ pages: [], isLast: true }])
  expect(state.get().rows.size).toBe(AT_ONCE)
  expect(state.get().siteMarks).toBe(siteMarks)
})

test('a page at fault is found among the others, named and left out', async () => {
  broken = new Set(['page-2'])
  createJudging(state).judge(pages(4))
  await judged()
  expect(state.get().leftOut).toEqual([{ page: 'page-2', why: 'It got stuck.' }])
  expect([...state.get().rows.keys()]).toEqual(['page-0', 'page-1', 'page-3'])
  expect(state.get().siteMarks).toBe(siteMarks)
})

test('a worker that cannot say the marks on the site is asked once', async () => {
  broken = new Set(['page-0'])
  worker.evaluateRows = async (pages: { page: PageId }[], isLast: boolean) => {
    asked.push({ pages: pages.map((p) => p.page), isLast })
    throw new Error('It got stuck.')
  }
  createJudging(state).judge(pages(1))
  await judged()
  expect(asked.map((a) => a.pages)).toEqual([['page-0'], []])
})
