/** What is left to do on a site, as a table of contents: each line leads to its pages. */
import { Link, useParams } from 'react-router'
import { missables, whatIsLeft, type LeftToDo } from '../../core/work/ledger-filter.ts'
import { BeginFirstPass } from '../first-pass/begin.tsx'
import { DemoSuggestions } from '../help/demo-suggestions.tsx'
import type { Session } from '../session/session.ts'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'
import { useAnswer } from '../workers/use-answer.ts'
import type { LedgerLine } from './columns.tsx'

const severities = ['blocker', 'flaw', 'nit'] as const
const headings = { blocker: 'Blockers', flaw: 'Flaws', nit: 'Nits' }
const meant = {
  blocker: 'keep a page from being found or read as it is meant',
  flaw: 'cost readers or clicks',
  nit: 'matter once the rest is done',
}

export function WhatIsLeft({ session, pages }: { session: Session; pages: readonly LedgerLine[] }) {
  const { style, rules } = session.get()
  const { siteId } = useParams()
  const mended = useAnswer(() => core().mendedSinceStart(), [siteId, pages])
  const byId = new Map(rules.map((rule) => [rule.id, rule]))
  const left = whatIsLeft(pages, (id) => byId.get(id)?.severity ?? 'nit', style)
  const states = { drafted: 0, approved: 0 }
  for (const { decisions } of pages) {
    if (decisions.state === 'approved') states.approved++
    if (decisions.state === 'drafted') states.drafted++
  }
  return (
    <div
      className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-x-10 gap-y-5 max-[900px]:grid-cols-1"
      data-testid="what-is-left"
    >
      <section className="sheet px-7 py-5" aria-label="Marks">
        {left.marks.length === 0 && (
          <p className="font-serif text-[17px]">No page has a mark. There is nothing left to mend.</p>
        )}
        {severities.map((severity) => {
          const lines = left.marks.filter(({ value }) => (byId.get(value)?.severity ?? 'nit') === severity)
          if (lines.length === 0) return null
          return (
            <section key={severity} className="mb-5 last:mb-0" aria-labelledby={`left-${severity}`}>
              <h2 id={`left-${severity}`} className="flex items-baseline gap-3 font-serif text-[19px]">
                {headings[severity]}
                <span className="font-serif text-[14px] text-ink-3 italic">{meant[severity]}</span>
              </h2>
              <ol>
                {lines.map((line) => (
                  <Entry key={line.value} line={line} name={byId.get(line.value)?.name ?? line.value} />
                ))}
              </ol>
            </section>
          )
        })}
      </section>
      <div className="grid content-start gap-5">
        {session.get().site.demo && <DemoSuggestions />}
        <BeginFirstPass session={session} />
        <section className="sheet px-7 py-5" aria-labelledby="left-missing">
          <h2 id="left-missing" className="font-serif text-[19px]">
            Still to be filled in
          </h2>
          {left.missing.length === 0 ? (
            <p className="mt-1 text-ink-2">
              Every page has all of {missables.slice(0, 4).join(', ')} and the rest.
            </p>
          ) : (
            <ol>
              {left.missing.map((line) => (
                <Entry
                  key={line.value}
                  line={line}
                  name={
                    line.value === 'alternative texts'
                      ? 'images without alternative text'
                      : `no ${line.value}`
                  }
                />
              ))}
            </ol>
          )}
        </section>
        <section className="sheet px-7 py-5" aria-labelledby="left-work">
          <h2 id="left-work" className="font-serif text-[19px]">
            The work so far
          </h2>
          <ol>
            <Entry
              line={{ facet: 'state', value: 'drafted', pages: states.drafted }}
              name="drafted, to be reviewed"
            />
            <Entry
              line={{ facet: 'state', value: 'approved', pages: states.approved }}
              name="approved, to be handed off"
            />
          </ol>
          {mended && (
            <p className="mt-3 border-t border-rule pt-2 text-[13px] text-ink-2" data-testid="mended">
              {mended.mended.toLocaleString('en')} of {plural(mended.atStart, 'mark')} that there were on{' '}
              {mended.since} {mended.mended === 1 ? 'is' : 'are'} mended
              {mended.come > 0 && `; ${mended.come.toLocaleString('en')} came since`}.
            </p>
          )}
        </section>
      </div>
    </div>
  )
}

function Entry({
  line: { facet, value, pages },
  name,
}: {
  line: Omit<LeftToDo, 'facet'> & { facet: LeftToDo['facet'] | 'state' }
  name: string
}) {
  if (pages === 0) return null
  return (
    <li className="flex items-baseline gap-2 py-[3px]">
      <Link className="min-w-0 truncate hover:underline" to={`?${new URLSearchParams({ [facet]: value })}`}>
        {name}
      </Link>
      <span aria-hidden className="min-w-6 flex-1 translate-y-[-3px] border-b border-dotted border-ink-3" />
      <span className="font-serif text-[16px] tabular-nums">
        {pages.toLocaleString('en')}
        <span className="sr-only"> pages</span>
      </span>
    </li>
  )
}
