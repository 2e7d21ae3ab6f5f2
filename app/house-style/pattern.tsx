import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useRef, useState } from 'react'
import { ownStyle, type HouseStyle } from '../../core/rules/house-style.ts'
import { tokenNames } from '../../core/wording/tokens.ts'
import type { Session } from '../session/session.ts'
import { plural } from '../ui/plural.ts'
import { core } from '../workers/client.ts'
import type { PatternPreview } from '../workers/patterns.ts'
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
      const found = await core().patternPreview(pattern, match, next)
      if (!stale) setPreview(found)
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
        {asked && (
          <button type="button" className="quiet" onClick={done}>
            Discard the change
          </button>
        )}
      </p>
      {asked && pattern !== '' && preview && (
        <Preview
          preview={preview}
          onApply={() => {
            const { changes } = preview
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

const HEIGHT = 54

function Preview({ preview, onApply }: { preview: PatternPreview; onApply(): void }) {
  const { changes, pages, skipped } = preview
  const box = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: changes.length,
    getScrollElement: () => box.current,
    estimateSize: () => HEIGHT,
    overscan: 5,
  })
  const cut = changes.filter((c) => c.fitAfter === 'cut')
  const cutAnew = cut.filter((c) => c.fitBefore !== 'cut').length
  return (
    <div className="mt-3 border border-rule" data-testid="pattern-preview">
      <p className="flex flex-wrap items-baseline gap-x-5 border-b border-rule-2 bg-paper-2 px-4 py-2 text-[13px]">
        <strong className="font-semibold">
          {plural(changes.length, 'title')} of {plural(pages, 'page')} would change
        </strong>
        <span className={cut.length > 0 ? 'text-carmine' : 'text-ink-2'}>
          {cut.length === 0
            ? 'none of them would be cut'
            : `${cut.length} would be cut, ${cutAnew} of them that fit now`}
        </span>
        {skipped.length > 0 && (
          <span className="text-ink-2" title={skipped.map((s) => `${s.path}: ${s.why}`).join('\n')}>
            {skipped.length} unchanged: {skipped[0]!.why}
          </span>
        )}
        <button type="button" className="action ml-auto" disabled={changes.length === 0} onClick={onApply}>
          Apply to {plural(changes.length, 'title')}
        </button>
      </p>
      <div
        ref={box}
        className="h-64 overflow-auto"
        tabIndex={0}
        role="group"
        aria-label="Titles before and after"
      >
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const c = changes[item.index]!
            return (
              <div
                key={c.id}
                className="absolute right-0 left-0 border-b border-rule-2 px-4 py-1.5 text-[13px]"
                style={{ top: item.start, height: HEIGHT }}
                title={c.path}
              >
                <p className="truncate text-ink-3 line-through decoration-1">{c.before || 'no title'}</p>
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
              </div>
            )
          })}
        </div>
      </div>
    </div>
  )
}
