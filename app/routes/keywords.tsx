import { useSearchParams } from 'react-router'
import { FindPhrases } from '../keywords/find-phrases.tsx'
import { KeywordSheet } from '../keywords/keyword-sheet.tsx'
import { MapView } from '../keywords/map-view.tsx'
import { ResultsView } from '../keywords/results-view.tsx'
import { useSiteKeywords } from '../keywords/site-keywords.ts'
import { useSession } from '../session/use-session.ts'
import { ViewsNav } from '../ui/views-nav.tsx'

export const meta = () => [{ title: 'Keywords · Keen Quill' }]

const views = { find: 'Find phrases', map: 'The map', results: 'In the results' } as const
type View = keyof typeof views
const purposes: Record<View, string> = {
  find: 'what people search with, and how often',
  map: 'which page is for which phrase',
  results: 'where pages stand today, and in whose words',
}

/** Which phrases the site should be found for, and which page is for which. */
export default function Keywords() {
  const session = useSession()
  const keywords = useSiteKeywords(session)
  const [search, setSearch] = useSearchParams()
  const asked = search.get('view')
  const view: View = asked === 'map' || asked === 'results' ? asked : 'find'
  const choose = (next: View) => {
    const params = new URLSearchParams(search)
    if (next === 'find') params.delete('view')
    else params.set('view', next)
    setSearch(params)
  }
  return (
    <main className="px-6 pt-3 pb-6">
      <div className="flex flex-wrap items-baseline gap-x-7 gap-y-2 pb-3">
        <h1 className="font-serif text-[26px]">Keywords</h1>
        <ViewsNav label="Views of the keywords" views={views} now={view} onChoose={choose} />
        <p className="font-serif text-[15px] text-ink-2 italic">{purposes[view]}</p>
        <span className="ml-auto flex gap-5">
          <KeywordSheet session={session} />
        </span>
      </div>
      {view === 'find' && <FindPhrases session={session} keywords={keywords} />}
      {view === 'map' && <MapView session={session} keywords={keywords} />}
      {view === 'results' && <ResultsView session={session} keywords={keywords} />}
    </main>
  )
}
