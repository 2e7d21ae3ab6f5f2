/** The demo site on the shelf: taken in from the server's stand-in by the same way as any archive. */
import { ownStyle, readHouseStyle } from '../../core/rules/house-style.ts'
import { db, removeSite } from '../store/db.ts'
import { closeSession } from '../session/session.ts'
import { today } from '../session/today.ts'
import { core } from '../workers/client.ts'
import { reported } from '../workers/reported.ts'

const SEEDED = 'demo-seeded'
export const DEMO_BASE = 'https://farrowskerry.example/'

export const demoWasSeeded = async (): Promise<boolean> => (await db.settings.get(SEEDED)) !== undefined

/** Puts the demo on the shelf, in place of one that is there. Returns why it could not be, or null. */
export async function putDemoOnShelf(): Promise<string | null> {
  const [archive, sheet, house, handOff] = await Promise.all(
    ['site.zip', 'keywords.csv', 'house-style.json', 'hand-off.json'].map((name) =>
      // A server that is gone answers nothing: said below.
      fetch(`/stand-ins/${name}`).catch(() => null),
    ),
  )
  if (!archive?.ok) return 'The demo site could not be fetched from the server. Is it still running?'
  for (const old of await db.sites.filter((s) => s.demo).toArray()) {
    closeSession(old.id)
    await removeSite(old.id)
  }
  const file = new File([await archive.blob()], 'farrowskerry.zip', { type: 'application/zip' })
  const prepared = await core().prepare({ kind: 'zip', file })
  if (!prepared.ok) return prepared.why
  const given = {
    ticket: prepared.prepared.ticket,
    name: 'Farrowskerry Light',
    base: DEMO_BASE,
    today: today(),
    demo: true,
  }
  const taken = await reported(
    () => {},
    (report) => core().takeIn(given, report),
  )
  if (!taken.ok) return taken.why
  const { id } = taken.site
  const ofSite: Record<string, unknown> = {}
  if (house?.ok) {
    const read = readHouseStyle(await house.json())
    if (read.ok) ofSite.style = ownStyle(read.style)
  }
  if (handOff?.ok) {
    // What was handed off some weeks ago, so that Progress has something true to say on the first day.
    const { date, what, pages } = (await handOff.json()) as { date: string; what: string; pages: string[] }
    const rows = await db.ledger.where('site').equals(id).toArray()
    const ids = pages.flatMap((path) => rows.find((row) => row.path === path)?.id ?? [])
    ofSite['hand-offs'] = [{ date, what, pages: ids }]
  }
  await db.decisions.put({ site: id, page: '', decisions: ofSite })
  if (sheet?.ok) {
    // Of the demo by its id: the worker may have another site open by now, which somebody is at work on.
    const keywords = await core().readKeywordSheet(new Uint8Array(await sheet.arrayBuffer()), id)
    if (keywords.ok)
      await db.decisions.bulkPut(
        keywords.read.matched.map(({ id: page, primary, secondary }) => ({
          site: id,
          page,
          decisions: {
            'keyword:primary': primary,
            ...(secondary.length > 0 ? { 'keyword:secondary': secondary } : {}),
          },
        })),
      )
  }
  await db.settings.put({ key: SEEDED, value: true })
  return null
}

/** Takes off what an intake that was cut off has left behind. */
export async function sweepShelf(): Promise<void> {
  const stale = await db.sites.filter((s) => s.status === 'taking in').toArray()
  // One that another tab is taking in right now holds this lock.
  await navigator.locks.request('keen-quill-intake', { ifAvailable: true }, async (lock) => {
    if (lock) for (const site of stale) await removeSite(site.id)
  })
}
