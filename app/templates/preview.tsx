import { useEffect, useState } from 'react'
import { BulkStep } from '../bulk/bulk-step.tsx'
import { withLeftOut } from '../bulk/left-out.ts'
import { PageChoice } from '../bulk/page-choice.tsx'
import { describeRule, type OutlineLine, type TemplateRule } from '../../core/headings/template-rules.ts'
import { Choice } from '../ui/choice.tsx'
import { plural } from '../ui/plural.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { RulePreview } from '../workers/templates.ts'
import { core } from '../workers/client.ts'

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

  const { what, become } = describeRule(rule)
  const pages = (preview?.pages ?? []).map((p) => ({ ...p, id: p.page }))
  const except = new Set(rule.except)
  const chosen = pages.filter((p) => p.changed > 0 && !except.has(p.page))
  const conflicts = chosen.filter((p) => p.conflict !== null)
  const leaveOut = (ids: PageId[], out: boolean) =>
    onChange({ ...rule, except: [...withLeftOut(except, ids, out)].sort() })
  const page = pages.find((p) => p.page === shown) ?? pages[0]
  return (
    <BulkStep
      testId="template-preview"
      takesFocus
      title={`${what} become ${become}`}
      beside={
        <>
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
        </>
      }
      figures={
        !preview ? (
          'Reading the site …'
        ) : (
          <>
            {pages.length === 0
              ? 'No page has such a heading, or all of them are already that way.'
              : `${plural(chosen.length, 'page')} would change${conflicts.length > 0 ? `; on ${conflicts.length} of them there is a reason not to` : ''}.`}{' '}
            {conflicts.length > 0 && (
              <button
                type="button"
                className="action"
                onClick={() =>
                  leaveOut(
                    conflicts.map((c) => c.page),
                    true,
                  )
                }
              >
                Leave those out
              </button>
            )}
          </>
        )
      }
      keep={kept ? 'Keep the rule' : `Apply to ${plural(chosen.length, 'page')} and keep for the site`}
      canKeep={preview !== null && (chosen.length > 0 || kept)}
      onKeep={() => onKeep(rule)}
      onClose={onClose}
    >
      {page && (
        <div className="grid grid-cols-[minmax(0,5fr)_minmax(0,7fr)] gap-8 max-[900px]:grid-cols-1">
          <PageChoice
            pages={pages}
            leftOut={except}
            onLeaveOut={leaveOut}
            canChange={(p) => p.changed > 0}
            shown={page.page}
            onShow={setShown}
            height={360}
            line={(p) => (
              <>
                {p.changed === 0 ? 'unchanged' : plural(p.changed, 'line')}
                {p.conflict && <span className="block text-[13px] text-carmine">{p.conflict}</span>}
              </>
            )}
          />
          <div className="grid grid-cols-2 gap-6">
            {(['before', 'after'] as const).map((side) => (
              <div key={side} className="min-w-0">
                <h4 className="text-[13px] text-ink-3">{side === 'before' ? 'Before' : 'After'}</h4>
                <Outline lines={page[side]} />
              </div>
            ))}
          </div>
        </div>
      )}
    </BulkStep>
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
