/** Everything that changes on one page: its result, headings, text, things described, fields; its source on demand. */
import { useEffect, useRef, useState } from 'react'
import { shownAddress } from '../../core/addresses/addresses.ts'
import type { Piece } from '../../core/exchange/review.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import { inWords } from '../../core/structured-data/words.ts'
import { useNonce } from '../nonce.ts'
import { DrawnResult } from '../result/drawn-result.tsx'
import { plural } from '../ui/plural.ts'
import type { PageReview } from '../workers/review.ts'
import { core } from '../workers/client.ts'

export function PageChanges({ review }: { review: PageReview }) {
  const { before, after, slots, lang, keywords } = review
  const isSame =
    before.title === after.title && before.description === after.description && before.url === after.url
  return (
    <>
      {review.refused.length > 0 && (
        <p role="alert" className="mb-3 border-l-2 border-carmine pl-3 text-[13px]">
          {plural(review.refused.length, 'change')} cannot be made: {review.refused.join(' ')}
        </p>
      )}
      {isSame ? (
        <p className="text-[13px] text-ink-2">Its result stays as it is.</p>
      ) : (
        <div className="grid gap-5" data-testid="review-results">
          {(['wide', 'narrow'] as const).map((screen) => (
            <div key={screen} className="flex flex-wrap gap-x-8 gap-y-4">
              {(
                [
                  ['Before', before],
                  ['After', after],
                ] as const
              ).map(([name, wording]) => (
                <div key={name} className="min-w-0">
                  <h3 className="text-[12.5px] text-ink-3">
                    {name}
                    {screen === 'narrow' && ', narrow'}
                  </h3>
                  <DrawnResult
                    screen={screen}
                    result={{ ...wording, trail: shownAddress(wording.url) }}
                    slots={slots}
                    keywords={keywords}
                    lang={lang}
                  />
                </div>
              ))}
            </div>
          ))}
        </div>
      )}
      {review.headings.length > 0 && (
        <Part name="Headings">
          <table className="w-full table-fixed text-left">
            <thead className="text-[12.5px] text-ink-3">
              <tr>
                <th scope="col" className="font-normal">
                  Before
                </th>
                <th scope="col" className="font-normal">
                  After
                </th>
              </tr>
            </thead>
            <tbody>
              {review.headings.map((pair, i) => (
                <tr key={i} className={pair.changed ? 'bg-quill-soft' : ''}>
                  {[pair.before, pair.after].map((heading, k) => (
                    <td key={k} className="py-0.5 pr-3 align-baseline">
                      {heading && (
                        <span style={{ paddingLeft: (heading.level - 1) * 12 }} className="inline-block">
                          <span className="text-[12px] text-ink-3">H{heading.level}</span>{' '}
                          <span className="font-serif text-[15px]">{heading.text}</span>
                        </span>
                      )}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </Part>
      )}
      {review.text.length > 0 && (
        <Part name="Text">
          {review.text.map((pieces, i) => (
            <p
              key={i}
              className="max-w-[72ch] py-1 font-serif text-[16px] leading-6"
              lang={lang ?? undefined}
            >
              <Pieces pieces={pieces} />
            </p>
          ))}
        </Part>
      )}
      {review.data.length > 0 && (
        <Part name="Things described">
          <ul className="text-[13px]">
            {review.data.map(({ kind, thing, line }, i) => (
              <li key={i} className="flex gap-3 py-0.5">
                <span className="w-40 shrink-0 truncate text-ink-3">{inWords(thing)}</span>
                {kind === 'new' ? (
                  <ins className="min-w-0 bg-quill-soft no-underline [overflow-wrap:anywhere]">{line}</ins>
                ) : (
                  <del className="min-w-0 text-ink-2 decoration-carmine [overflow-wrap:anywhere]">{line}</del>
                )}
              </li>
            ))}
          </ul>
        </Part>
      )}
      {review.fields.length > 0 && (
        <Part name="Head, address and links">
          <table className="w-full table-fixed text-left text-[13px]">
            <tbody>
              {review.fields.map(({ field, before: was, after: is }) => (
                <tr key={field} className="border-t border-rule-2 align-baseline">
                  <th scope="row" className="w-44 py-1 pr-3 font-normal text-ink-2">
                    {field}
                  </th>
                  <td className="py-1 pr-3 [overflow-wrap:anywhere]">
                    {was && <del className="text-ink-2 decoration-carmine">{was}</del>}
                    {was && is && ' '}
                    {is && <ins className="bg-quill-soft no-underline">{is}</ins>}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Part>
      )}
    </>
  )
}

function Part({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <section className="mt-5 border-t border-rule pt-3" aria-label={name}>
      <h3 className="mb-1 font-serif text-[17px]">{name}</h3>
      {children}
    </section>
  )
}

/** A wording as a proofreader marks it: what goes is struck through, what comes is set off. */
export function Pieces({ pieces }: { pieces: readonly Piece[] }) {
  return (
    <>
      {pieces.map(({ kind, text }, i) =>
        kind === 'same' ? (
          <span key={i}>{text}</span>
        ) : kind === 'gone' ? (
          <del key={i} className="text-ink-2 decoration-carmine decoration-2">
            {text}
          </del>
        ) : (
          <ins key={i} className="bg-quill-soft no-underline">
            {text}
          </ins>
        ),
      )}
    </>
  )
}

/** The source before and after, side by side. */
export function SourceDifference({ page, decisions }: { page: string; decisions: Decisions }) {
  const host = useRef<HTMLDivElement>(null)
  const nonce = useNonce()
  const [failed, setFailed] = useState<unknown>(null)
  const [isEmpty, setEmpty] = useState(false)
  useEffect(() => {
    let stale = false
    let remove = () => {}
    void Promise.all([core().sourcesOf(page, decisions), import('./source-difference.ts')])
      .then(([sources, { showDifference }]) => {
        if (stale || !host.current) return
        setEmpty(sources === null)
        if (sources) remove = showDifference(host.current, sources, nonce)
      })
      .catch((error: unknown) => {
        if (!stale) setFailed(error)
      })
    return () => {
      stale = true
      remove()
    }
  }, [page, decisions, nonce])
  if (failed) throw failed
  return (
    <div data-testid="source-difference">
      {isEmpty && <p className="text-ink-2">The page is no longer on the shelf.</p>}
      <div ref={host} className="source max-h-[70vh] overflow-auto text-[12.5px]" />
    </div>
  )
}
