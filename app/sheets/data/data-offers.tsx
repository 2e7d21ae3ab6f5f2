import { useRef, useState } from 'react'
import type { BuildKind, Offer } from '../../../core/structured-data/build.ts'
import { asLabel } from '../../../core/structured-data/words.ts'
import { core } from '../../workers/client.ts'
import { kindNames } from './data-words.ts'

/** What the page may be described as: what it holds first, any other type by search. */
export function DescribeAs({
  offers,
  present,
  first,
  onBuild,
  onType,
}: {
  offers: readonly Offer[]
  /** Types that the page describes already. */
  present: ReadonlySet<string>
  first: boolean
  onBuild(kind: BuildKind): void
  onType(type: string): void
}) {
  const [words, setWords] = useState<string | null>(null)
  const [found, setFound] = useState<{ name: string; description: string }[]>([])
  const asked = useRef(0)
  const open = offers.filter((o) => !present.has(o.kind))
  const search = (text: string) => {
    setWords(text)
    const question = ++asked.current
    void core()
      .searchTypes(text)
      .then((list) => question === asked.current && setFound(list))
  }
  return (
    <section
      aria-label="Describe the page"
      className={`py-3 ${first ? '' : 'border-t border-rule-2'}`}
      data-testid="describe"
    >
      <h2 className="font-serif text-[17px]">
        {first ? 'What is it about?' : 'Describe something else on this page'}
      </h2>
      {open.length === 0 && (
        <p className="text-[13px] text-ink-2">Nothing else on this page needs describing.</p>
      )}
      <ul className="mt-1">
        {open.map((offer) => (
          <li
            key={offer.kind}
            className="flex items-baseline gap-3 border-t border-rule-2 py-1.5 first:border-t-0"
          >
            <button
              type="button"
              className="action w-44 shrink-0 text-left"
              onClick={() => onBuild(offer.kind)}
            >
              {kindNames[offer.kind]}
            </button>
            <span className="text-[13px] text-ink-2">
              {offer.because.slice(0, 1).toUpperCase() + offer.because.slice(1)}
              {offer.likely
                ? '; everything that results need is there.'
                : '; some of what results need is still missing.'}
            </span>
          </li>
        ))}
      </ul>
      {words === null ? (
        <p className="mt-1 text-[13px]">
          <button type="button" className="quiet" onClick={() => search('')}>
            Something else …
          </button>
        </p>
      ) : (
        <div className="mt-1">
          <input
            autoFocus
            aria-label="Find a type"
            placeholder="find a type: boat trip, museum, film …"
            className="w-full border-b border-sign bg-transparent text-[13px]"
            value={words}
            onChange={(e) => search(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Escape') setWords(null)
            }}
          />
          <ul className="mt-1 max-h-52 overflow-auto" data-testid="types">
            {found.map((t) => (
              <li key={t.name}>
                <button
                  type="button"
                  className="block w-full py-0.5 text-left text-[13px] hover:bg-quill-soft"
                  onClick={() => {
                    setWords(null)
                    onType(t.name)
                  }}
                >
                  <span className="font-semibold">{asLabel(t.name)}</span>{' '}
                  <span className="text-[12px] text-ink-2">
                    {t.description.length > 120 ? t.description.slice(0, 120) + '…' : t.description}
                  </span>
                </button>
              </li>
            ))}
            {found.length === 0 && (
              <li className="text-[13px] text-ink-2">No schema.org type matches. Try a broader word.</li>
            )}
          </ul>
        </div>
      )}
    </section>
  )
}
