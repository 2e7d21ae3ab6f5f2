/** The run over all pages of a site: each read, judged and told of as it comes; what cannot be judged is named and left out. */
import { onePage, type Outcome } from '../page/read/boundary.ts'
import { readSource, type Source } from '../page/source/source.ts'
import { addressKey } from '../addresses/addresses.ts'
import { pathOf, type PageId, type PageIdentity } from '../site/page-identity.ts'
import { addressOnly, keywordKey, updateIndex } from '../site/site-index.ts'
import { compileKeyword } from '../words/match.ts'
import { keywordsOf, type Decisions } from './decisions.ts'
import { evaluate, readDraft, type Evaluated } from './evaluate.ts'
import { looksAtOthers } from './page-proof.ts'
import { addressesFor, type SiteSetting } from './setting.ts'

export interface SiteToRun {
  /** Its index is filled by the run. */
  setting: SiteSetting
  /** In the order in which they are told of. */
  pages: readonly PageIdentity[]
  decisionsOf(id: PageId): Decisions
  /** A page's bytes, or why it cannot be had. */
  read(page: PageIdentity): Promise<Outcome<Uint8Array>> | Outcome<Uint8Array>
}
export interface RunOptions {
  /** Told of every page before it is looked at: should the run get stuck, this is the page that it got stuck at. */
  progress?(page: PageIdentity, done: number): void
  /** Which pages are judged, by their place; the others are only known by their addresses. All, unless it is given. */
  isMine?(at: number): boolean
  /** Asked before every page: the run ends where the answer is yes. */
  stopped?(): boolean
  onPage(page: PageIdentity, judged: Outcome<Evaluated>): Promise<void> | void
}

/** Judges every page; the index then holds the whole site, for the marks of the site. False where it was stopped. */
export async function runOverPages(
  site: SiteToRun,
  { progress, isMine = () => true, stopped = () => false, onPage }: RunOptions,
): Promise<boolean> {
  const { setting, pages } = site
  await prepareIndex(site)
  for (const [done, page] of pages.entries()) {
    if (!isMine(done)) continue
    if (stopped()) return false
    progress?.(page, done)
    const judged = await judge(site, page)
    updateIndex(setting.index, page.id, judged.ok ? judged.value.row : null)
    await onPage(page, judged)
  }
  return !stopped()
}

async function judge(site: SiteToRun, page: PageIdentity): Promise<Outcome<Evaluated>> {
  const bytes = await site.read(page)
  return bytes.ok ? judgeBytes(page, bytes.value, site.decisionsOf(page.id), site.setting) : bytes
}

/** A page judged from its bytes, or why it is left out. */
export function judgeBytes(
  page: PageIdentity,
  bytes: Uint8Array,
  decisions: Decisions,
  setting: SiteSetting,
): Outcome<Evaluated> {
  return onePage(() => {
    const read = readSource(bytes, page.served)
    return read.ok ? judgeSource(page, read.source, decisions, setting) : read
  })
}
function judgeSource(
  page: PageIdentity,
  source: Source,
  decisions: Decisions,
  setting: SiteSetting,
): Outcome<Evaluated> {
  const reading = readDraft(page, source, decisions, setting)
  const { beyond } = reading.page
  return beyond === null ? { ok: true, value: evaluate(reading) } : { ok: false, why: beyond }
}

/**
 * What the first page's rules and proof must know of the others: every address and keyword, what the home page links to,
 * and, where a draft takes names from other pages, what those are called.
 */
export async function prepareIndex(site: SiteToRun): Promise<void> {
  const { setting, pages } = site
  const { index, style } = setting
  for (const page of pages) {
    const primary = keywordsOf(site.decisionsOf(page.id))?.primary
    updateIndex(index, page.id, {
      ...addressOnly(page.id, pathOf(page), addressesFor(page, setting).url),
      keyword: keywordKey(primary ? compileKeyword(primary, style.language) : null),
      phrase: primary ?? null,
    })
  }
  const homeId = index.addresses.get(addressKey(setting.base))
  const someLook = pages.some((page) => looksAtOthers(site.decisionsOf(page.id)))
  for (const page of someLook ? pages : pages.filter(({ id }) => id === homeId)) {
    const judged = await judge(site, page)
    if (judged.ok) updateIndex(index, page.id, judged.value.row)
  }
}
