import { useId, useMemo, useRef, useState } from 'react'
import { helperWords } from '../../../core/keywords/phrases.ts'
import type { Edit } from '../../../core/page/edits/draft.ts'
import type { PageId } from '../../../core/site/page-identity.ts'
import { keywordsOf, phrasesOf, type Decisions } from '../../../core/work/decisions.ts'
import { hasKeyword, compileKeyword } from '../../../core/words/match.ts'
import type { Session } from '../../session/session.ts'
import { useAnchors } from '../../margin/use-anchors.ts'
import { BesideMargin } from '../../margin/beside-margin.tsx'
import { plural } from '../../ui/plural.ts'
import { ReadAloud } from '../../ui/read-aloud.tsx'
import type { GalleyBlock, GalleyView } from '../../workers/galley.ts'
import { Placed } from '../placed.tsx'
import type { SheetProps } from '../sheet-props.ts'
import { galleyEdits } from './galley-edits.ts'
import { LinkWords } from './link-words.tsx'
import type { FirstBlock } from './new-block.tsx'
import { Questions, useQuestions } from './questions.tsx'
import { Row, type RowActions } from './row.tsx'
import { useGalley } from './use-galley.ts'

/** The page's running text, block by block, edited in place, with its phrases picked out. */
export function GalleySheet({
  session,
  row,
  decisions,
  view,
  toAnswer = null,
}: SheetProps & {
  /** A question that is to be answered, from another sheet. */
  toAnswer?: string | null
}) {
  const page = row.id
  const lang = row.lang ?? session.get().style.language
  const helpers = useHelpers(session, decisions, lang)
  const galley = useGalley(session, page, decisions, view, helpers)
  const [editing, setEditing] = useState<string | null>(null)
  const [composing, setComposing] = useState<Composing | null>(
    toAnswer === null ? null : { behind: LAST, kind: 'question', text: toAnswer },
  )
  const [furniture, setFurniture] = useState(false)
  const phrases = usePhrases(decisions)
  const questions = useQuestions(session, phrases, galley?.blocks, lang)
  const sheet = useRef<HTMLElement>(null)
  const marks = (view?.marks ?? []).filter((mark) => mark.shownOn.galley !== undefined)
  const anchors = useAnchors(sheet, marks, galley, (mark, box) => {
    const key = mark.start === null || !galley ? null : blockAround(galley, mark.start)?.key
    return key ? box.querySelector(`[data-block="${key}"]`) : box
  })
  const id = useId()
  const actions = useMemo(() => rowActions(session, page, id, setEditing, setComposing), [session, page, id])
  const { main, rest, sections } = useMemo(() => {
    const blocks = galley?.blocks ?? []
    const mainBlocks = blocks.filter((b) => b.isMain)
    return { main: mainBlocks, rest: blocks.filter((b) => !b.isMain), sections: sectionWords(mainBlocks) }
  }, [galley])

  if (!galley) return <p className="font-serif text-[15px] text-ink-2 italic">Reading …</p>

  const last = main.findLast((b) => b.behind !== null)
  const isBehind = (block: GalleyBlock) =>
    composing !== null && (composing.behind === block.key || (composing.behind === LAST && block === last))
  const shown = (blocks: GalleyBlock[]) =>
    blocks.map((block, i) => (
      <Row
        key={block.key ?? `made ${i}`}
        block={block}
        typed={typedIn(block, decisions)}
        isEditing={editing !== null && editing === block.key}
        composing={isBehind(block) ? composing : null}
        lang={row.lang}
        sectionWords={sections.get(block) ?? null}
        leadWords={galley.leadWords}
        actions={actions}
      />
    ))
  return (
    <BesideMargin
      session={session}
      page={page}
      view={view}
      marks={marks}
      anchors={anchors}
      clean="Nothing to mend in the text."
      onGoTo={(mark) => {
        const key = mark.start === null ? null : blockAround(galley, mark.start)?.key
        sheet.current?.querySelector<HTMLElement>(`[data-block="${key}"] [role=button]`)?.focus()
      }}
    >
      <section
        ref={sheet}
        id={id}
        className="sheet min-w-0 px-6 py-5 max-[700px]:px-3"
        aria-label="Galley"
        data-testid="galley"
      >
        <Phrases galley={galley} />
        <p className="float-right">
          <ReadAloud
            lang={lang ?? 'en'}
            texts={() => [row.title ?? '', row.description ?? '', ...main.map((b) => b.text)]}
          />
        </p>
        <Questions
          questions={questions}
          onAnswer={(question) => {
            setComposing({ behind: LAST, kind: 'question', text: question })
          }}
        />
        <Placed view={view} />
        {main.length === 0 && (
          <p className="py-4 font-serif text-[17px] text-ink-2">
            {row.partial
              ? 'Of this page only what a sheet says is known: take it in by its address to see its text.'
              : 'This page has no running text.'}
          </p>
        )}
        {shown(main)}
        {rest.length > 0 && (
          <details
            className="mt-5 border-t border-rule pt-3"
            open={furniture}
            onToggle={(e) => setFurniture(e.currentTarget.open)}
          >
            <summary className="cursor-pointer text-[13px] text-ink-2">
              {plural(rest.length, 'line')} of menus, header and footer
            </summary>
            {furniture && <div className="mt-2">{shown(rest)}</div>}
          </details>
        )}
        <p className="mt-5 border-t border-rule pt-3 text-[12px] text-ink-2">
          <kbd>Enter</kbd> edits a block, <kbd>↑</kbd> <kbd>↓</kbd> go to the next, <kbd>Shift Enter</kbd>{' '}
          begins a new line, <kbd>Del</kbd> takes a block out; select words while you edit to link them;{' '}
          <kbd>Esc</kbd> leaves it. Links, bold words and classes stay.
        </p>
      </section>
    </BesideMargin>
  )
}

/** Behind the last block of the main content. */
const LAST = 'last'

/** A block that is being typed: what it would stand behind, and what it begins as. */
interface Composing extends FirstBlock {
  behind: string
}

/** What can be done with the blocks: one object for as long as the page is on the sheet. */
function rowActions(
  session: Session,
  page: PageId,
  /** Of the sheet. */
  id: string,
  setEditing: (key: string | null) => void,
  setComposing: (composing: Composing | null) => void,
): RowActions {
  const edits = galleyEdits(session, page)
  let open: GalleyBlock | null = null
  const box = () => document.getElementById(id)
  const focusOn = (key: string | null) =>
    requestAnimationFrame(() =>
      box()?.querySelector<HTMLElement>(`[data-block="${key}"] [role=button]`)?.focus(),
    )
  const leave = () => {
    const left = open
    open = null
    setEditing(null)
    void session.blur()
    if (!left) return
    edits.dropIfEmpty(left)
    focusOn(left.key)
  }
  return {
    edit(block) {
      open = block
      setEditing(block.key)
    },
    type: edits.type,
    leave,
    remove: edits.remove,
    move(by) {
      const all = [...(box()?.querySelectorAll<HTMLElement>('[data-block] [role=button]') ?? [])]
      all[all.indexOf(document.activeElement as HTMLElement) + by]?.focus()
    },
    tag(block, tag) {
      edits.tag(block, tag)
      leave()
    },
    unlink(block, link) {
      edits.unlink(block, link)
      leave()
    },
    compose(block) {
      leave()
      setComposing({ behind: block.key!, kind: block.tag === 'li' ? 'li' : 'p', text: '' })
    },
    putIn(block, given) {
      edits.putIn(block, given)
      setComposing(null)
    },
    stopComposing(block) {
      setComposing(null)
      focusOn(block.key)
    },
    forSelected: (block, selected) =>
      block.key?.startsWith('text@') && (
        <LinkWords
          key={`${selected.phrase} ${selected.nth}`}
          selected={selected}
          rows={session.get().rows.values()}
          own={page}
          onLink={(href) => {
            edits.link(block, selected, href)
            leave()
          }}
        />
      ),
  }
}

/** What is typed in a block and not in the worker's answer yet; null where nothing is. */
function typedIn({ key, putIn }: GalleyBlock, decisions: Decisions): string | null {
  if (!putIn) return (key && (decisions[`edit:${key}`] as Edit | undefined)?.value) ?? null
  const { blocks = [] } = (decisions[`edit:${putIn.after}`] as Edit | undefined) ?? {}
  return blocks.find((b) => b.id === putIn.id)?.[putIn.part] ?? null
}

function usePhrases(decisions: Decisions): string[] {
  const key = JSON.stringify(keywordsOf(decisions))
  return useMemo(() => {
    const { primary = '', secondary = [] } = keywordsOf(decisions) ?? {}
    return [primary, ...secondary].filter(Boolean)
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the keywords, as a value
  }, [key])
}

const MOST_HELPERS = 12

/** Helper words of the site's phrases that speak of what the page is for. */
function useHelpers(session: Session, decisions: Decisions, lang: string | null): string[] {
  const ofSite = session.get().work.get('')
  const primary = decisions['keyword:primary'] as string | undefined
  return useMemo(() => {
    if (!primary) return []
    const keyword = compileKeyword(primary, lang)
    const about = phrasesOf(ofSite ?? {}).filter((p) => hasKeyword(p.phrase, keyword))
    return helperWords(about, primary, lang)
      .slice(0, MOST_HELPERS)
      .map((h) => h.word)
  }, [ofSite, primary, lang])
}

/** How often each phrase is in the text, and which are not. */
function Phrases({ galley }: { galley: GalleyView }) {
  const pagePhrases = galley.phrases.filter((p) => p.kind !== 'helper')
  const missing = pagePhrases.filter((p) => p.count === 0)
  const helpers = galley.phrases.filter((p) => p.kind === 'helper')
  const inText = helpers.filter((p) => p.count > 0)
  const notInText = helpers.filter((p) => p.count === 0)
  return (
    <div className="mb-3 border-b border-rule pb-3 text-[13px] text-ink-2">
      <p data-testid="phrases">
        {plural(galley.words, 'word')} of text.{' '}
        {pagePhrases.length === 0
          ? 'No phrase is assigned to this page yet.'
          : pagePhrases
              .filter((p) => p.count > 0)
              .map((p) => `“${p.phrase}” ${plural(p.count, 'time')}, ${p.density.toFixed(1)} %`)
              .join('; ')}
        {missing.length > 0 && (
          <>
            {missing.length < pagePhrases.length && '. '}
            <strong className="font-semibold text-ink">
              Not in the text: {missing.map((p) => `“${p.phrase}”`).join(', ')}.
            </strong>
          </>
        )}
      </p>
      {helpers.length > 0 && (
        <p data-testid="helpers-in-text">
          Helper words
          {inText.length > 0 &&
            ` in the text: ${inText.map((p) => `${p.phrase} ${plural(p.count, 'time')}`).join(', ')}`}
          {inText.length > 0 && notInText.length > 0 && ';'}
          {notInText.length > 0 && ` not in it: ${notInText.map((p) => p.phrase).join(', ')}`}.
        </p>
      )}
    </div>
  )
}

function blockAround({ blocks, starts, ends }: GalleyView, place: number): GalleyBlock | undefined {
  return blocks.findLast((_, i) => {
    const [start, end] = [starts[i]!, ends[i]!]
    return start !== null && start <= place && (end === null || place <= end)
  })
}

/** The words of each heading's section, up to the next heading. */
function sectionWords(blocks: GalleyBlock[]): Map<GalleyBlock, number> {
  const words = new Map<GalleyBlock, number>()
  let heading: GalleyBlock | null = null
  for (const block of blocks) {
    if (/^h[1-6]$/.test(block.tag)) {
      heading = block
      words.set(block, 0)
    } else if (heading) words.set(heading, words.get(heading)! + block.words)
  }
  return words
}
