import { useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import type { Decisions } from '../../../core/work/decisions.ts'
import type { Edit, TargetKey } from '../../../core/page/edits/draft.ts'
import type { BuildKind } from '../../../core/structured-data/build.ts'
import { currencyCodes } from '../../../core/structured-data/formats.ts'
import { parseJson, pointerAt } from '../../../core/json/json.ts'
import { inWords } from '../../../core/structured-data/words.ts'
import type { Session } from '../../session/session.ts'
import { core } from '../../workers/client.ts'
import type { BlockView } from '../../workers/data.ts'
import type { MarkView, PageView } from '../../workers/page-view.ts'
import { useAnswer } from '../../workers/use-answer.ts'
import { PageBlock } from './data-page-block.tsx'
import { blockEditor } from './data-edits.ts'
import { DataJson } from './data-json.tsx'
import { InMarkUp } from './data-markup.tsx'
import { DescribeAs } from './data-offers.tsx'
import { kindNames } from './data-words.ts'
import { Margin } from '../../margin/margin.tsx'
import { Refused } from '../../margin/refused.tsx'
import { useAnchors } from '../../margin/use-anchors.ts'
import { useNewest } from '../../ui/use-same.ts'

/** What the page tells machines, as things with names; each filled in where it is read, and as JSON beside it. */
export function DataSheet({
  session,
  view,
  page,
  decisions,
  onSource,
  onResult,
}: {
  session: Session
  view: PageView | null
  page: string
  decisions: Decisions
  onSource(start: number): void
  onResult(): void
}) {
  const data = useAnswer(view && (() => core().dataView(page, session.decisionsOf(page))), [
    view,
    page,
    session,
  ])
  const [asJson, setAsJson] = useState<string | null>(null)
  const sheet = useRef<HTMLElement>(null)

  const marks = useMemo(() => (view?.marks ?? []).filter((mark) => mark.shownOn.data !== undefined), [view])
  /** Which element a mark stands beside: the field at its pointer, or what holds it. */
  const pointerOf = (start: number | null): { block: BlockView; pointer: string } | null => {
    if (start === null || !data) return null
    const block = data.blocks.find((b) => start >= b.jsonStart && start <= b.jsonStart + b.json.length)
    const parsed = block && parseJson(block.json)
    return block
      ? { block, pointer: parsed?.ok ? pointerAt(parsed.value, start - block.jsonStart) : '' }
      : null
  }
  const elementOf = (start: number | null): HTMLElement | null => {
    const at = pointerOf(start)
    if (!at) return null
    for (let pointer = at.pointer; ; pointer = pointer.slice(0, pointer.lastIndexOf('/'))) {
      const block = sheet.current?.querySelector<HTMLElement>(
        `[data-pointer="${CSS.escape(`${at.block.key} ${pointer}`)}"]`,
      )
      if (block) return block
      if (pointer === '') break
    }
    return sheet.current?.querySelector<HTMLElement>(`[data-block="${CSS.escape(at.block.key)}"]`) ?? null
  }
  const anchors = useAnchors(sheet, marks, data, (mark) => elementOf(mark.start))
  const images = data?.images
  const address = data?.url
  const suggestions = useMemo(
    () => ({
      images: images ?? [],
      addresses: address === undefined ? [] : [address],
      currencies: currencyCodes,
    }),
    [images, address],
  )

  const actions = useNewest({
    json: (key: TargetKey) => setAsJson(key === asJson ? null : key),
    takeOut: (key: TargetKey) =>
      void session.decide('Structured data removed', [
        {
          page,
          key: `edit:${key}`,
          after: key.startsWith('data:') ? undefined : ({ remove: true } satisfies Edit),
        },
      ]),
    result: onResult,
    look: onSource,
    goTo(mark: MarkView) {
      const element = elementOf(mark.start)
      element?.scrollIntoView({ block: 'center' })
      ;(element?.querySelector<HTMLElement>('input, textarea, select, button') ?? element)?.focus()
    },
  })

  if (!data) return <p className="font-serif text-[15px] text-ink-2 italic">Reading …</p>

  const now = () => session.decisionsOf(page)
  const describe = async (kind: BuildKind) => {
    const built = await core().buildData(page, now(), kind)
    if (!built) return
    const key = freeKey(now(), kind)
    await session.decide(`Described as ${kindNames[kind]!.toLowerCase()}`, [
      { page, key: `edit:${key}`, after: { value: built.value, built: built.built } satisfies Edit },
    ])
    toast(
      `${kindNames[kind]}: filled from the page. ${built.open.length > 0 ? 'What was not found is left blank.' : ''}`,
    )
  }
  const describeAs = (type: string) =>
    session.decide(`Described as ${inWords(type)}`, [
      {
        page,
        key: `edit:${freeKey(now(), type)}`,
        after: {
          value: JSON.stringify({ '@context': 'https://schema.org', '@type': type }, null, 2),
        } satisfies Edit,
      },
    ])
  const removed = Object.entries(decisions).filter(
    ([key, edit]) => key.startsWith('edit:jsonld@') && (edit as Edit).remove,
  )
  const open = data.blocks.find((b) => b.key === asJson)
  const jsonEditor = open ? blockEditor(session, page, open.key, () => open.json, now) : null
  const textOf = (block: BlockView) =>
    (decisions[`edit:${block.key}`] as Edit | undefined)?.value ?? block.json

  return (
    <div
      className={`grid gap-7 max-[1100px]:grid-cols-[minmax(0,1fr)] ${open ? 'grid-cols-[minmax(0,1fr)_minmax(0,1fr)]' : 'grid-cols-[658px_minmax(0,1fr)]'}`}
    >
      <section
        ref={sheet}
        className="sheet min-w-0 self-start px-7 py-5 max-[700px]:px-4"
        aria-label="Data"
        data-testid="data"
      >
        {data.blocks.length === 0 && (
          <div className="pb-3">
            <h2 className="font-serif text-[19px]">No structured data yet</h2>
            <p className="mt-1 max-w-[560px] text-ink-2">
              Structured data tells search engines what a page is about. Choose what this page is about: a
              first version is filled in from the page, and you complete it here. Nothing is added that the
              page does not say.
            </p>
          </div>
        )}
        {data.blocks.map((block) => (
          <PageBlock
            key={block.key}
            session={session}
            page={page}
            block={block}
            isJson={block.key === asJson}
            suggestions={suggestions}
            siteThings={data.siteThings}
            actions={actions}
          />
        ))}
        {removed.map(([key]) => (
          <p key={key} className="border-t border-rule-2 py-3 text-[13px] text-ink-2">
            A block of the source has been removed.{' '}
            <button
              type="button"
              className="action"
              onClick={() =>
                void session.decide('Structured data restored', [{ page, key, after: undefined }])
              }
            >
              Restore it
            </button>
          </p>
        ))}
        {(data.inline.microdata || data.inline.rdfa) && (
          <InMarkUp page={page} session={session} decisions={decisions} view={view} />
        )}
        <DescribeAs
          offers={data.offers}
          present={new Set(data.blocks.flatMap((b) => b.things.flatMap((t) => t.types)))}
          first={data.blocks.length === 0}
          onBuild={(kind) => void describe(kind)}
          onType={(type) => void describeAs(type)}
        />
        <Refused edits={view?.refused ?? []} />
      </section>

      <div className="flex min-w-0 flex-col gap-5">
        {open && (
          <aside
            aria-label="JSON of the block"
            className="sticky top-[64px] max-h-[calc(100vh-90px)] self-stretch overflow-y-auto"
          >
            <h2 className="mb-1 font-serif text-[16px]">As JSON</h2>
            <DataJson
              key={open.key}
              text={textOf(open)}
              onType={jsonEditor!.write}
              onRest={jsonEditor!.rest}
            />
          </aside>
        )}
        <Margin
          page={page}
          marks={marks}
          anchors={open ? noAnchors : anchors}
          session={session}
          onGoTo={actions.goTo}
          clean={
            data.blocks.length > 0 ? 'The structured data is valid and matches the page.' : 'Nothing to mend.'
          }
        />
      </div>
    </div>
  )
}

/** Beside the JSON, marks stand one below the other. */
const noAnchors: ReadonlyMap<string, number> = new Map()

/** A key for a new block that the draft has not yet. */
function freeKey(decisions: Decisions, kind: string): string {
  const name = kind.toLowerCase().replace(/[^a-z0-9]/g, '')
  for (let i = 1; ; i++) {
    const key = `data:${name}${i === 1 ? '' : `-${i}`}`
    if (!(`edit:${key}` in decisions)) return key
  }
}
