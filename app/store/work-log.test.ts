import 'fake-indexeddb/auto'
import fc from 'fast-check'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { stateOf, type Decisions } from '../../core/work/decisions.ts'
import { Store } from './db.ts'
import { commit, logState, walkLog } from './work-log.ts'

let store: Store
let n = 0
beforeEach(() => {
  store = new Store(`test-${n++}`)
})
afterEach(() => store.delete())

const decisions = async (page: string): Promise<Decisions> =>
  (await store.decisions.get(['s', page]))?.decisions ?? {}
const edit = (page: string, value: string, amend: number | null = null) =>
  commit('s', 'Title', [{ page, key: 'edit:title', after: { value } }], '2026-11-23', amend, store)

describe('the command log', () => {
  it('undoes to the state before, whatever was edited (invariant 7)', async () => {
    const step = fc.record({
      page: fc.constantFrom('a', 'b'),
      key: fc.constantFrom('edit:title', 'edit:meta:description', 'keyword:primary', 'state'),
      value: fc.option(fc.string({ minLength: 1 }), { nil: undefined }),
    })
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 8 }), async (steps) => {
        await Promise.all([store.decisions.clear(), store.log.clear()])
        const states: string[] = []
        const now = async () => JSON.stringify([await decisions('a'), await decisions('b')])
        for (const { page, key, value } of steps) {
          const before = await now()
          const after =
            value === undefined
              ? undefined
              : key.startsWith('edit:')
                ? { value }
                : key === 'state'
                  ? 'approved'
                  : value
          const { logId } = await commit('s', key, [{ page, key, after }], '', null, store)
          if (logId !== null) states.push(before)
        }
        const end = await now()
        for (const state of states.toReversed()) {
          expect(await walkLog('s', 'undo', store)).not.toBeNull()
          expect(JSON.parse(await now())).toEqual(JSON.parse(state))
        }
        expect(await walkLog('s', 'undo', store)).toBeNull()
        while (await walkLog('s', 'redo', store));
        expect(JSON.parse(await now())).toEqual(JSON.parse(end))
      }),
      { numRuns: 40 },
    )
  })
  it('takes one stretch of typing as one step, and starts another when something came between', async () => {
    const first = await edit('a', 'T')
    await edit('a', 'Ti', first.logId)
    await edit('a', 'Tides', first.logId)
    expect(await store.log.count()).toBe(1)
    await edit('b', 'Knots')
    await edit('a', 'Tides!', first.logId)
    expect(await store.log.count()).toBe(3)
    await walkLog('s', 'undo', store)
    expect((await decisions('a'))['edit:title']).toEqual({ value: 'Tides' })
  })
  it('drafts an approved page again when it is edited, and undo gives the approval back', async () => {
    await commit('s', 'Approve', [{ page: 'a', key: 'state', after: 'approved' }], '', null, store)
    await edit('a', 'New')
    expect(stateOf(await decisions('a'))).toBe('drafted')
    await walkLog('s', 'undo', store)
    expect(stateOf(await decisions('a'))).toBe('approved')
  })
  it('keeps what two tabs write to one page at the same time', async () => {
    await Promise.all([
      edit('a', 'Tides'),
      commit('s', 'Keyword', [{ page: 'a', key: 'keyword:primary', after: 'tide' }], '', null, store),
    ])
    expect(await decisions('a')).toEqual({ 'edit:title': { value: 'Tides' }, 'keyword:primary': 'tide' })
  })
  it('forgets what was undone once something new is done', async () => {
    await edit('a', 'One')
    await edit('a', 'Two')
    await walkLog('s', 'undo', store)
    expect(await logState('s', store)).toEqual({ undo: 'Title', redo: 'Title' })
    await edit('a', 'Three')
    expect(await logState('s', store)).toEqual({ undo: 'Title', redo: null })
  })
})
