/** The map: phrases on one side, pages on the other; which is for which, by keyboard, by dragging, or as suggested. */
import { DndContext, DragOverlay, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { useMemo, useState } from 'react'
import { foldPhrases } from '../../core/keywords/phrases.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { keywordsOf } from '../../core/work/decisions.ts'
import type { LedgerRow } from '../../core/work/evaluate.ts'
import type { Session } from '../session/session.ts'
import { Choice } from '../ui/choice.tsx'
import { plural } from '../ui/plural.ts'
import { pointing } from '../ui/pointing.ts'
import { Clashes } from './clashes.tsx'
import { MarkMentions } from './mark-mentions.tsx'
import { MapPages, type MapPage } from './map-pages.tsx'
import { MapPhrases, type MapPhrase } from './map-phrases.tsx'
import { PagePicker } from './page-picker.tsx'
import { PhrasePicker } from './phrase-picker.tsx'
import { assignPhrases, pageName, type SiteKeywords } from './site-keywords.ts'
import { SuggestStep } from './suggest-step.tsx'

type PhraseFilter = 'all' | 'without a page' | 'with a page'
type PageFilter = 'all' | 'without a phrase' | 'too many phrases'

export function MapView({ session, keywords }: { session: Session; keywords: SiteKeywords }) {
  const [phraseFilter, setPhraseFilter] = useState<PhraseFilter>('all')
  const [pageFilter, setPageFilter] = useState<PageFilter>('all')
  const [findPhrase, setFindPhrase] = useState('')
  const [findPage, setFindPage] = useState('')
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set())
  const [forPhrase, setForPhrase] = useState<string | null>(null)
  const [forPage, setForPage] = useState<PageId | null>(null)
  const [suggesting, setSuggesting] = useState<string[] | null>(null)
  const [dragged, setDragged] = useState<string | null>(null)
  const sensors = useSensors(useSensor(PointerSensor, pointing))

  const phrases = useMapPhrases(keywords)
  const pages = useMapPages(session, keywords)
  const most = session.get().style.limits.keywordsMost
  const wantedPhrase = findPhrase.trim().toLowerCase()
  const wantedPage = findPage.trim().toLowerCase()
  const phrasesShown = useMemo(
    () =>
      phrases.filter(
        (p) =>
          (phraseFilter === 'all' || p.pages.length > 0 === (phraseFilter === 'with a page')) &&
          (wantedPhrase === '' || p.phrase.toLowerCase().includes(wantedPhrase)),
      ),
    [phrases, phraseFilter, wantedPhrase],
  )
  const pagesShown = useMemo(
    () =>
      pages.filter(
        ({ row, phrases: own }) =>
          (pageFilter === 'all' ||
            (pageFilter === 'without a phrase' ? own.length === 0 : own.length > most)) &&
          (wantedPage === '' ||
            `${row.path} ${pageName(row)} ${own.join(' ')}`.toLowerCase().includes(wantedPage)),
      ),
    [pages, pageFilter, wantedPage, most],
  )
  const without = phrases.filter((p) => p.pages.length === 0)
  const chosen = phrasesShown.filter((p) => picked.has(p.key))
  const toSuggest = chosen.length > 0 ? chosen : without
  const drop = (phrase: string, page: PageId) => {
    const row = keywords.rows.get(page)
    if (!row) return
    const role = keywordsOf(session.decisionsOf(page))?.primary ? 'secondary' : 'primary'
    void assignPhrases(session, `“${phrase}” for ${pageName(row)}`, [{ page, phrase, role }])
  }
  return (
    <DndContext
      sensors={sensors}
      onDragStart={({ active }) => setDragged(String(active.id))}
      onDragCancel={() => setDragged(null)}
      onDragEnd={({ active, over }) => {
        setDragged(null)
        if (over) drop(String(active.id), String(over.id))
      }}
    >
      <h2 className="sr-only">The map</h2>
      <Clashes session={session} keywords={keywords} />
      {suggesting && (
        <SuggestStep
          session={session}
          keywords={keywords}
          phrases={suggesting}
          onClose={() => setSuggesting(null)}
        />
      )}
      <div className="mt-4 grid grid-cols-[minmax(0,5fr)_minmax(0,6fr)] gap-6 max-[900px]:grid-cols-1">
        <section aria-labelledby="map-phrases">
          <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-2 text-[13px]">
            <h2 id="map-phrases" className="font-serif text-[19px]">
              Phrases
            </h2>
            <Choice
              label="Show"
              isLabelHidden
              value={phraseFilter}
              options={[
                { value: 'all', name: `all ${phrases.length.toLocaleString('en')}` },
                { value: 'without a page', name: `without a page, ${without.length.toLocaleString('en')}` },
                { value: 'with a page', name: 'with a page' },
              ]}
              onChange={(v) => setPhraseFilter(v)}
            />
            <input
              type="search"
              aria-label="Find a phrase"
              placeholder="Find"
              className="w-24 border-b border-ink-3 bg-transparent px-1"
              value={findPhrase}
              onChange={(e) => setFindPhrase(e.target.value)}
            />
            <button
              type="button"
              className="action ml-auto"
              disabled={toSuggest.length === 0}
              onClick={() => setSuggesting(toSuggest.map((p) => p.phrase))}
            >
              Suggest pages for {plural(toSuggest.length, 'phrase')}
            </button>
          </div>
          <MapPhrases
            phrases={phrasesShown}
            keywords={keywords}
            picked={picked}
            onPick={(key, on) =>
              setPicked((now) => {
                const next = new Set(now)
                if (on) next.add(key)
                else next.delete(key)
                return next
              })
            }
            onPage={setForPhrase}
          />
        </section>
        <section aria-labelledby="map-pages">
          <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-2 text-[13px]">
            <h2 id="map-pages" className="font-serif text-[19px]">
              Pages
            </h2>
            <Choice
              label="Show"
              isLabelHidden
              value={pageFilter}
              options={[
                { value: 'all', name: `all ${pages.length.toLocaleString('en')}` },
                {
                  value: 'without a phrase',
                  name: `without a phrase, ${pages.filter((p) => p.phrases.length === 0).length.toLocaleString('en')}`,
                },
                {
                  value: 'too many phrases',
                  name: `more than ${most} phrases, ${pages.filter((p) => p.phrases.length > most).length.toLocaleString('en')}`,
                },
              ]}
              onChange={(v) => setPageFilter(v)}
            />
            <input
              type="search"
              aria-label="Find a page"
              placeholder="Find"
              className="w-24 border-b border-ink-3 bg-transparent px-1"
              value={findPage}
              onChange={(e) => setFindPage(e.target.value)}
            />
            <span className="ml-auto text-ink-2" role="status" data-testid="map-pages-shown">
              {plural(pagesShown.length, 'page')}
            </span>
          </div>
          <MapPages session={session} pages={pagesShown} most={most} onPhrase={setForPage} />
        </section>
      </div>
      <div className="mt-2 flex flex-wrap items-baseline gap-x-8 gap-y-1">
        <p className="text-[12px] text-ink-3">
          Drag a phrase onto a page, or press <kbd>Enter</kbd> on either. A page’s first phrase becomes its
          primary keyword, further ones secondary.
        </p>
        <MarkMentions session={session} />
      </div>
      <DragOverlay dropAnimation={null}>
        {dragged !== null && <span className="sheet px-3 py-1 font-serif text-[16px]">{dragged}</span>}
      </DragOverlay>
      {forPhrase !== null && (
        <PagePicker
          session={session}
          keywords={keywords}
          phrase={forPhrase}
          onClose={() => setForPhrase(null)}
        />
      )}
      {forPage !== null && (
        <PhrasePicker
          session={session}
          keywords={keywords}
          phrases={phrases}
          page={forPage}
          onClose={() => setForPage(null)}
        />
      )}
    </DndContext>
  )
}

/** The phrases of the site's list, and those that pages have though they are not on it, by the alphabet. */
function useMapPhrases({ phrases, lang, map }: SiteKeywords): MapPhrase[] {
  return useMemo(() => {
    const listed = foldPhrases(phrases, lang)
    const known = new Set(listed.map((f) => f.key))
    return [
      ...listed.map(({ key, phrase }) => ({
        key,
        phrase: phrase.phrase,
        monthly: phrase.monthly,
        pages: map.byForms.get(key) ?? [],
      })),
      ...[...map.byForms]
        .filter(([key]) => !known.has(key))
        .map(([key, pages]) => ({ key, phrase: pages[0]!.phrase, monthly: null, pages }))
        .sort((a, b) => a.phrase.localeCompare(b.phrase)),
    ]
  }, [phrases, lang, map])
}

function useMapPages(session: Session, { rows, map }: SiteKeywords): MapPage[] {
  return useMemo(
    () =>
      [...rows.values()]
        .map((row: LedgerRow) => {
          const { primary = '', secondary = [] } = keywordsOf(session.decisionsOf(row.id)) ?? {}
          return { row, primary, secondary, phrases: [...(primary ? [primary] : []), ...secondary] }
        })
        .sort((a, b) => (a.row.url < b.row.url ? -1 : 1)),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the map is another when a page's keywords are
    [rows, map, session],
  )
}
