import { useLayoutEffect, useRef, useState } from 'react'
import { CUT_SIGN } from '../../core/measure/cut.ts'
import { measure, type Measured } from '../../core/measure/snippet.ts'
import { foldText } from '../../core/measure/width.ts'
import { defaultStyle } from '../../core/rules/house-style.ts'
import type { LedgerRow } from '../store/db.ts'
import type { Session } from '../store/session.ts'
import type { Decisions } from '../../core/exchange/work.ts'
import type { MarkView, PageView } from '../workers/evaluate.ts'
import { KeywordFields } from './keyword-fields.tsx'
import { Margin } from './margin.tsx'
import { Refused } from './refused.tsx'
import { Ruler } from './ruler.tsx'
import { TypedText } from './typed-text.tsx'
import { copyText } from './copy.ts'

const LINE = { title: 26, description: 22 }

/** What a field shows: what was typed, else what the page has. */
export const fieldValue = (
  decisions: Decisions,
  target: 'title' | 'meta:description',
  row: LedgerRow,
): string =>
  (decisions[`edit:${target}`] as { value?: string } | undefined)?.value ??
  (target === 'title' ? row.title : row.description) ??
  ''

const trailOf = (url: string): string[] => {
  const { host, pathname } = new URL(url)
  return [
    host,
    ...pathname
      .split('/')
      .filter(Boolean)
      .map((s) => safeDecode(s)),
  ]
}
function safeDecode(segment: string): string {
  try {
    return decodeURIComponent(segment)
  } catch {
    return segment
  }
}

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
  const { path } = row
  const slots = defaultStyle.slots
  const title = fieldValue(decisions, 'title', row)
  const description = fieldValue(decisions, 'meta:description', row)
  const t = measure(title, 'title', slots)
  const d = measure(description, 'description', slots)
  const lang = view?.lang ?? row.lang ?? undefined

  const write = (target: 'title' | 'meta:description', value: string, source: string | null, label: string) =>
    session.type(
      path,
      `edit:${target}`,
      source !== null && foldText(value) === source ? undefined : { value },
      label,
    )

  const sheet = useRef<HTMLDivElement>(null)
  const [anchors, setAnchors] = useState<ReadonlyMap<string, number>>(new Map())
  const marks = (view?.marks ?? []).filter(onSnippet)
  const anchorKey = marks.map((m) => m.id).join('|') + t.wide.lines.length + title.length + description.length
  useLayoutEffect(() => {
    const top = sheet.current?.getBoundingClientRect().top ?? 0
    const at = (name: string) =>
      (sheet.current?.querySelector(`[data-anchor="${name}"]`)?.getBoundingClientRect().top ?? top) - top
    setAnchors(new Map(marks.map((m) => [m.id, at(anchorOf(m))])))
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key holds all that moves a line
  }, [anchorKey])

  return (
    <div className="grid grid-cols-[658px_minmax(0,1fr)] gap-7 max-[1100px]:grid-cols-[minmax(0,1fr)]">
      <div ref={sheet} className="min-w-0">
        <section
          className="sheet overflow-x-auto px-7 pt-5 pb-4 max-[700px]:px-4"
          aria-label="Result on a wide screen"
        >
          <div className="flex items-baseline justify-between text-[13px]">
            <p>
              <strong className="font-semibold">Wide screen</strong>{' '}
              <span className="text-ink-3">as people see it at {slots.title.wide.column} px; type in it</span>
            </p>
            <CopyButtons title={title} description={description} url={row.url} />
          </div>
          <div className="mt-3">
            <Ruler
              column={slots.title.wide.column}
              riskFrom={slots.title.wide.riskPx}
              px={t.px}
              fit={t.wide.state}
            />
          </div>
          <div className="result" lang={lang} style={{ width: slots.title.wide.column }}>
            <Trail url={row.url} />
            <div data-anchor="title">
              <TypedText
                testId="title"
                label="Title"
                value={title}
                shown={t.wide.shown}
                cut={t.wide.cut}
                lang={lang}
                placeholder={view ? view.fallBackTitle : ''}
                className="text-quill"
                style={{ fontSize: slots.title.wide.size, lineHeight: `${LINE.title}px` }}
                onChange={(value) => write('title', value, view?.sourceTitle ?? null, 'Title')}
                onLeave={() => void session.blur()}
              />
            </div>
            <div data-anchor="description" className="mt-2">
              <TypedText
                testId="description"
                label="Meta description"
                value={description}
                shown={d.wide.shown}
                cut={d.wide.cut}
                lang={lang}
                placeholder={
                  view
                    ? view.fallBackDescription.slice(0, 160) ||
                      'No description, and no text to take one from. Type one here.'
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
          </div>
          <div className="mt-3 flex flex-wrap justify-between gap-x-4 border-t border-rule-2 pt-2.5 text-[13px] text-ink-2">
            <Figures name="Title" measured={t} limit={slots.title.wide.column} testId="title-px" />
            <Figures
              name="Description"
              measured={d}
              limit={slots.description.wide.allowance!}
              testId="description-px"
            />
          </div>
          {(title === '' || description === '') && view && (
            <p className="mt-2 text-[13px] text-ink-2">
              In faded italics: what would be shown instead. Results use a page’s own description only part of
              the time.
            </p>
          )}
        </section>

        <section
          className="sheet mt-4 grid grid-cols-[386px_1fr] px-7 pt-4 pb-5 max-[700px]:grid-cols-1 max-[700px]:gap-4 max-[700px]:px-2"
          aria-label="Result on a narrow screen"
        >
          <div>
            <p className="text-[13px]">
              <strong className="font-semibold">Narrow screen</strong>{' '}
              <span className="text-ink-3">{slots.title.narrow.column} px</span>
            </p>
            <div className="result mt-2" lang={lang} style={{ width: slots.title.narrow.column }}>
              <Trail url={row.url} />
              <Lines
                measured={t}
                text={title || (view?.fallBackTitle ?? '')}
                role="title"
                faded={title === ''}
              />
              <Lines
                measured={d}
                text={description || (view?.fallBackDescription ?? '')}
                role="description"
                faded={description === ''}
              />
            </div>
          </div>
          <div
            className="border-l border-rule-2 pl-5 max-[700px]:border-l-0 max-[700px]:pl-0"
            data-anchor="keyword"
          >
            <KeywordFields key={path} session={session} path={path} decisions={decisions} />
          </div>
        </section>
        <Refused edits={view?.refused ?? []} />
      </div>
      <Margin
        path={path}
        marks={marks}
        anchors={anchors}
        session={session}
        clean={view ? 'Nothing to mend in this result.' : 'Reading …'}
      />
    </div>
  )
}

const onSnippet = (m: MarkView): boolean =>
  ['title', 'description', 'address'].includes(m.family) || m.rule.startsWith('keyword-')
const anchorOf = (m: MarkView): string =>
  m.family === 'address' ? 'trail' : m.family === 'text' ? 'keyword' : m.family

function Trail({ url }: { url: string }) {
  const parts = trailOf(url)
  return (
    <p data-anchor="trail" className="truncate pb-0.5 text-[14px] leading-[22px] text-ink-2">
      {parts.join(' › ')}
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

function Figures({
  name,
  measured,
  limit,
  testId,
}: {
  name: string
  measured: Measured
  limit: number
  testId: string
}) {
  const { wide, px, graphemes, estimatedPx } = measured
  const lastWord = wide.shown.split(' ').at(-1)
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

/** The narrow result's lines, drawn as they were broken. */
function Lines({
  text,
  measured,
  role,
  faded,
}: {
  text: string
  measured: Measured
  role: 'title' | 'description'
  faded: boolean
}) {
  const slots = defaultStyle.slots
  const m = faded ? measure(text, role, slots) : measured
  const style = { fontSize: slots[role].narrow.size, lineHeight: `${LINE[role]}px` }
  return (
    <p
      style={style}
      className={`${role === 'title' ? 'text-quill' : 'mt-1 text-ink'} ${faded ? 'text-faded italic' : ''}`}
      data-testid={`narrow-${role}`}
    >
      {m.narrow.lines.map((line, i) => (
        <span key={i} className="block whitespace-pre">
          {line}
          {m.narrow.cut && i === m.narrow.lines.length - 1 && <span className="text-faded">{CUT_SIGN}</span>}
        </span>
      ))}
    </p>
  )
}
