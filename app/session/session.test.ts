import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defaultStyle, type HouseStyle } from '../../core/rules/house-style.ts'
import { db } from '../store/db.ts'
import { createSession, type Session } from './session.ts'
import { pickerOf } from './use-session.ts'

// No worker here: what a page's marks are is its business, what is kept and when is the session's.
vi.mock('../workers/client.ts', () => ({
  core: () => ({ evaluatePage: async () => null, evaluateRows: async () => null, setSite: async () => [] }),
}))

let session: Session
beforeEach(() => {
  vi.stubGlobal('addEventListener', () => {})
  vi.stubGlobal('removeEventListener', () => {})
  vi.stubGlobal('localStorage', { setItem: () => {}, removeItem: () => {} })
  vi.stubGlobal('document', {
    addEventListener: () => {},
    removeEventListener: () => {},
    visibilityState: 'visible',
  })
  session = createSession({
    site: { id: 's' } as never,
    rows: new Map(),
    work: new Map(),
    siteMarks: [],
    style: defaultStyle,
    rules: [],
    templates: [],
    mentions: false,
  })
})
afterEach(async () => {
  await session.flush()
  session.close()
  await Promise.all([db.decisions.clear(), db.log.clear()])
  vi.unstubAllGlobals()
})

const stored = async (page: string) => (await db.decisions.get(['s', page]))?.decisions ?? {}
/** One figure of the house style changed, as a field that is left does it. */
const limit = (key: keyof HouseStyle['limits'], to: number) =>
  session.decide('Limit', () => {
    const limits = { ...session.get().style.limits, [key]: to }
    return [{ page: '', key: 'style', after: { limits } }]
  })

describe('what is decided and not yet in the store', () => {
  it('is said to be on its way from the first moment, until the last of it has arrived', async () => {
    const said: string[] = []
    const stop = session.subscribe(() => said.push(session.get().saved))
    const first = limit('titleLongest', 50)
    expect(session.get().saved).toBe('saving')
    const second = limit('descriptionLongest', 120)
    await first
    await second
    expect(session.get().saved).toBe('saved')
    stop()
    expect(said.slice(0, said.indexOf('saved')).every((s) => s === 'saving')).toBe(true)
    expect(said.slice(said.indexOf('saved'))).toEqual(expect.not.arrayContaining(['saving']))
  })

  it('is waited for by who reads the whole: a field left and a file saved by the next click', async () => {
    void limit('titleLongest', 50)
    void limit('descriptionLongest', 120)
    await session.flush()
    expect(session.get().style.limits).toMatchObject({ titleLongest: 50, descriptionLongest: 120 })
  })

  it('comes after what was typed before it, and both are in the store', async () => {
    session.type('a.html', 'edit:title', { value: 'A lamp' }, 'Title')
    void session.decide('Title approved', () => {
      expect(session.decisionsOf('a.html')['edit:title']).toEqual({ value: 'A lamp' })
      return [{ page: 'a.html', key: 'state', after: 'approved' }]
    })
    await session.flush()
    expect(await stored('a.html')).toMatchObject({ 'edit:title': { value: 'A lamp' }, state: 'approved' })
  })

  it('is a step of its own: typing after it does not carry on the typing before it', async () => {
    session.type('a.html', 'edit:title', { value: 'A' }, 'Title')
    void session.decide('Slug', [{ page: 'a.html', key: 'edit:slug', after: { value: 'lamp' } }])
    session.type('a.html', 'edit:title', { value: 'AB' }, 'Title')
    await session.flush()
    expect(await db.log.count()).toBe(3)
    await session.walk('undo')
    expect((await stored('a.html'))['edit:title']).toEqual({ value: 'A' })
  })

  it('is one step for one stretch of typing, however slow the store; a field left ends the stretch', async () => {
    const type = (value: string) => session.type('a.html', 'edit:title', { value }, 'Title')
    type('A')
    void session.flush()
    type('A l')
    void session.flush()
    type('A lamp')
    void session.blur()
    type('A lamp at sea')
    await session.flush()
    expect(await db.log.count()).toBe(2)
    await session.walk('undo')
    expect((await stored('a.html'))['edit:title']).toEqual({ value: 'A lamp' })
    await session.walk('undo')
    expect(await stored('a.html')).toEqual({})
  })

  it('is in memory at once, one decision on top of the other', async () => {
    const takes = () => (session.decisionsOf('a.html')['takes:title'] as string[] | undefined) ?? []
    const add = (take: string) =>
      session.decide('Take', () => [{ page: 'a.html', key: 'takes:title', after: [...takes(), take] }])
    void add('one')
    void add('two')
    expect(takes()).toEqual(['one', 'two'])
    await session.flush()
    expect((await stored('a.html'))['takes:title']).toEqual(['one', 'two'])
  })

  it('is taken back from the screen when the browser refuses it', async () => {
    const put = vi.spyOn(db.decisions, 'bulkPut').mockRejectedValueOnce(new Error('full'))
    const refused = session.decide('Slug', [{ page: 'b.html', key: 'edit:slug', after: { value: 'lamp' } }])
    expect(session.decisionsOf('b.html')).not.toEqual({})
    await expect(refused).rejects.toThrow('full')
    put.mockRestore()
    expect(session.decisionsOf('b.html')).toEqual({})
    expect(session.get().saved).toBe('failed')
  })

  it('is not lost when the browser refuses what was typed before it', async () => {
    const put = vi.spyOn(db.decisions, 'bulkPut').mockRejectedValueOnce(new Error('full'))
    session.type('a.html', 'edit:title', { value: 'A' }, 'Title')
    await session.decide('Slug', [{ page: 'b.html', key: 'edit:slug', after: { value: 'lamp' } }])
    put.mockRestore()
    expect(await stored('b.html')).toMatchObject({ 'edit:slug': { value: 'lamp' } })
    expect(session.get().saved).toBe('saving')
    await vi.waitFor(() => expect(session.get().saved).toBe('saved'))
    expect(await stored('a.html')).toMatchObject({ 'edit:title': { value: 'A' } })
  })
})

describe('parts of the state', () => {
  it('are the same object until one of them changes', async () => {
    const get = pickerOf(session, ['work', 'style'])
    const before = get()
    session.type('a.html', 'edit:title', { value: 'A lamp' }, 'Title')
    const typed = get()
    expect(typed).not.toBe(before)
    expect(typed.work.get('a.html')).toEqual({ 'edit:title': { value: 'A lamp' } })
    // That it is saved, and what undo would take back, is no part of them.
    await session.flush()
    expect(session.get().saved).toBe('saved')
    expect(get()).toBe(typed)
  })
})
