import { useEffect, useState } from 'react'
import { ownStyle, type HouseStyle } from '../../core/rules/house-style.ts'
import { tokenNames } from '../../core/wording/tokens.ts'
import { BulkStep } from '../bulk/bulk-step.tsx'
import { useLeftOut } from '../bulk/left-out.ts'
import { PageChoice } from '../bulk/page-choice.tsx'
import type { Session } from '../session/session.ts'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'
import type { PatternChange, PatternPreview } from '../workers/patterns.ts'
import type { Change } from './change.ts'

/** The style with this pattern for these addresses. */
function withPattern(style: HouseStyle, match: string | null, pattern: string | null): HouseStyle {
  if (match === null) return { ...style, titlePattern: pattern }
  return {
    ...style,
    addresses: style.addresses.map((a) => (a.match === match ? { ...a, titlePattern: pattern } : a)),
  }
}

/** A title pattern: typed, seen on all pages, then kept alone or put into the pages' titles in one step. */
export function Pattern({
  session,
  style,
  match,
  onKeep,
}: {
  session: Session
  style: HouseStyle
  /** The addresses that it is for; null for all. */
  match: string | null
  onKeep: Change
}) {
  const present =
    (match === null ? style.titlePattern : style.addresses.find((a) => a.match === match)?.titlePattern) ?? ''
  const [typed, setTyped] = useState<string | null>(null)
  const pattern = (typed ?? present).trim()
  const [preview, setPreview] = useState<PatternPreview | null>(null)
  const [asked, setAsked] = useState(false)
  const next = withPattern(style, match, pattern || null)
  const key = JSON.stringify([pattern, next])

  useEffect(() => {
    if (!asked || pattern === '') return
    let stale = false
    const timer = setTimeout(async () => {
      const answered = await core().patternPreview(pattern, match, next)
      if (!stale) setPreview(answered)
    }, 120)
    return () => {
      stale = true
      clearTimeout(timer)
    }
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key holds what the preview is made from
  }, [key, asked])

  const done = () => {
    setTyped(null)
    setAsked(false)
    setPreview(null)
  }
  const needsName = /\{site\}/.test(pattern) && !style.siteName
  return (
    <div className="mt-4">
      <label className="block text-[13px] font-semibold">
        Title pattern
        <input
          className="field mt-0.5 font-mono text-[13px] font-normal"
          data-testid={match === null ? 'pattern' : undefined}
          placeholder={`{page}${style.separator}{site}`}
          value={typed ?? present}
          onChange={(e) => {
            setTyped(e.target.value)
            setAsked(true)
          }}
        />
      </label>
      <p className="mt-1.5 flex flex-wrap items-baseline gap-x-3 text-[13px] text-ink-2">
        <span>Tokens:</span>
        {tokenNames.map((name) => (
          <button
            key={name}
            type="button"
            className="font-mono text-[12.5px] hover:underline"
            onClick={() => {
              setTyped((typed ?? present) + `{${name}}`)
              setAsked(true)
            }}
          >{`{${name}}`}</button>
        ))}
      </p>
      {needsName && (
        <p className="mt-1 text-[13px] text-carmine">
          {'{site}'} is in the pattern, but the site’s name is not known yet. Enter it above.
        </p>
      )}
      <p className="mt-2 flex flex-wrap items-baseline gap-x-5 text-[13px]">
        {typed !== null && pattern !== present && (
          <button
            type="button"
            className="action"
            onClick={() => {
              onKeep((now) => withPattern(now, match, pattern || null), 'Title pattern')
              done()
            }}
          >
            Keep the pattern, leave the titles
          </button>
        )}
        {!asked && pattern !== '' && (
          <button type="button" className="action" onClick={() => setAsked(true)}>
            Preview on all pages
          </button>
        )}
        {asked && pattern === '' && (
          <button type="button" className="quiet" onClick={done}>
            Discard the change
          </button>
        )}
      </p>
      {asked && pattern !== '' && preview && (
        <Preview
          preview={preview}
          onClose={done}
          onApply={(changes) => {
            void session.decide(`Pattern ${pattern}`, () => [
              { page: '', key: 'style', after: ownStyle(withPattern(session.get().style, match, pattern)) },
              ...changes.map((c) => ({ page: c.id, key: 'edit:title', after: { value: c.value } })),
            ])
            done()
          }}
        />
      )}
    </div>
  )
}

function Preview({
  preview,
  onApply,
  onClose,
}: {
  preview: PatternPreview
  onApply(chosen: PatternChange[]): void
  onClose(): void
}) {
  const { changes, pages, skipped } = preview
  const [leftOut, leaveOut] = useLeftOut()
  const chosen = changes.filter((c) => !leftOut.has(c.id))
  const cut = chosen.filter((c) => c.fitAfter === 'cut')
  const cutAnew = cut.filter((c) => c.fitBefore !== 'cut')
  return (
    <BulkStep
      testId="pattern-preview"
      title="Titles before and after"
      figures={
        <span className="flex flex-wrap items-baseline gap-x-5">
          <strong className="font-semibold text-ink">
            {plural(chosen.length, 'title')} of {plural(pages, 'page')} would change
          </strong>
          <span className={cut.length > 0 ? 'text-carmine' : ''}>
            {cut.length === 0
              ? 'none of them would be cut'
              : `${cut.length} would be cut, ${cutAnew.length} of them that fit now`}
          </span>
          {cutAnew.length > 0 && (
            <button
              type="button"
              className="action"
              onClick={() =>
                leaveOut(
                  cutAnew.map((c) => c.id),
                  true,
                )
              }
            >
              Leave out those that fit now
            </button>
          )}
          {skipped.length > 0 && (
            <span title={skipped.map((s) => `${s.path}: ${s.why}`).join('\n')}>
              {skipped.length} unchanged: {skipped[0]!.why}
            </span>
          )}
        </span>
      }
      keep={`Apply to ${plural(chosen.length, 'title')}`}
      canKeep={chosen.length > 0}
      onKeep={() => onApply(chosen)}
      onClose={onClose}
      closeLabel="Discard the change"
    >
      <PageChoice
        pages={changes}
        leftOut={leftOut}
        onLeaveOut={leaveOut}
        nameOf={(c) => `${c.after}, ${c.path}`}
        height={320}
        rowHeight={54}
        line={(c) => (
          <>
            <p className="truncate text-[13px] text-ink-3 line-through decoration-1">
              {c.before || 'no title'}
            </p>
            <p className="truncate font-serif text-[15px]">
              {c.after}
              {c.fitAfter !== 'fits' && (
                <span
                  className={`ml-2 font-sans text-[12px] ${c.fitAfter === 'cut' ? 'text-carmine' : 'text-ink-2'}`}
                >
                  {c.fitAfter === 'cut' ? 'cut' : 'at risk'}
                </span>
              )}
            </p>
          </>
        )}
      />
    </BulkStep>
  )
}
