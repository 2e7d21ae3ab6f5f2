import { useEffect, useRef, useState } from 'react'
import { describeRule, type OutlineLine, type TemplateRule } from '../../core/headings/template-rules.ts'
import { Choice } from '../ui/choice.tsx'
import { plural } from '../ui/plural.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { RulePreview } from '../workers/templates.ts'
import { core } from '../workers/client.ts'

/** So many pages are listed; the figures are of all. */
const LISTED = 200

/** What a rule would change, page by page, before it is kept: outlines before and after, conflicts, pages to leave out. */
export function TemplatePreviewPart({
  rule,
  kept,
  onChange,
  onClose,
  onKeep,
}: {
  rule: TemplateRule
  kept: boolean
  onChange(rule: TemplateRule): void
  onClose(): void
  onKeep(rule: TemplateRule): void
}) {
  const [preview, setPreview] = useState<RulePreview | null>(null)
  const [shown, setShown] = useState<string | null>(null)
  const heading = useRef<HTMLHeadingElement>(null)
  const asked = JSON.stringify({ ...rule, except: [] })
  useEffect(() => {
    let stale = false
    void core()
      .templatePreview(JSON.parse(asked) as TemplateRule)
      .then((found) => {
        if (!stale) setPreview(found)
      })
    return () => {
      stale = true
    }
  }, [asked])
  useEffect(() => heading.current?.focus(), [])

  const { what, become } = describeRule(rule)
  const pages = preview?.pages ?? []
  const except = new Set(rule.except)
  const chosen = pages.filter((p) => p.changed > 0 && !except.has(p.page))
  const conflicts = chosen.filter((p) => p.conflict !== null)
  const leave = (ids: PageId[], out: boolean) => {
    const next = new Set(except)
    for (const id of ids)
      if (out) next.add(id)
      else next.delete(id)
    onChange({ ...rule, except: [...next].sort() })
  }
  const page = pages.find((p) => p.page === shown) ?? pages[0]
  return (
    <section className="sheet mt-6 p-6" aria-labelledby="rule" data-testid="template-preview">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2">
        <h2 id="rule" ref={heading} tabIndex={-1} className="font-serif text-[19px] outline-none">
          {what} become {become}
        </h2>
        <Choice
          label="They become"
          value={String(rule.become)}
          options={[
            { value: 'p', name: 'paragraphs' },
            ...[1, 2, 3, 4, 5, 6].map((n) => ({ value: String(n), name: `H${n}` })),
          ]}
          onChange={(v) => onChange({ ...rule, become: v === 'p' ? 'p' : Number(v) })}
        />
        {rule.className !== null && rule.landmark === null && (
          <span className="text-[13px] text-ink-3">wherever they appear</span>
        )}
        <button type="button" className="quiet ml-auto text-[13px]" onClick={onClose}>
          Leave it
        </button>
      </div>
      {!preview && <p className="mt-2 text-ink-2">Reading the site …</p>}
      {preview && (
        <p className="mt-2 text-[13px] text-ink-2" role="status" data-testid="template-figures">
          {pages.length === 0
            ? 'No page has such a heading, or all of them are already that way.'
            : `${plural(chosen.length, 'page')} would change${conflicts.length > 0 ? `; on ${conflicts.length} of them there is a reason not to` : ''}.`}{' '}
          {conflicts.length > 0 && (
            <button
              type="button"
              className="action"
              onClick={() =>
                leave(
                  conflicts.map((c) => c.page),
                  true,
                )
              }
            >
              Leave those out
            </button>
          )}
        </p>
      )}
      {pages.length > 0 && (
        <div className="mt-3 grid grid-cols-[minmax(0,5fr)_minmax(0,7fr)] gap-8 max-[900px]:grid-cols-1">
          <ul className="max-h-[360px] overflow-auto" aria-label="Pages">
            {pages.slice(0, LISTED).map((p) => (
              <li key={p.page} className="border-t border-rule-2 py-1.5 first:border-t-0">
                <label className="flex items-baseline gap-2">
                  <input
                    type="checkbox"
                    checked={p.changed > 0 && !except.has(p.page)}
                    disabled={p.changed === 0}
                    onChange={(e) => leave([p.page], !e.target.checked)}
                  />
                  <span className="min-w-0 truncate">{p.path}</span>
                  <button
                    type="button"
                    className={`ml-auto text-[13px] ${p === page ? 'font-semibold' : 'quiet'}`}
                    aria-pressed={p === page}
                    onClick={() => setShown(p.page)}
                  >
                    {p.changed === 0 ? 'unchanged' : plural(p.changed, 'line')}
                  </button>
                </label>
                {p.conflict && <p className="pl-6 text-[13px] text-carmine">{p.conflict}</p>}
              </li>
            ))}
            {pages.length > LISTED && (
              <li className="py-1.5 text-[13px] text-ink-2">and {pages.length - LISTED} more pages</li>
            )}
          </ul>
          {page && (
            <div className="grid grid-cols-2 gap-6">
              {(['before', 'after'] as const).map((side) => (
                <div key={side} className="min-w-0">
                  <h3 className="text-[13px] text-ink-3">{side === 'before' ? 'Before' : 'After'}</h3>
                  <Outline lines={page[side]} />
                </div>
              ))}
            </div>
          )}
        </div>
      )}
      <div className="mt-4 flex items-baseline gap-5">
        <button
          type="button"
          className="button button-main"
          disabled={!preview || (chosen.length === 0 && !kept)}
          onClick={() => onKeep(rule)}
        >
          {kept ? 'Keep the rule' : `Apply to ${plural(chosen.length, 'page')} and keep for the site`}
        </button>
        <span className="text-[13px] text-ink-2">One step, which undo takes back.</span>
      </div>
    </section>
  )
}

function Outline({ lines }: { lines: OutlineLine[] }) {
  return (
    <ol className="mt-1">
      {lines.slice(0, 60).map((l, i) => (
        <li
          key={i}
          className="flex items-baseline gap-1.5 py-px"
          style={{ paddingLeft: ((l.level ?? 1) - 1) * 12 }}
        >
          <span className="text-[12px] text-ink-3">{l.level === null ? '¶' : `H${l.level}`}</span>
          <span
            className={`min-w-0 truncate font-serif text-[14px] ${l.changed ? 'bg-quill-soft' : ''} ${l.level === null ? 'text-ink-2 italic' : ''}`}
          >
            {l.text || 'empty'}
          </span>
        </li>
      ))}
      {lines.length > 60 && <li className="text-[13px] text-ink-3">and {lines.length - 60} more</li>}
    </ol>
  )
}
