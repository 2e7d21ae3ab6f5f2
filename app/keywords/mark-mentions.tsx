import type { Session } from '../session/session.ts'
import { useSessionParts } from '../session/use-session.ts'

const followed = ['mentions'] as const

/** Whether mentions without a link are marked on every page; switching it on reads them all, with progress in the masthead. */
export function MarkMentions({ session }: { session: Session }) {
  const { mentions } = useSessionParts(session, followed)
  return (
    <label className="flex items-baseline gap-2 text-[13px]">
      <input
        type="checkbox"
        checked={mentions}
        onChange={(e) =>
          void session.decide(
            e.target.checked ? 'Mentions marked on every page' : 'Mentions no longer marked',
            [{ page: '', key: 'mentions', after: e.target.checked ? true : undefined }],
          )
        }
      />
      Mark mentions without a link on every page
    </label>
  )
}
