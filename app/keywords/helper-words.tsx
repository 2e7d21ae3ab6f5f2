import type { HelperWord } from '../../core/keywords/phrases.ts'

const MOST = 40

/** Words that recur beside the topic; one click shows the phrases that have them. */
export function HelperWords({
  words,
  chosen,
  onChoose,
}: {
  words: HelperWord[]
  /** The stem of the word that is filtered by; null for none. */
  chosen: string | null
  onChoose(stem: string | null): void
}) {
  return (
    <aside aria-labelledby="helper-words" className="sheet self-start p-4" data-testid="helper-words">
      <h2 id="helper-words" className="font-serif text-[17px]">
        Helper words
      </h2>
      <p className="text-[12px] text-ink-2">What people add to the topic, by how many phrases have it.</p>
      {words.length === 0 && <p className="mt-2 text-[13px] text-ink-2">No word recurs in these phrases.</p>}
      <ul className="mt-2 max-h-[calc(100vh-440px)] min-h-40 overflow-auto text-[13px]">
        {words.slice(0, MOST).map(({ word, stem, phrases }) => (
          <li key={stem}>
            <button
              type="button"
              aria-pressed={chosen === stem}
              className={`flex w-full items-baseline justify-between py-0.5 text-left hover:underline ${chosen === stem ? 'font-semibold underline' : ''}`}
              onClick={() => onChoose(chosen === stem ? null : stem)}
            >
              <span>{word}</span>
              <span className="text-ink-3 tabular-nums">{phrases}</span>
            </button>
          </li>
        ))}
      </ul>
    </aside>
  )
}
