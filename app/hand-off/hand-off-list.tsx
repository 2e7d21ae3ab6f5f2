/** The hand-offs so far: when, which pages, and how many of them are seen in place. */
import type { PageId } from '../../core/site/page-identity.ts'
import { stateOf, type Decisions, type HandOffRecord } from '../../core/work/decisions.ts'
import { plural } from '../ui/plural.ts'

export function HandOffList({
  handOffs,
  work,
}: {
  handOffs: readonly HandOffRecord[]
  work: ReadonlyMap<PageId, Decisions>
}) {
  if (handOffs.length === 0) return null
  return (
    <details className="mt-4 text-[14px]" data-testid="hand-offs">
      <summary className="cursor-pointer text-ink-2">{plural(handOffs.length, 'hand-off')} so far</summary>
      <table className="sheet mt-2 w-full text-left text-[13px]">
        <thead className="text-ink-3">
          <tr>
            {['Date', 'What', 'Pages', 'In place'].map((name) => (
              <th key={name} scope="col" className="px-4 py-1.5 font-normal">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...handOffs].reverse().map(({ date, what, pages }, i) => (
            <tr key={i} className="border-t border-rule-2">
              <td className="px-4 py-1.5 tabular-nums">{date}</td>
              <td className="px-4 py-1.5">{what}</td>
              <td className="px-4 py-1.5 tabular-nums">{pages.length.toLocaleString('en')}</td>
              <td className="px-4 py-1.5 text-ink-2">
                {pages.filter((id) => stateOf(work.get(id) ?? {}) === 'in place').length.toLocaleString('en')}
                , as seen when pages were last taken in again
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  )
}
