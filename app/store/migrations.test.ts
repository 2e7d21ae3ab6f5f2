import 'fake-indexeddb/auto'
import Dexie from 'dexie'
import { afterEach, describe, expect, it } from 'vitest'
import { Store } from './db.ts'
import { walkLog } from './work-log.ts'

const NAME = 'an-older-store'
afterEach(() => Dexie.delete(NAME))

const bytes = new Uint8Array([60, 112, 62])
/** A store as the versions before pages had ids left it: one site, in a folder, with work and a log. */
async function olderStore(version: 1 | 2): Promise<void> {
  const store = new Dexie(NAME)
  store.version(1).stores({
    sites: 'id',
    rows: '[site+path], site',
    sources: '[site+path], site',
    files: '[site+path], site',
    work: '[site+path], site',
    log: '++id, site',
    settings: 'key',
  })
  if (version === 2) store.version(2).stores({ outlines: '[site+path], site' })
  await store.open()
  await store
    .table('sites')
    .add({ id: 's', name: 'Light', base: 'https://s.example/', root: 'site/', status: 'ready' })
  for (let i = 0; i < 120; i++) {
    const path = `site/p${i}.html`
    await store
      .table('rows')
      .add({ site: 's', path, url: `https://s.example/p${i}.html`, title: `Page ${i}` })
    await store
      .table('sources')
      .add({ site: 's', path, bytes, encoding: 'utf-8', encodingBy: 'meta', bom: 0 })
  }
  await store.table('files').add({ site: 's', path: 'site/a.css', bytes })
  await store.table('work').bulkAdd([
    { site: 's', path: 'site/p1.html', decisions: { 'edit:title': { value: 'Tides' } } },
    { site: 's', path: '', decisions: { base: 'https://s.example/' } },
  ])
  await store.table('log').add({
    site: 's',
    at: '2026-11-24',
    label: 'Title',
    undone: false,
    changes: [{ path: 'site/p1.html', key: 'edit:title', after: { value: 'Tides' } }],
  })
  if (version === 2) await store.table('outlines').add({ site: 's', path: 'site/p1.html', items: [] })
  store.close()
}

describe('a store of an older version', () => {
  it.each([1, 2] as const)('%i opens whole: pages, rows, decisions, log and undo', async (version) => {
    await olderStore(version)
    const store = new Store(NAME)
    expect(await store.pages.count()).toBe(120)
    expect(await store.pages.get(['s', 'site/p7.html'])).toEqual({
      site: 's',
      id: 'site/p7.html',
      url: 'https://s.example/p7.html',
      file: 'site/p7.html',
      served: null,
      partial: null,
      bytes,
      encoding: 'utf-8',
      encodingBy: 'meta',
      bom: 0,
    })
    expect(await store.ledger.get(['s', 'site/p7.html'])).toMatchObject({
      id: 'site/p7.html',
      title: 'Page 7',
      redirected: [],
      served: null,
    })
    expect(await store.files.count()).toBe(1)
    expect(await store.decisions.get(['s', ''])).toMatchObject({ decisions: { base: 'https://s.example/' } })
    expect(await store.pageOutlines.count()).toBe(version === 2 ? 1 : 0)
    // Sizes that were not kept then are read from what is there.
    expect(await store.fileSizes.get(['s', 'site/a.css'])).toEqual({
      site: 's',
      path: 'site/a.css',
      bytes: 3,
      image: null,
    })
    expect((await store.sites.get('s'))!.bytes).toBe(121 * 3)
    expect((await store.decisions.get(['s', 'site/p1.html']))?.decisions).toEqual({
      'edit:title': { value: 'Tides' },
    })
    expect(await walkLog('s', 'undo', store)).toMatchObject({ label: 'Title', pages: ['site/p1.html'] })
    expect((await store.decisions.get(['s', 'site/p1.html']))?.decisions).toEqual({})
    expect(await walkLog('s', 'redo', store)).not.toBeNull()
    expect((await store.decisions.get(['s', 'site/p1.html']))?.decisions).toEqual({
      'edit:title': { value: 'Tides' },
    })
    expect(store.tables.map((table) => table.name)).not.toContain('work')
    store.close()
  })
})
