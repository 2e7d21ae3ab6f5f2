import { useEffect, useRef, useState } from 'react'
import { measure } from '../../core/measure/snippet.ts'
import { styleFor } from '../../core/rules/house-style.ts'
import { valuesFrom } from '../../core/site/page-tokens.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { fillTokens } from '../../core/wording/tokens.ts'
import { Ruler } from '../result/ruler.tsx'
import { fieldValue } from '../../core/work/typed-field.ts'
import type { Session } from '../session/session.ts'
import { today } from '../session/today.ts'

/** What can be edited in the ledger. */
export type LedgerField = 'title' | 'meta:description' | 'keyword:primary'
const fieldNames: Record<LedgerField, string> = {
  title: 'Title',
  'meta:description': 'Meta description',
  'keyword:primary': 'Primary keyword',
}

/** A cell while it is typed in: Enter goes on to the same cell of the next page, Escape puts back what was there. */
export function EditCell({
  row,
  field,
  decisions,
  session,
  onDone,
}: {
  row: LedgerRow
  field: LedgerField
  decisions: Decisions
  session: Session
  onDone(next: boolean): void
}) {
  const input = useRef<HTMLTextAreaElement>(null)
  const isKeyword = field === 'keyword:primary'
  const key = isKeyword ? field : `edit:${field}`
  const [before] = useState(() => decisions[key])
  const value = isKeyword ? ((decisions[field] as string) ?? '') : fieldValue(decisions, field, row)
  const left = useRef(false)
  useEffect(() => {
    input.current?.focus()
    input.current?.select()
  }, [])
  const leave = (next: boolean) => {
    if (left.current) return
    left.current = true
    void session.blur()
    onDone(next)
  }
  const write = (after: unknown) => session.type(row.id, key, after, fieldNames[field])
  const style = styleFor(session.get().style, row.url)
  const filled = fillTokens(value, valuesFrom(row, { site: null, style, date: today() })).text
  const role = field === 'title' ? 'title' : 'description'
  const measured = isKeyword ? null : measure(filled, role, style.slots)
  const { column, allowance, riskPx } = style.slots[role].wide
  return (
    <div>
      <textarea
        ref={input}
        aria-label={`${fieldNames[field]} of ${row.path}`}
        data-testid={`cell-${field}`}
        className={`field block resize-none !px-1.5 !py-1 ${field === 'title' ? 'font-serif text-[15px] leading-5' : 'text-[13px] leading-[19px]'}`}
        rows={isKeyword ? 1 : field === 'title' ? 2 : 4}
        spellCheck
        lang={row.lang ?? undefined}
        value={value}
        onChange={(e) => {
          const text = e.target.value.replace(/[\r\n]+/g, ' ')
          write(isKeyword ? text || undefined : { value: text })
        }}
        onBlur={() => leave(false)}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Enter') {
            e.preventDefault()
            leave(true)
          } else if (e.key === 'Escape') {
            write(before)
            leave(false)
          }
        }}
      />
      {measured && (
        <>
          <div className="mt-1.5" />
          <Ruler
            column={allowance ?? column}
            riskFrom={riskPx}
            px={measured.px}
            fit={measured.wide.state}
            scale={(field === 'title' ? 322 : 150) / (allowance ?? column)}
          />
          <p className="mt-0.5 text-[12px] text-ink-2">
            {Math.round(measured.px)} px,{' '}
            {measured.wide.state === 'at-risk' ? 'at risk' : measured.wide.state} · {measured.graphemes}{' '}
            characters
          </p>
        </>
      )}
    </div>
  )
}
