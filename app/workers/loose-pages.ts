/** One page looked at quickly, by its address: kept among the loose pages, a site of the shelf that is no site. */
import { sameAddress } from '../../core/addresses/addresses.ts'
import { servedOf } from '../../core/site/fetched.ts'
import type { PageIdentity } from '../../core/site/page-identity.ts'
import { judgeBytes } from '../../core/work/run.ts'
import { typedAddress } from '../../core/work/site-plan.ts'
import { db, type SiteRecord } from '../store/db.ts'
import { inventedWeb } from '../store/invented-web.ts'
import { askServer } from './by-address.ts'
import { settingOf } from './intake.ts'

/** No page lies under it: each loose page is of a site of its own. */
const LOOSE_BASE = 'https://loose-pages.example/'

export type LookedAt = { ok: true; site: string; page: string } | { ok: false; why: string }

/** Fetches a page and puts it among the loose ones, in place of the same page as it was; work on it stays. */
export async function lookAt(address: string, today: string): Promise<LookedAt> {
  const url = typedAddress(address)
  if (url === null)
    return { ok: false, why: 'This is not a web address. Write it like https://www.your-site.example/page.' }
  const answer = await askServer(await inventedWeb())(url, 'page')
  if (!answer.ok) return { ok: false, why: answer.message }
  if (answer.mediaType !== '' && !/^(?:text\/html|application\/xhtml\+xml)$/.test(answer.mediaType))
    return { ok: false, why: `The address gives ${answer.mediaType}, which is not a page.` }
  const site = await looseSite(today)
  const known = (await db.ledger.where('site').equals(site.id).toArray()).find((row) =>
    sameAddress(row.path, answer.url),
  )
  const identity: PageIdentity = {
    id: known?.id ?? crypto.randomUUID(),
    url: answer.url,
    file: null,
    served: servedOf(answer, today),
    partial: null,
  }
  const decisions = known ? ((await db.decisions.get([site.id, known.id]))?.decisions ?? {}) : {}
  // What was decided for a page is decided for its source as it was: then that stays, until the page is taken in again.
  if (known && Object.keys(decisions).length > 0) return { ok: true, site: site.id, page: answer.url }
  const judged = judgeBytes(
    identity,
    answer.body,
    decisions,
    settingOf(site, today, [identity], [], () => ({}), undefined),
  )
  if (!judged.ok) return judged
  const { row, source } = judged.value
  const { bytes, encoding, encodingBy, bom } = source
  await db.transaction('rw', [db.sites, db.ledger, db.pages], async () => {
    await db.ledger.put({ ...row, site: site.id })
    await db.pages.put({ ...identity, site: site.id, bytes, encoding, encodingBy, bom })
    const pages = await db.ledger.where('site').equals(site.id).count()
    await db.sites.put({ ...site, pages, takenIn: today })
  })
  return { ok: true, site: site.id, page: answer.url }
}

async function looseSite(today: string): Promise<SiteRecord> {
  const site = await db.sites.filter((s) => s.from?.by === 'page').first()
  if (site) return site
  const made: SiteRecord = {
    id: crypto.randomUUID(),
    name: 'Loose pages',
    base: LOOSE_BASE,
    whole: false,
    root: '',
    status: 'ready',
    takenIn: today,
    pages: 0,
    otherFiles: 0,
    unread: [],
    demo: false,
    from: { by: 'page' },
  }
  await db.sites.add(made)
  return made
}
