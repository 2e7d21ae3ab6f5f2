import { followOf } from '../../../core/work/decisions.ts'
import { carriesTitle } from '../../../core/site/page-tokens.ts'
import type { Session } from '../../session/session.ts'
import type { PageView } from '../../workers/page-view.ts'
import { Drawer } from '../../ui/drawer.tsx'

/** Other metas that carry the wording when a page is shared; each follows when asked. */
export function Carriers({
  session,
  page,
  view,
  title,
  description,
}: {
  session: Session
  page: string
  view: PageView
  title: string
  description: string
}) {
  if (view.carriers.length === 0) return null
  const rows = view.carriers.map((c) => ({ ...c, own: carriesTitle(c.name) ? title : description }))
  const differing = rows.filter((r) => !r.follows && r.content !== r.own)
  const set = (change: (names: string[]) => string[], label: string) =>
    void session.decide(label, () => {
      const names = change(followOf(session.decisionsOf(page)))
      return [{ page, key: 'follow', after: names.length > 0 ? names : undefined }]
    })
  return (
    <Drawer
      id="carriers"
      title="When the page is shared"
      summary={
        differing.length > 0
          ? `${differing.map((d) => d.name).join(', ')} ${differing.length === 1 ? 'differs' : 'differ'} from the result`
          : 'matches the result'
      }
    >
      <ul className="text-[13px]">
        {rows.map((r) => (
          <li key={r.name} className="border-t border-rule-2 py-2 first:border-t-0">
            <p className="flex items-baseline gap-4">
              <code className="font-mono text-[12.5px]">{r.name}</code>
              <span className="text-ink-3">
                {r.follows ? 'follows' : r.content === r.own ? 'the same wording' : 'different wording'}
              </span>
              <button
                type="button"
                className="action ml-auto"
                onClick={() =>
                  r.follows
                    ? set((f) => f.filter((n) => n !== r.name), `${r.name} as it was`)
                    : set((f) => [...new Set([...f, r.name])], `${r.name} follows`)
                }
              >
                {r.follows
                  ? 'Keep the original'
                  : `Follow the ${carriesTitle(r.name) ? 'title' : 'description'}`}
              </button>
            </p>
            <p className="mt-0.5 font-serif text-[15px]">{r.content || <em>empty</em>}</p>
          </li>
        ))}
      </ul>
      {differing.length > 1 && (
        <button
          type="button"
          className="action mt-1 text-[13px]"
          onClick={() =>
            set(
              (f) => [...new Set([...f, ...differing.map((d) => d.name)])],
              'Shared titles and descriptions follow',
            )
          }
        >
          Make all follow
        </button>
      )}
    </Drawer>
  )
}
