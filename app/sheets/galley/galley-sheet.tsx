import { useRef, useState } from 'react'
import type { Edit } from '../../../core/page/edits/draft.ts'
import { overEdit } from '../../../core/page/edits/draft.ts'
import { useAnchors } from '../../margin/use-anchors.ts'
import { BesideMargin } from '../../margin/beside-margin.tsx'
import { plural } from '../../ui/plural.ts'
import { core } from '../../workers/client.ts'
import { useAnswer } from '../../workers/use-answer.ts'
import type { GalleyBlock, GalleyView } from '../../workers/galley.ts'
import { Placed } from '../placed.tsx'
import type { SheetProps } from '../sheet-props.ts'
import { Block } from './block.tsx'
import { LinkWords, type Selected } from './link-words.tsx'

/** The page's running text, block by block, edited in place, with its phrases picked out. */
export function GalleySheet({ session, row, decisions, view }: SheetProps) {
  const page = row.id
  const galley = useAnswer(view && (() => core().galleyOf(page, session.decisionsOf(page))), [
    view,
    page,
    session,
  ])
  const [editing, setEditing] = useState<string | null>(null)
  const [furniture, setFurniture] = useState(false)
  const sheet = useRef<HTMLElement>(null)
  const marks = (view?.marks ?? []).filter((mark) => mark.shownOn.galley !== undefined)
  const anchors = useAnchors(sheet, marks, galley, (mark, box) => {
    const key = mark.start === null || !galley ? null : blockAround(galley.blocks, mark.start)?.key
    return key ? box.querySelector(`[data-block="${key}"]`) : box
  })

  if (!galley) return <p className="font-serif text-[15px] text-ink-2 italic">Reading …</p>

  const editOf = (key: string) => decisions[`edit:${key}`] as Edit | undefined
  const type = (block: GalleyBlock, value: string) => {
    const key = block.key!
    const now = editOf(key)
    const { value: _, ...rest } = now ?? {}
    // What the page says anyway is no edit.
    const next =
      value === block.original ? (Object.keys(rest).length > 0 ? rest : undefined) : overEdit(now, { value })
    session.type(page, `edit:${key}`, next, 'Text')
  }
  const leave = () => {
    const left = editing
    setEditing(null)
    void session.blur()
    requestAnimationFrame(() =>
      sheet.current?.querySelector<HTMLElement>(`[data-block="${left}"] [role=button]`)?.focus(),
    )
  }
  const remove = (block: GalleyBlock) =>
    void session.decide('Text taken out', [{ page, key: `edit:${block.key!}`, after: { remove: true } }])
  const link = (block: GalleyBlock, { phrase, nth }: Selected, href: string) =>
    void session.decide('Words linked', () => {
      const key = `edit:${block.key!}`
      const now = session.decisionsOf(page)[key] as Edit | undefined
      return [{ page, key, after: { ...now, links: [...(now?.links ?? []), { phrase, nth, href }] } }]
    })
  const move = (from: HTMLElement | null, by: 1 | -1) => {
    const all = [...(sheet.current?.querySelectorAll<HTMLElement>('[data-block] [role=button]') ?? [])]
    all[all.indexOf(from!) + by]?.focus()
  }
  const main = galley.blocks.filter((b) => b.isMain)
  const rest = galley.blocks.filter((b) => !b.isMain)
  const sections = sectionWords(main)
  const shown = (blocks: GalleyBlock[]) =>
    blocks.map((block, i) => (
      <div key={block.key ?? `made ${i}`}>
        <Block
          block={block}
          value={(block.key && editOf(block.key)?.value) ?? block.text}
          editing={editing !== null && editing === block.key}
          lang={row.lang}
          sectionWords={sections.get(block) ?? null}
          onEdit={() => setEditing(block.key)}
          onType={(value) => type(block, value)}
          onLeave={leave}
          onRemove={() => remove(block)}
          forSelected={(selected) =>
            block.key?.startsWith('text@') && (
              <LinkWords
                key={`${selected.phrase} ${selected.nth}`}
                selected={selected}
                rows={session.get().rows.values()}
                own={page}
                onLink={(href) => {
                  link(block, selected, href)
                  leave()
                }}
              />
            )
          }
          onMove={(by) => move(document.activeElement as HTMLElement, by)}
        />
        {block.endsLead && (
          <p
            className="my-1 ml-16 flex items-center gap-3 font-sans text-[12px] text-ink-3"
            data-testid="lead-ends"
          >
            <span className="h-px flex-1 bg-rule" /> the first {galley.leadWords} words end in this block
          </p>
        )}
      </div>
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
        const key = mark.start === null ? null : blockAround(galley.blocks, mark.start)?.key
        sheet.current?.querySelector<HTMLElement>(`[data-block="${key}"] [role=button]`)?.focus()
      }}
    >
      <section
        ref={sheet}
        className="sheet min-w-0 px-6 py-5 max-[700px]:px-3"
        aria-label="Galley"
        data-testid="galley"
      >
        <Phrases galley={galley} />
        <Placed session={session} page={page} decisions={decisions} view={view} />
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

/** How often each phrase is in the text, and which are not. */
function Phrases({ galley }: { galley: GalleyView }) {
  const missing = galley.phrases.filter((p) => p.count === 0)
  return (
    <p className="mb-3 border-b border-rule pb-3 text-[13px] text-ink-2" data-testid="phrases">
      {plural(galley.words, 'word')} of text.{' '}
      {galley.phrases.length === 0
        ? 'No phrase is assigned to this page yet.'
        : galley.phrases
            .filter((p) => p.count > 0)
            .map((p) => `“${p.phrase}” ${plural(p.count, 'time')}, ${p.density.toFixed(1)} %`)
            .join('; ')}
      {missing.length > 0 && (
        <>
          {missing.length < galley.phrases.length && '. '}
          <strong className="font-semibold text-ink">
            Not in the text: {missing.map((p) => `“${p.phrase}”`).join(', ')}.
          </strong>
        </>
      )}
    </p>
  )
}

const blockAround = (blocks: GalleyBlock[], place: number): GalleyBlock | undefined =>
  blocks.findLast((b) => b.start !== null && b.start <= place && (b.end === null || place <= b.end))

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
