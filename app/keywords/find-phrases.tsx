/** Finding phrases: a topic and where the readers are; what people search with; what the site itself says; a sheet; by hand. */
import { joiResolver } from '@hookform/resolvers/joi'
import { useMemo, useState } from 'react'
import { useForm } from 'react-hook-form'
import { useSearchParams } from 'react-router'
import { toast } from 'sonner'
import {
  demandQuestionSchema,
  phrasesOfAnswer,
  type DemandAnswer,
  type DemandQuestion,
} from '../../core/keywords/demand.ts'
import {
  foldPhrases,
  hasStem,
  helperWords,
  marketNames,
  markets,
  sameWording,
  type FoldedPhrase,
  type Phrase,
} from '../../core/keywords/phrases.ts'
import { isQuestion } from '../../core/words/questions.ts'
import type { Session } from '../session/session.ts'
import { today } from '../session/today.ts'
import { useService, useServiceOff, type Told } from '../session/use-service.ts'
import { Choice } from '../ui/choice.tsx'
import { FilePick } from '../ui/file-pick.tsx'
import { FormField } from '../ui/form.tsx'
import { plural } from '../ui/plural.ts'
import { sayFailed } from '../ui/tell.ts'
import { HelperWords } from './helper-words.tsx'
import { PagePicker } from './page-picker.tsx'
import { PhraseSheet } from './phrase-sheet.tsx'
import { PhraseTable } from './phrase-table.tsx'
import { SitePhrases } from './site-phrases.tsx'
import { listPhrases, type SiteKeywords } from './site-keywords.ts'

const MOST_ASKED = 200
type Show = 'found' | 'list'
type Only = 'all' | 'questions' | 'without a page'

export function FindPhrases({ session, keywords }: { session: Session; keywords: SiteKeywords }) {
  const [search, setSearch] = useSearchParams()
  const [again, setAgain] = useState(0)
  const question = useMemo(() => questionFrom(search, keywords.lang), [search, keywords.lang])
  const off = useServiceOff('demand')
  const demand = useService<DemandAnswer>('demand', off ? null : question, again)
  const [other, setOther] = useState<{ title: string; phrases: Phrase[] } | null>(null)
  const [fromSite, setFromSite] = useState(false)
  const [sheet, setSheet] = useState<File | null>(null)
  const phrasesFound = other ?? foundIn(demand, question)
  const [shown, setShown] = useState<Show>(question ? 'found' : 'list')
  const show: Show = phrasesFound ? shown : 'list'

  const ask = (asked: DemandQuestion) => {
    setOther(null)
    setShown('found')
    const next = new URLSearchParams(search)
    next.set('topic', asked.topic)
    next.set('market', asked.market)
    if (asked.market === 'local') next.set('place', asked.place)
    else next.delete('place')
    setSearch(next, { preventScrollReset: true })
    setAgain(0)
  }
  return (
    <>
      {off ? (
        <p className="text-ink-2">
          Looking phrases up is switched off here. Take them from the site itself or from a sheet, or type
          them.
        </p>
      ) : (
        <TopicForm given={question} lang={keywords.lang} onAsk={ask} />
      )}
      <p className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-[13px]">
        <span className="text-ink-2">Or take phrases</span>
        <button type="button" className="quiet" onClick={() => setFromSite(true)}>
          from the site itself
        </button>
        <FilePick
          label="A sheet of phrases"
          accept=".csv,.tsv,.txt,.xlsx,.ods"
          title="Columns: phrase, searches a month, and the months one by one where it has them"
          testId="phrases-input"
          onFile={setSheet}
        >
          from a sheet …
        </FilePick>
        <TypedPhrase session={session} />
      </p>
      {demand?.state === 'failed' && !other && (
        <p role="alert" className="mt-3 border-l-2 border-carmine pl-3" data-testid="demand-failed">
          {demand.why}{' '}
          {!demand.off && (
            <button type="button" className="action" onClick={() => setAgain((n) => n + 1)}>
              Ask again
            </button>
          )}
        </p>
      )}
      {demand?.state === 'asking' && !other && (
        <p className="mt-3 text-ink-2" role="status">
          Asking for phrases about “{question?.topic}” …
        </p>
      )}
      {demand?.state === 'answered' && demand.problem && !other && (
        <p role="status" className="mt-3 border-l-2 border-carmine pl-3 text-[13px]">
          {demand.problem} What was answered on {demand.date} is shown.
        </p>
      )}
      {fromSite && (
        <SitePhrases
          session={session}
          keywords={keywords}
          onFound={(phrases) => {
            setOther({ title: 'Used by the site itself', phrases })
            setFromSite(false)
            setShown('found')
          }}
          onCancel={() => setFromSite(false)}
        />
      )}
      {sheet && (
        <PhraseSheet
          file={sheet}
          onClose={() => setSheet(null)}
          onRead={(phrases, title) => {
            setOther({ title, phrases })
            setSheet(null)
            setShown('found')
          }}
        />
      )}
      {!fromSite && (
        <Phrases
          key={show === 'list' ? 'list' : (phrasesFound?.title ?? '')}
          session={session}
          keywords={keywords}
          topic={show === 'found' ? (question?.topic ?? '') : ''}
          title={show === 'found' ? phrasesFound!.title : 'The site’s list'}
          phrases={show === 'found' ? phrasesFound!.phrases : keywords.phrases}
          isList={show === 'list'}
          beside={
            phrasesFound && (
              <Choice
                label="Show"
                value={show}
                options={[
                  { value: 'found', name: 'what was found' },
                  { value: 'list', name: `the site’s list, ${plural(keywords.phrases.length, 'phrase')}` },
                ]}
                onChange={(v) => setShown(v)}
              />
            )
          }
        />
      )}
    </>
  )
}

function questionFrom(search: URLSearchParams, language: string): DemandQuestion | null {
  const { value, error } = demandQuestionSchema.validate({
    topic: search.get('topic') ?? '',
    market: search.get('market') ?? 'national',
    place: search.get('place') ?? '',
    language,
    limit: MOST_ASKED,
  })
  return error ? null : (value as DemandQuestion)
}

function foundIn(
  demand: Told<DemandAnswer> | null,
  question: DemandQuestion | null,
): { title: string; phrases: Phrase[] } | null {
  if (demand?.state !== 'answered') return null
  const { answer, source } = demand
  const where = answer.market === 'local' ? `in ${answer.place}` : marketNames[answer.market]
  return {
    title: `“${question?.topic}” ${where}, ${answer.asOf}, ${source}`,
    phrases: phrasesOfAnswer(answer, source),
  }
}

function TopicForm({
  given,
  lang,
  onAsk,
}: {
  given: DemandQuestion | null
  lang: string
  onAsk(asked: DemandQuestion): void
}) {
  const { register, handleSubmit, formState, watch, setValue } = useForm<DemandQuestion>({
    resolver: joiResolver(demandQuestionSchema),
    defaultValues: given ?? { topic: '', market: 'national', place: '', language: lang, limit: MOST_ASKED },
  })
  const market = watch('market')
  return (
    <form noValidate className="flex flex-wrap items-start gap-x-6 gap-y-2" onSubmit={handleSubmit(onAsk)}>
      <div className="w-72">
        <FormField
          label="Topic, in one or two words"
          registered={register('topic')}
          error={formState.errors.topic}
        />
      </div>
      <div className="pt-[29px]">
        <Choice
          label="Readers"
          value={market}
          options={markets.map((value) => ({ value, name: marketNames[value] }))}
          onChange={(value) => setValue('market', value)}
        />
      </div>
      {market === 'local' && (
        <div className="w-48">
          <FormField label="Place" registered={register('place')} error={formState.errors.place} />
        </div>
      )}
      <button type="submit" className="button button-main mt-[25px]">
        Look up
      </button>
    </form>
  )
}

/** A phrase of the editor's own joins the site's list. */
function TypedPhrase({ session }: { session: Session }) {
  const [typed, setTyped] = useState('')
  return (
    <form
      className="flex gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        const phrase = typed.trim()
        if (phrase === '') return
        const typedPhrase = {
          phrase,
          monthly: null,
          months: null,
          source: 'typed',
          date: today(),
          market: null,
          place: null,
        }
        listPhrases(session, [typedPhrase], true)
          .then(() => toast(`“${phrase}” is on the site’s list.`))
          .catch((error: unknown) => sayFailed('The phrase could not be kept', error))
        setTyped('')
      }}
    >
      <input
        aria-label="A phrase of your own"
        placeholder="or type one"
        maxLength={200}
        className="w-44 border-b border-sign bg-transparent px-1"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
      <button type="submit" className="quiet" disabled={typed.trim() === ''}>
        Keep it
      </button>
    </form>
  )
}

function Phrases({
  session,
  keywords,
  topic,
  title,
  phrases,
  isList,
  beside,
}: {
  session: Session
  keywords: SiteKeywords
  topic: string
  title: string
  phrases: Phrase[]
  isList: boolean
  beside: React.ReactNode
}) {
  const { lang, map } = keywords
  const [only, setOnly] = useState<Only>('all')
  const [find, setFind] = useState('')
  const [stem, setStem] = useState<string | null>(null)
  const [picking, setPicking] = useState<string | null>(null)
  const folded = useMemo(() => foldPhrases(phrases, lang), [phrases, lang])
  const helpers = useMemo(() => helperWords(phrases, topic, lang), [phrases, topic, lang])
  const wanted = find.trim().toLowerCase()
  const shown = useMemo(
    () =>
      folded.filter(
        ({ key, phrase }) =>
          (wanted === '' || phrase.phrase.toLowerCase().includes(wanted)) &&
          (stem === null || hasStem(phrase.phrase, stem, lang)) &&
          (only === 'all' ||
            (only === 'questions' ? isQuestion(phrase.phrase, lang) : !map.byForms.has(key))),
      ),
    [folded, wanted, stem, only, map, lang],
  )
  const onList = useMemo(
    () => new Set(keywords.phrases.map((p) => sameWording(p.phrase))),
    [keywords.phrases],
  )
  const kept = ({ phrase }: FoldedPhrase) => onList.has(sameWording(phrase.phrase))
  const keep = (list: FoldedPhrase[], on: boolean) =>
    void listPhrases(
      session,
      list.map((f) => f.phrase),
      on,
    ).catch((error: unknown) => sayFailed('The list could not be changed', error))
  const notKept = shown.filter((f) => !kept(f))
  return (
    <section className="mt-4" aria-labelledby="phrases-title">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 pb-2">
        <h2 id="phrases-title" className="font-serif text-[19px]">
          {title}
        </h2>
        <p className="text-[13px] text-ink-2" role="status" data-testid="phrases-shown">
          {plural(shown.length, 'phrase')}
          {shown.length < folded.length && ` of ${folded.length.toLocaleString('en')}`}
        </p>
        <div className="ml-auto flex flex-wrap items-baseline gap-x-5 gap-y-2 text-[13px]">
          {beside}
          <Choice
            label="Only"
            value={only}
            options={[
              { value: 'all', name: 'all' },
              { value: 'questions', name: 'questions' },
              { value: 'without a page', name: 'without a page' },
            ]}
            onChange={(v) => setOnly(v)}
          />
          <input
            type="search"
            aria-label="Find a phrase"
            placeholder="Find"
            className="w-28 border-b border-ink-3 bg-transparent px-1"
            value={find}
            onChange={(e) => setFind(e.target.value)}
          />
          {!isList && notKept.length > 0 && (
            <button type="button" className="action" onClick={() => keep(notKept, true)}>
              Keep {notKept.length === shown.length ? 'all' : 'the other'}{' '}
              {notKept.length.toLocaleString('en')}
            </button>
          )}
        </div>
      </div>
      {folded.length === 0 ? (
        <p className="sheet p-8 font-serif text-[17px]">
          {isList
            ? 'No phrase is on the site’s list yet. Find some by a topic, take in a sheet, or type one.'
            : 'No phrases are known for this topic. Try one word of it, another market, or a sheet of your own.'}
        </p>
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)_210px] gap-5 max-[1000px]:grid-cols-1">
          <PhraseTable
            phrases={shown}
            keywords={keywords}
            withSource={isList}
            kept={kept}
            onKeep={(f, on) => keep([f], on)}
            onPage={({ phrase }) => setPicking(phrase.phrase)}
          />
          <HelperWords words={helpers} chosen={stem} onChoose={setStem} />
        </div>
      )}
      {picking !== null && (
        <PagePicker session={session} keywords={keywords} phrase={picking} onClose={() => setPicking(null)} />
      )}
    </section>
  )
}
