/** Links from and to a page, and mentions that could be links. */
import { useEffect, useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import type { PageId } from '../../../core/site/page-identity.ts'
import { MarkMentions } from '../../keywords/mark-mentions.tsx'
import { BesideMargin } from '../../margin/beside-margin.tsx'
import { useLearning, type Progress } from '../../session/learn-pages.ts'
import type { Session } from '../../session/session.ts'
import { plural } from '../../ui/plural.ts'
import { shownPath } from '../../ui/shown-path.ts'
import { core } from '../../workers/client.ts'
import type { FoundMention, LinkFrom, LinksView, LinkTo } from '../../workers/site-pages.ts'
import { useAnswer } from '../../workers/use-answer.ts'
import type { SheetProps } from '../sheet-props.ts'
import { Mentions } from './mentions.tsx'

export function LinksSheet({ session, row, decisions, view }: SheetProps) {
  const page = row.id
  const { progress, known } = useLearning(session, true, session.get().rows)
  const links = useAnswer(view && (() => core().linksView(page, session.decisionsOf(page))), [
    view,
    page,
    known,
  ])
  const here = useAnswer(view && (() => core().mentionsHere(page, session.decisionsOf(page))), [
    view,
    page,
    known,
  ])
  const primary = (decisions['keyword:primary'] as string | undefined) ?? ''
  const elsewhere = useMentions(session, page, primary, known)
  const marks = (view?.marks ?? []).filter((mark) => mark.shownOn.links !== undefined)
  if (!links) return <p className="font-serif text-[15px] text-ink-2 italic">Reading …</p>
  return (
    <BesideMargin
      session={session}
      page={page}
      view={view}
      marks={marks}
      anchors={noAnchors}
      clean="Nothing to mend in the links."
      onGoTo={() => {}}
    >
      <section className="sheet min-w-0 px-7 py-5 max-[700px]:px-3" aria-label="Links" data-testid="links">
        <FromOthers session={session} links={links} progress={progress} />
        {primary === '' ? (
          <p className="mt-6 text-[13px] text-ink-2">
            This page has no primary keyword yet: mentions of it are found by that.
          </p>
        ) : (
          <Mentions
            session={session}
            testId="link-elsewhere"
            title={`Pages that speak of “${primary}” and do not link here in their text`}
            mentions={elsewhere.mentions}
            otherOf={(m) => m.on}
            progress={progress ?? elsewhere.progress}
            nothing="No other page speaks of it without a link in its text."
          />
        )}
        <ToOthers links={links} session={session} />
        <Mentions
          session={session}
          testId="link-here"
          title="What this page speaks of without a link in its text"
          mentions={here}
          otherOf={(m) => m.of}
          progress={null}
          nothing="Its text links to every page whose keyword it speaks of."
        />
        <div className="mt-6 border-t border-rule pt-3">
          <MarkMentions session={session} />
        </div>
      </section>
    </BesideMargin>
  )
}

const noAnchors: ReadonlyMap<string, number> = new Map()
const AT_ONCE = 10

/** Mentions of a page on all others, found in small portions. */
function useMentions(
  session: Session,
  page: PageId,
  phrase: string,
  known: boolean,
): { mentions: FoundMention[] | null; progress: Progress | null } {
  const [found, setFound] = useState<{
    of: string
    mentions: FoundMention[]
    progress: Progress | null
  } | null>(null)
  const of = `${page} ${phrase}`
  useEffect(() => {
    if (!known || phrase === '') return
    let stale = false
    void (async () => {
      const pages = await core().pagesToSearch(page, phrase)
      let mentions: FoundMention[] = []
      for (let i = 0; i < pages.length && !stale; i += AT_ONCE) {
        setFound({ of, mentions, progress: { done: i, of: pages.length } })
        const some = pages
          .slice(i, i + AT_ONCE)
          .map((id) => ({ page: id, decisions: session.decisionsOf(id) }))
        mentions = [...mentions, ...(await core().mentionsOf(page, phrase, some))]
      }
      if (!stale) setFound({ of, mentions, progress: null })
    })()
    return () => {
      stale = true
    }
  }, [session, page, phrase, known, of])
  return found?.of === of ? found : { mentions: null, progress: null }
}

const placeNames: Record<LinkFrom['where'], string> = {
  text: 'in the text',
  heading: 'in a heading',
  menu: 'in a menu',
  header: 'in the header',
  footer: 'in the footer',
  sidebar: 'in a sidebar',
  search: 'in the search',
}
/** So many are listed; a link in the menu comes from every page. */
const MOST = 100

/** Who links here: links that say the same in the same place stand together. */
function FromOthers({
  session,
  links,
  progress,
}: {
  session: Session
  links: LinksView
  progress: Progress | null
}) {
  const { rows, site } = session.get()
  const { siteId } = useParams()
  const groups = useMemo(() => {
    const all = new Map<string, { words: string; where: LinkFrom['where']; from: PageId[] }>()
    for (const { from, words, where } of links.from) {
      const key = `${where} ${words}`
      const group = all.get(key)
      if (group) group.from.push(from)
      else all.set(key, { words, where, from: [from] })
    }
    const order = Object.keys(placeNames)
    return [...all.values()].sort(
      (a, b) => order.indexOf(a.where) - order.indexOf(b.where) || b.from.length - a.from.length,
    )
  }, [links])
  const pages = new Set(links.from.map((l) => l.from)).size
  const fromHome = links.from.some(({ from }) => rows.get(from)?.url === site.base)
  return (
    <section aria-label="Links to this page">
      <h2 className="font-serif text-[18px]">
        Links to this page
        <span className="ml-3 font-sans text-[13px] text-ink-2" role="status">
          {progress
            ? `reading ${progress.done.toLocaleString('en')} of ${progress.of.toLocaleString('en')} pages …`
            : `from ${plural(pages, 'page')}${pages > 0 ? `, the home page ${fromHome ? 'among them' : 'not among them'}` : ''}`}
        </span>
      </h2>
      {!progress && groups.length === 0 && (
        <p className="mt-1 text-[13px] text-ink-2">No page of the site links here.</p>
      )}
      <ul className="mt-1 text-[13px]" data-testid="links-from">
        {groups.slice(0, MOST).map(({ words, where, from }) => {
          const row = rows.get(from[0]!)
          return (
            <li
              key={`${where} ${words}`}
              className="grid grid-cols-[minmax(0,1fr)_104px_minmax(0,1.3fr)] gap-4 border-t border-rule-2 py-1"
            >
              <span className="truncate font-serif text-[15px]">{words ? `“${words}”` : 'no words'}</span>
              <span className="text-ink-2">{placeNames[where]}</span>
              <span className="truncate text-right">
                {row && (
                  <Link
                    className="text-quill hover:underline"
                    to={`/sites/${siteId}/desk?page=${encodeURIComponent(row.path)}&sheet=links`}
                  >
                    {shownPath(row)}
                  </Link>
                )}
                {from.length > 1 && ` and ${plural(from.length - 1, 'more page')}`}
              </span>
            </li>
          )
        })}
      </ul>
    </section>
  )
}

const stateNames: Record<LinkTo['state'], string> = {
  page: '',
  file: 'a file',
  redirects: 'redirects',
  'not in results': 'not for results',
  missing: 'leads nowhere',
  outside: 'another site',
  other: 'not known',
}

/** What this page links to, in the order of its text, menus and the like last. */
function ToOthers({ links, session }: { links: LinksView; session: Session }) {
  const { rows } = session.get()
  const isFurniture = ({ where }: LinkTo) => where !== 'text' && where !== 'heading'
  const inOrder = [...links.to.filter((l) => !isFurniture(l)), ...links.to.filter(isFurniture)]
  return (
    <section className="mt-6" aria-label="Links of this page">
      <h2 className="font-serif text-[18px]">
        Links of this page
        <span className="ml-3 font-sans text-[13px] text-ink-2">
          {plural(links.to.length, 'link')}, {links.to.filter((l) => !isFurniture(l)).length} in the text
        </span>
      </h2>
      <ul className="mt-1 text-[13px]" data-testid="links-to">
        {inOrder.slice(0, MOST).map((link, i) => {
          const row = link.to === null ? undefined : rows.get(link.to)
          return (
            <li
              key={i}
              className="grid grid-cols-[minmax(0,1fr)_104px_minmax(0,1.3fr)] gap-4 border-t border-rule-2 py-1"
            >
              <span className="truncate font-serif text-[15px]">
                {link.words ? `“${link.words}”` : 'no words'}
              </span>
              <span
                className={
                  link.state === 'missing' || link.state === 'redirects' ? 'text-carmine' : 'text-ink-2'
                }
              >
                {stateNames[link.state] || placeNames[link.where]}
              </span>
              <span className="truncate text-right text-ink-2" title={link.url ?? link.href}>
                {row ? shownPath(row) : link.href}
              </span>
            </li>
          )
        })}
      </ul>
      {links.to.length > MOST && (
        <p className="text-[13px] text-ink-2">And {plural(links.to.length - MOST, 'more link')}.</p>
      )}
    </section>
  )
}
