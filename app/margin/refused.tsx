import type { PageView } from '../workers/page-view.ts'

/** Edits of the draft that could not be applied, with what to do; nothing where all could. */
export function Refused({ edits }: { edits: PageView['refused'] }) {
  if (edits.length === 0) return null
  return (
    <div role="alert" className="mt-3 border-l-2 border-carmine pl-3 text-[13px]">
      {edits.map((r) => (
        <p key={r.key}>
          <strong>{r.key}</strong> could not be changed: {r.why}
        </p>
      ))}
    </div>
  )
}
