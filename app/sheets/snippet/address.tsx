import { memo, useMemo, useState } from 'react'
import type { Decisions } from '../../../core/work/decisions.ts'
import type { Session } from '../../session/session.ts'
import { plural } from '../../ui/plural.ts'
import { core } from '../../workers/client.ts'
import { useAnswer } from '../../workers/use-answer.ts'
import type { LedgerRow } from '../../../core/work/evaluate.ts'
import type { PageView } from '../../workers/page-view.ts'
import type { PathParts } from '../../../core/site/moves.ts'
import { decisionFor, ownParts, slugOf, typedSegments, type Slug } from './address-parts.ts'
import { Drawer } from '../../ui/drawer.tsx'

/** The host and path of the site's root, as a result shows them. */
const rootOf = (base: string) => new URL(base).host + new URL(base).pathname.replace(/\/$/, '')

/** The address as a result shows it, each segment typed where it stands. */
export function AddressTrail({
  session,
  row,
  decisions,
  view,
  trail,
}: {
  session: Session
  row: LedgerRow
  decisions: Decisions
  view: PageView | null
  /** Names of the page's breadcrumb, shown in place of the address. */
  trail: string[] | null
}) {
  const { base } = session.get().site
  const page = row.id
  const { segments: original, extension } = useOwnParts(row, session)
  const [focused, setFocused] = useState<number | null>(null)
  const typed = typedSegments(slugOf(decisions), original)
  // As typed while it is typed; as it will be written once it is left.
  const shown =
    focused === null && view && !view.address.refused && view.id === page ? view.address.segments : typed
  const root = useMemo(() => rootOf(base), [base])
  const host = original.length === 0 ? row.url.replace(/^https?:\/\//, '').replace(/\/$/, '') : root
  const collides = view?.id === page ? view.address.refused : null
  const file = extension.startsWith('/') ? '' : extension
  if (trail)
    return (
      <p data-anchor="trail" className="truncate pb-0.5 text-[14px] leading-[22px] text-ink-2">
        {[host, ...trail].join(' › ')}
      </p>
    )
  return (
    <div data-anchor="trail" className="pb-0.5 text-[14px] leading-[22px] text-ink-2">
      <span className="flex flex-wrap items-baseline gap-x-1">
        <span>{host}</span>
        {shown.map((segment, i) => (
          <span key={i} className="flex items-baseline gap-x-1">
            <span aria-hidden>›</span>
            <input
              data-testid={i === shown.length - 1 ? 'slug' : undefined}
              aria-label={i === shown.length - 1 ? 'Slug' : `Segment ${i + 1} of the address`}
              aria-invalid={collides !== null}
              className="segment"
              size={Math.max(2, segment.length)}
              spellCheck={false}
              autoCapitalize="off"
              value={segment}
              onFocus={() => setFocused(i)}
              onChange={(e) => {
                const next = typed.map((s, k) => (k === i ? e.target.value.replace(/\//g, '') : s))
                session.type(page, 'edit:slug', decisionFor(next, original, slugOf(decisions)?.alone), 'Slug')
              }}
              onBlur={() => {
                setFocused(null)
                void session.blur()
              }}
            />
          </span>
        ))}
        {shown.length > 0 && <span className="text-ink-3">{file}</span>}
      </span>
      {collides && (
        <span role="alert" className="block font-sans text-[13px] text-carmine" data-testid="slug-refused">
          {collides}
        </span>
      )}
    </div>
  )
}

/** The parts of the path that a page was taken in with. */
function useOwnParts({ file, path, url }: LedgerRow, session: Session): PathParts {
  const { site } = session.get()
  return useMemo(() => ownParts({ file, path, url }, site), [file, path, url, site])
}

/** Where the page goes: slugs made on request, what moves with it, and all that follows. */
export const AddressDrawer = memo(function AddressDrawer({
  session,
  row,
  slug,
  view,
}: {
  session: Session
  row: LedgerRow
  slug: Slug | undefined
  view: PageView
}) {
  const { base } = session.get().site
  const page = row.id
  const parts = useOwnParts(row, session)
  const { segments: original } = parts
  const folders = useFoldersAbove(original, session)
  const { address } = view
  const moves = view.url !== address.oldUrl
  const effect = useAnswer(
    async () => (moves ? await core().slugEffect(page, Object.fromEntries(session.get().work)) : null),
    [session, page, view.url, moves, slug?.alone],
    250,
  )

  if (original.length === 0)
    return (
      <Drawer
        id="address"
        title="Address"
        summary={
          view.url === base ? 'the home page has no slug' : 'an address with a query has no slug to change'
        }
      >
        <p className="text-[13px] text-ink-2">{view.url}</p>
      </Drawer>
    )
  const decide = (value: Slug | undefined, label: string) =>
    void session.decide(label, [{ page, key: 'edit:slug', after: value }])
  const make = (made: string, label: string) =>
    decide(decisionFor([...typedSegments(slug, original).slice(0, -1), made], original, slug?.alone), label)
  const others = effect ? effect.followers.filter((f) => f.path !== view.path) : []
  const summary = !moves
    ? slug && address.refused
      ? 'the new slug is taken'
      : 'unchanged; edit it above'
    : `${address.oldUrl.slice(base.length - 1)} becomes ${view.url.slice(base.length - 1)}`
  return (
    <Drawer id="address" title="Address" summary={summary} defaultOpen>
      <div className="text-[13px]">
        <p className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
          {address.fromTitle && address.fromTitle !== typedSegments(slug, original).at(-1) && (
            <button
              type="button"
              className="action"
              onClick={() => make(address.fromTitle, 'Slug from the title')}
            >
              From the title: <span className="font-normal">{address.fromTitle}</span>
            </button>
          )}
          {address.fromKeyword &&
            address.fromKeyword !== address.fromTitle &&
            address.fromKeyword !== typedSegments(slug, original).at(-1) && (
              <button
                type="button"
                className="action"
                onClick={() => make(address.fromKeyword, 'Slug from the keyword')}
              >
                From the keyword: <span className="font-normal">{address.fromKeyword}</span>
              </button>
            )}
          {slug && (
            <button type="button" className="quiet" onClick={() => decide(undefined, 'Original slug')}>
              Original: {original.at(-1)}
            </button>
          )}
        </p>
        {parts.folder && slug && (
          <label className="mt-2 flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-ink"
              checked={!slug.alone}
              onChange={(e) =>
                decide(
                  { value: slug.value, ...(e.target.checked ? {} : { alone: true as const }) },
                  'What moves with the folder',
                )
              }
            />
            {address.under > 0
              ? `The ${plural(address.under, 'page')} under it and the folder’s files move with it`
              : 'The folder’s files move with it'}
          </label>
        )}
        {folders.length > 0 && (
          <p className="mt-2 text-ink-3">
            A segment typed here moves this page alone. To rename a folder for all of its pages, change the
            slug of{' '}
            {folders.map((f, i) => (
              <span key={f.path}>
                {i > 0 && ', '}
                <a className="quiet" href={`?page=${encodeURIComponent(f.path)}`}>
                  /{f.name}/
                </a>
              </span>
            ))}
            .
          </p>
        )}
        {moves && effect && (
          <div className="mt-3" data-testid="slug-effect">
            <p className="font-semibold">What changes elsewhere</p>
            <ul className="mt-1 list-disc pl-5 text-ink-2">
              <li>
                {plural(effect.moved.length, 'page')} at a new address, {plural(effect.redirects, 'redirect')}{' '}
                from the old
                {effect.redirects === 1 ? ' one' : ' ones'} in redirects.csv
              </li>
              <li>
                {others.length === 0
                  ? 'no other page refers to it'
                  : `${plural(
                      others.reduce((n, f) => n + f.count, 0),
                      'address',
                      'addresses',
                    )} in ${plural(others.length, others.every((f) => f.isPage) ? 'other page' : 'other file')}: links, canonicals, alternates and structured data`}
              </li>
            </ul>
            <details className="mt-1.5">
              <summary className="quiet cursor-pointer">Show all of them</summary>
              <table className="mt-2 w-full table-fixed text-left text-[12.5px]">
                <thead className="text-ink-3">
                  <tr>
                    <th scope="col" className="py-0.5 font-normal">
                      Old address
                    </th>
                    <th scope="col" className="py-0.5 font-normal">
                      New address
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {effect.moved.slice(0, 200).map((m) => (
                    <tr key={m.from} className="border-t border-rule-2 align-top">
                      <td className="py-0.5 pr-3 break-words">{m.from.slice(base.length - 1)}</td>
                      <td className="py-0.5 break-words">{m.to.slice(base.length - 1)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <p className="mt-2 text-[12.5px]">
                {effect.followers
                  .slice(0, 200)
                  .map((f) => `${f.url.slice(base.length - 1)} (${f.count})`)
                  .join(', ')}
                {effect.followers.length > 200 && ` and ${effect.followers.length - 200} more`}
              </p>
            </details>
          </div>
        )}
      </div>
    </Drawer>
  )
})

/** Folders above a page that have a page of their own: they are renamed there, for all that stands in them. */
function useFoldersAbove(segments: string[], session: Session): { name: string; path: string }[] {
  const { rows, site } = session.get()
  const above = segments.slice(0, -1).join('/')
  return useMemo(() => {
    if (above === '') return []
    const byPath = new Set([...rows.values()].map((row) => row.path))
    const names = above.split('/')
    return names.flatMap((name, i) => {
      const folder = site.root + names.slice(0, i + 1).join('/')
      const path = ['index.html', 'index.htm', 'index.xhtml']
        .map((file) => `${folder}/${file}`)
        .find((file) => byPath.has(file))
      return path ? [{ name, path }] : []
    })
    // eslint-disable-next-line react-hooks/exhaustive-deps -- of the rows, what they are called: pages come and go, and are called what they were
  }, [above, rows.size, site])
}
