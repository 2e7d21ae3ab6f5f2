import { useCommand } from '../../ui/command-registry.ts'
import { useLayoutEffect, useRef, useState } from 'react'
import type { Decisions } from '../../../core/work/decisions.ts'
import { measure, type Measured } from '../../../core/measure/snippet.ts'
import { foldText, textWidth } from '../../../core/measure/width.ts'
import { styleFor } from '../../../core/rules/house-style.ts'
import { shownAddress } from '../../../core/addresses/addresses.ts'
import { fillTokens } from '../../../core/wording/tokens.ts'
import type { LedgerRow } from '../../../core/work/evaluate.ts'
import type { Session } from '../../session/session.ts'
import type { MarkView, PageView } from '../../workers/page-view.ts'
import { AddressDrawer, AddressTrail } from './address.tsx'
import { Carriers } from './carriers.tsx'
import { casedTitle, CasingDrawer, houseCasing } from './casing.tsx'
import { copyText } from '../../ui/copy.ts'
import { boldExtra, emphasised, type Run } from '../../result/emphasis.ts'
import { shownDate } from '../../result/furniture-text.ts'
import {
  FurnitureLine,
  FurnitureQuestions,
  FurnitureSwitches,
  nothingShown,
} from '../../result/furniture.tsx'
import { Instead } from './shown-instead.tsx'
import { KeywordFields } from './keyword-fields.tsx'
import { Margin } from '../../margin/margin.tsx'
import { NarrowLines } from '../../result/narrow-lines.tsx'
import { Refused } from '../../margin/refused.tsx'
import { fieldValue } from '../../session/field-value.ts'
import { Ruler } from '../../result/ruler.tsx'
import { keepTake, Takes } from './takes.tsx'
import { TypedText } from '../../result/typed-text.tsx'

const LINE = { title: 26, description: 22 }

/** The search result, edited where it is shown: wide with its rule, narrow beside it, following along. */
export function SnippetSheet({
  session,
  row,
  decisions,
  view,
}: {
  session: Session
  row: LedgerRow
  decisions: Decisions
  view: PageView | null
}) {
  const page = row.id
  const style = view?.style ?? styleFor(session.get().style, row.url)
  const { slots } = style
  const typed = {
    title: fieldValue(decisions, 'title', row),
    description: fieldValue(decisions, 'meta:description', row),
  }
  const tokens = view?.tokens ?? {}
  const title = fillTokens(typed.title, tokens).text
  const description = fillTokens(typed.description, tokens).text
  const lang = view?.lang ?? row.lang ?? style.language
  const [furniture, setFurniture] = useState(nothingShown)
  const [quietWords, setQuietWords] = useState<readonly string[]>([])
  const keywords = [
    decisions['keyword:primary'] as string | undefined,
    ...((decisions['keyword:secondary'] as string[] | undefined) ?? []),
  ].filter((k): k is string => !!k)
  const standing = keywords.filter((k, i) => (i === 0) !== quietWords.includes(k))

  const date = furniture.date && view ? shownDate(view.furniture.date, lang) : null
  const lead = date ? `${date} — ` : ''
  const t = measure(title, 'title', slots)
  const d = measure(lead + description, 'description', slots)
  // A title that fills all its lines is judged by the last; one that needs fewer fits, however long its lines are.
  const narrowLines = t.narrow.lines
  const narrowReach =
    narrowLines.length === (slots.title.narrow.lines ?? 1)
      ? textWidth(narrowLines.at(-1) ?? '', slots.title.narrow.size).px
      : 0
  const runs = {
    title: emphasised(title, standing, lang),
    description: emphasised(description, standing, lang),
  }
  const trail = furniture.trail ? (view?.furniture.trail ?? null) : null

  const write = (target: 'title' | 'meta:description', value: string, source: string | null, label: string) =>
    session.type(
      page,
      `edit:${target}`,
      source !== null && foldText(value) === source ? undefined : { value },
      label,
    )
  const put = (target: 'title' | 'meta:description', value: string, label: string) =>
    void session.decide(label, [{ page, key: `edit:${target}`, after: { value } }])

  // Keys of this sheet; what they do is on the sheet as well.
  const startFromInstead = () => {
    if (!view) return
    if (title.trim() === '') put('title', view.fallBackTitle, 'Title from what is shown instead')
    else if (view.passage)
      put(
        'meta:description',
        measure(view.passage.text, 'description', slots).wide.shown,
        'Description from the page’s text',
      )
  }
  useCommand('keepTake', () => keepTake(session, page, 'title', { text: typed.title, from: '' }))
  useCommand('casing', () => {
    const cased = casedTitle(typed.title, houseCasing(style), style, view)
    if (cased !== typed.title) put('title', cased, 'Casing')
  })
  useCommand('fromInstead', startFromInstead)
  useCommand('toSlug', () => sheet.current?.querySelector<HTMLElement>('[data-testid="slug"]')?.focus())

  const sheet = useRef<HTMLDivElement>(null)
  const [anchors, setAnchors] = useState<ReadonlyMap<string, number>>(new Map())
  const marks = (view?.marks ?? []).filter(onSnippet)
  const anchorKey = [
    ...marks.map((m) => m.id),
    t.wide.lines.length,
    title.length,
    description.length,
    view?.address.refused,
    lead,
  ].join('|')
  useLayoutEffect(() => {
    const top = sheet.current?.getBoundingClientRect().top ?? 0
    const at = (name: string) =>
      (sheet.current?.querySelector(`[data-anchor="${name}"]`)?.getBoundingClientRect().top ?? top) - top
    setAnchors(new Map(marks.map((m) => [m.id, at(anchorOf(m))])))
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key holds all that moves a line
  }, [anchorKey])

  return (
    <div className="grid grid-cols-[658px_minmax(0,1fr)] gap-7 max-[1100px]:grid-cols-[minmax(0,1fr)]">
      <div ref={sheet} className="flex min-w-0 flex-col">
        <section
          className="sheet overflow-x-auto px-7 pt-4 pb-3 max-[700px]:px-4"
          aria-label="Result on a wide screen"
        >
          <div className="flex items-baseline justify-between text-[13px]">
            <p>
              <strong className="font-semibold">Wide screen</strong>{' '}
              <span className="text-ink-3">actual size at {slots.title.wide.column} px; type in it</span>
            </p>
            <CopyButtons title={title} description={description} url={view?.url ?? row.url} />
          </div>
          <div className="mt-2">
            <Ruler
              column={slots.title.wide.column}
              riskFrom={slots.title.wide.riskPx}
              px={t.px}
              fit={t.wide.state}
            />
          </div>
          <div className="result" lang={lang ?? undefined} style={{ width: slots.title.wide.column }}>
            <AddressTrail session={session} row={row} decisions={decisions} view={view} trail={trail} />
            <div data-anchor="title">
              <TypedText
                testId="title"
                label="Title"
                value={typed.title}
                filled={title}
                shown={t.wide.shown}
                cut={t.wide.cut}
                runs={runs.title}
                lang={lang ?? undefined}
                placeholder={view ? view.fallBackTitle : ''}
                className="text-quill"
                style={{ fontSize: slots.title.wide.size, lineHeight: `${LINE.title}px` }}
                onChange={(value) => write('title', value, view?.sourceTitle ?? null, 'Title')}
                onLeave={() => void session.blur()}
              />
            </div>
            <div data-anchor="description" className="relative mt-1.5">
              {date && description !== '' && (
                <span
                  className="absolute top-0 left-0 whitespace-pre text-ink-2"
                  style={{ fontSize: slots.description.wide.size, lineHeight: `${LINE.description}px` }}
                >
                  {lead}
                </span>
              )}
              <TypedText
                testId="description"
                label="Meta description"
                value={typed.description}
                filled={description}
                shown={d.wide.shown.slice(lead.length)}
                cut={d.wide.cut}
                runs={runs.description}
                lang={lang ?? undefined}
                indent={
                  lead
                    ? textWidth(`${lead.trimEnd()} |`, slots.description.wide.size).px -
                      textWidth('|', slots.description.wide.size).px
                    : 0
                }
                placeholder={
                  view
                    ? view.passage
                      ? passageShown(view.passage.text, slots)
                      : 'No description, and no text to take one from. Type one here.'
                    : ''
                }
                className="text-ink"
                style={{ fontSize: slots.description.wide.size, lineHeight: `${LINE.description}px` }}
                onChange={(value) =>
                  write('meta:description', value, view?.sourceDescription ?? null, 'Meta description')
                }
                onLeave={() => void session.blur()}
              />
            </div>
            {view && <FurnitureLine furniture={view.furniture} shown={furniture} lang={lang} style={style} />}
            {view && <FurnitureQuestions inResult={view.inResult} shown={furniture} style={style} />}
          </div>
          <div className="mt-2.5 flex flex-wrap justify-between gap-x-4 border-t border-rule-2 pt-2 text-[13px] text-ink-2">
            <Figures
              name="Title"
              measured={t}
              runs={runs.title}
              size={slots.title.wide.size}
              limit={slots.title.wide.column}
              testId="title-px"
            />
            <Figures
              name="Description"
              measured={d}
              runs={runs.description}
              size={slots.description.wide.size}
              limit={slots.description.wide.allowance!}
              testId="description-px"
            />
          </div>
          <TokenLine typed={typed} tokens={tokens} />
          {(title.trim() === '' || description.trim() === '') && view && (
            <p className="mt-1.5 flex flex-wrap gap-x-4 text-[13px] text-ink-2" data-testid="fall-back">
              <span>In faded italics: what would be shown instead.</span>
              <button type="button" className="action" onClick={startFromInstead}>
                Start from it <kbd className="font-normal">Alt I</kbd>
              </button>
            </p>
          )}
          <div className="mt-1.5 flex flex-wrap gap-x-8 gap-y-1 text-[13px] text-ink-2 empty:hidden">
            {keywords.length > 0 && (
              <fieldset className="flex flex-wrap items-baseline gap-x-4">
                <legend className="float-left mr-4 font-semibold">In bold, when searched</legend>
                {keywords.slice(0, 6).map((k, i) => (
                  <label key={k} className="flex items-baseline gap-1.5">
                    <input
                      type="checkbox"
                      className="accent-ink"
                      checked={standing.includes(k)}
                      onChange={(e) =>
                        setQuietWords(
                          e.target.checked === (i === 0)
                            ? quietWords.filter((q) => q !== k)
                            : [...quietWords, k],
                        )
                      }
                    />
                    {k}
                  </label>
                ))}
              </fieldset>
            )}
            {view && (
              <FurnitureSwitches
                furniture={view.furniture}
                inResult={view.inResult}
                lang={lang}
                shown={furniture}
                onChange={setFurniture}
              />
            )}
          </div>
        </section>

        <section
          className="sheet mt-4 grid grid-cols-[386px_1fr] px-7 pt-4 pb-5 max-[700px]:order-first max-[700px]:mt-0 max-[700px]:mb-4 max-[700px]:-mx-3 max-[700px]:grid-cols-1 max-[700px]:gap-4 max-[700px]:border-x-0 max-[700px]:px-4"
          aria-label="Result on a narrow screen"
        >
          <div>
            <p className="text-[13px]">
              <strong className="font-semibold">Narrow screen</strong>{' '}
              <span className="text-ink-3">
                {slots.title.narrow.column} px; the rule measures the title’s last line
              </span>
            </p>
            <div className="mt-1.5">
              <Ruler
                column={slots.title.narrow.column}
                riskFrom={slots.title.narrow.riskPx}
                px={narrowReach}
                fit={t.narrow.state}
              />
            </div>
            <div className="result" lang={lang ?? undefined} style={{ width: slots.title.narrow.column }}>
              <p className="truncate pb-0.5 text-[14px] leading-[22px] text-ink-2">
                {(trail ?? shownAddress(view?.url ?? row.url)).join(' › ')}
              </p>
              <NarrowLines
                role="title"
                style={style}
                text={title}
                instead={view?.fallBackTitle ?? ''}
                keywords={standing}
                lang={lang}
              />
              <NarrowLines
                role="description"
                style={style}
                text={description}
                lead={lead}
                instead={view?.passage?.text ?? ''}
                keywords={standing}
                lang={lang}
              />
              {view && (
                <FurnitureLine furniture={view.furniture} shown={furniture} lang={lang} style={style} />
              )}
            </div>
            <p className="mt-2 text-[13px] text-ink-2" data-testid="narrow-figures">
              <NarrowFigures name="Title" measured={t} />
              <NarrowFigures name="Description" measured={d} limit={slots.description.narrow.allowance} />
            </p>
          </div>
          <div
            className="border-l border-rule-2 pl-5 max-[700px]:border-l-0 max-[700px]:pl-0"
            data-anchor="keyword"
          >
            <KeywordFields key={page} session={session} page={page} decisions={decisions} />
          </div>
        </section>

        <div className="sheet mt-4 py-1">
          <Takes
            session={session}
            page={page}
            decisions={decisions}
            view={view}
            style={style}
            present={typed}
            keywords={standing}
            lang={lang}
          />
          {view && <AddressDrawer session={session} row={row} decisions={decisions} view={view} />}
          <CasingDrawer
            title={typed.title}
            style={style}
            view={view}
            lang={lang}
            onApply={(value) => put('title', value, 'Casing')}
          />
          {view && (
            <Instead
              view={view}
              style={style}
              description={description}
              onStart={(text) => put('meta:description', text, 'Description from the page’s text')}
            />
          )}
          {view && (
            <Carriers session={session} page={page} view={view} title={title} description={description} />
          )}
        </div>
        <Refused edits={view?.refused ?? []} />
      </div>
      <Margin
        page={page}
        marks={marks}
        anchors={anchors}
        session={session}
        clean={view ? 'Nothing to mend in this result.' : 'Reading …'}
      />
    </div>
  )
}

const passageShown = (text: string, slots: Parameters<typeof measure>[2]): string => {
  const { wide } = measure(text, 'description', slots)
  return wide.cut ? `${wide.shown} ...` : wide.shown
}

/** Marks about the result: titles, descriptions and addresses, and where the keyword stands. */
const onSnippet = (mark: MarkView): boolean => mark.shownOn.snippet !== undefined
const anchorOf = (mark: MarkView): string => mark.shownOn.snippet!

/** Which tokens stand in the wording, and with what they are filled. */
function TokenLine({
  typed,
  tokens,
}: {
  typed: { title: string; description: string }
  tokens: PageView['tokens']
}) {
  const used = [
    ...new Set(
      `${typed.title} ${typed.description}`.match(/\{(?:page|site|section|year|month|h1|author|price)\}/g) ??
        [],
    ),
  ]
  if (used.length === 0) return null
  return (
    <p className="mt-1.5 text-[13px] text-ink-2" data-testid="tokens">
      {used.map((token, i) => {
        const value = tokens[token.slice(1, -1) as keyof typeof tokens]
        return (
          <span key={token}>
            {i > 0 && ', '}
            <code className="font-mono text-[12.5px]">{token}</code>{' '}
            {value ? (
              `is “${value}”`
            ) : (
              <strong className="font-semibold text-carmine">
                {token === '{site}' ? 'is unknown: add it in the house style' : 'is not on the page'}
              </strong>
            )}
          </span>
        )
      })}
      . The file gets the filled-in text.
    </p>
  )
}

function CopyButtons({ title, description, url }: { title: string; description: string; url: string }) {
  return (
    <span className="flex gap-3 text-[13px] text-ink-2">
      Copy
      {(
        [
          ['title', title, 'Title'],
          ['description', description, 'Description'],
          ['address', url, 'Address'],
        ] as const
      ).map(([name, text, said], i) => (
        <button
          key={name}
          type="button"
          className="quiet"
          title={`Alt+${i + 1}`}
          onClick={() => void copyText(foldText(text), said)}
        >
          {name}
        </button>
      ))}
    </span>
  )
}

/** How a text stands on a narrow screen, and the words that would go. */
function NarrowFigures({ name, measured, limit }: { name: string; measured: Measured; limit?: number }) {
  const { narrow, px } = measured
  if (measured.text === '') return null
  const words = { fits: 'fits', 'at-risk': 'at risk', cut: 'cut' }[narrow.state]
  return (
    <span className="block">
      {name} <span className={narrow.state === 'cut' ? 'font-semibold text-carmine' : ''}>{words}</span>
      {limit !== undefined && ` (${Math.round(px)} of ${limit} px)`}
      {narrow.cut && `; lost: “${shortened(narrow.lost.trim())}”`}
    </span>
  )
}
const shortened = (text: string) => (text.length > 60 ? `${text.slice(0, 60)} …` : text)

function Figures({
  name,
  measured,
  runs,
  size,
  limit,
  testId,
}: {
  name: string
  measured: Measured
  runs: Run[]
  size: number
  limit: number
  testId: string
}) {
  const { wide, px, graphemes, estimatedPx } = measured
  const lastWord = wide.shown.split(' ').at(-1)
  const extra = Math.round(boldExtra(runs, size))
  return (
    <p>
      {name}{' '}
      <strong
        className={wide.state === 'cut' ? 'text-carmine' : 'text-ink'}
        data-testid={testId}
        data-px={px}
      >
        {Math.round(px)} px
      </strong>
      {extra > 0 && <span className="text-ink-3"> +{extra} bold</span>}
      {estimatedPx > 0 && ' (estimated)'}
      {wide.state === 'cut'
        ? `, cut after “${lastWord}”`
        : wide.state === 'at-risk'
          ? `, at risk: near ${limit}`
          : px > 0
            ? ', fits'
            : ''}
      <span className="ml-3">{graphemes} characters</span>
    </p>
  )
}
